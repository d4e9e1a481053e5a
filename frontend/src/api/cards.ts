import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { textOf, type Draft } from "../cards/draft";
import { body, client } from "./client";

export const useCards = () => useQuery({ queryKey: ["cards"], queryFn: async () => body(await client.GET("/api/cards")) });

export function usePutCard() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, draft }: { id: number | null; draft: Draft }) => {
      const sent = {
        rung: draft.rung,
        title: draft.title,
        kind: draft.kind,
        card: textOf(draft.card),
        asks: draft.asks,
        countin_words: draft.words.filter(Boolean),
        contrast: draft.contrast,
        sets: draft.sets.map(textOf),
        full_breath: draft.check.full_breath,
        position: draft.check.position,
        with_instrument: draft.check.with_instrument,
        taught: draft.check.taught,
        notes: draft.check.notes,
        dynamic: draft.check.dynamic,
        articulation: draft.check.articulation,
      };
      return id === null
        ? body(await client.POST("/api/cards", { body: sent }))
        : body(await client.PUT("/api/cards/{card_id}", { params: { path: { card_id: id } }, body: sent }));
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["cards"] }),
  });
}

/** A demonstration for a card: taken in as it is, and made so that a browser plays it. */
export function useShow(cardId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (file: File) =>
      body(
        await client.POST("/api/cards/{card_id}/shown", {
          params: { path: { card_id: cardId }, query: { file_name: file.name } },
          body: file as never,
          bodySerializer: (content) => content,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["cards"] }),
  });
}

export function useHideShown(cardId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async () => body(await client.DELETE("/api/cards/{card_id}/shown", { params: { path: { card_id: cardId } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["cards"] }),
  });
}

export function useDeleteCard() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (id: number) => body(await client.DELETE("/api/cards/{card_id}", { params: { path: { card_id: id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["cards"] }),
  });
}

export function useAllowEmpty() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (allowed: boolean) => body(await client.PUT("/api/cards/empty", { body: { allowed } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["cards"] }),
  });
}

/** Another card for one chair. */
export function useGiveCard() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ seatId, cardId }: { seatId: number; cardId: number }) =>
      body(await client.PUT("/api/seats/{seat_id}/card", { params: { path: { seat_id: seatId } }, body: { card_id: cardId } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["today"] }), // waited for: the sheet closes over the new card
  });
}

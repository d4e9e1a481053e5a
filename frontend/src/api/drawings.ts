import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { body, client, type Drawing, TAP } from "./client";

/** A drawing before it is kept. */
export type NewDrawing = Omit<Drawing, "id">;
type Pair = [number, number];

/** What was drawn on a take's clip. */
export const useDrawings = (take_id: string) =>
  useQuery({
    queryKey: ["drawings", take_id],
    queryFn: async () => body(await client.GET("/api/takes/{take_id}/drawings", { params: { path: { take_id } } })),
  });

/** Draw on a take's clip. */
export function useDraw(take_id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ at_px, to_px, ...rest }: NewDrawing) => {
      const drawing = { ...rest, at_px: at_px as Pair, to_px: to_px as Pair };
      return body(await client.POST("/api/takes/{take_id}/drawings", { params: { path: { take_id } }, body: drawing, ...TAP }));
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["drawings", take_id] }),
  });
}

/** Take a drawing away. */
export function useRubOut(take_id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (drawing_id: number) =>
      body(await client.DELETE("/api/takes/{take_id}/drawings/{drawing_id}", { params: { path: { take_id, drawing_id } }, ...TAP })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["drawings", take_id] }),
  });
}

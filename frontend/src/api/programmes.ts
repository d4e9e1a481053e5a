import { useMutation, useQueryClient } from "@tanstack/react-query";

import { body, client, setCsrf, type Me } from "./client";

/** Everything behind the door is another programme's now: the page begins anew, and nothing of the one before stays in it. */
const anew = (me: Me) => {
  setCsrf(me.csrf);
  location.assign("/");
};

/** Goes on in another programme of one's own. */
export const useGoTo = () =>
  useMutation({
    mutationFn: async (programme_id: number) => body(await client.POST("/api/programme", { body: { programme_id } })),
    onSuccess: anew,
  });

type Named = { name: string; time_zone: string };

/** Makes one more programme, and goes on in it. */
export const useNewProgramme = () =>
  useMutation({
    mutationFn: async (named: Named) => body(await client.POST("/api/programmes", { body: named })),
    onSuccess: anew,
  });

/** Calls this programme otherwise, or lets it live by another clock. */
export function useChangeProgramme() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (named: Named) => body(await client.PUT("/api/programme", { body: named })),
    onSuccess: (me) => {
      setCsrf(me.csrf);
      queries.setQueryData(["me"], me);
      void queries.invalidateQueries(); // what is due today goes by its clock
    },
  });
}

/** Comes into the programme of an invitation with the account that is signed in. */
export const useJoin = () =>
  useMutation({
    mutationFn: async (code: string) => body(await client.POST("/api/invitations/join", { body: { code } })),
    onSuccess: anew,
  });

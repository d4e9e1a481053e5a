import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

import { body, client, setCsrf, type Me } from "./client";

const HERE = "brevin-programme";

/** Everything behind the door is another programme's now: the page begins anew, and nothing of the one before stays in it, nor in other pages of this
 * browser. */
const anew = (me: Me) => {
  setCsrf(me.csrf);
  localStorage.setItem(HERE, String(me.programme?.id));
  location.assign("/");
};

/** A page that stands open beside the one in which somebody went to another programme goes along; one that films does not, and keeps what it filmed. */
export function useGoAlong(programme: number | undefined, filming: boolean) {
  useEffect(() => {
    const along = ({ key, newValue }: StorageEvent) => {
      if (key === HERE && newValue !== String(programme) && !filming) location.assign("/");
    };
    addEventListener("storage", along);
    return () => removeEventListener("storage", along);
  }, [programme, filming]);
}

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

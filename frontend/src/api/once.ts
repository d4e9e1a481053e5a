import type { Middleware } from "openapi-fetch";

/** The name under which the server does something once, however often it is asked for. */
export const ONCE_HEADER = "Idempotency-Key";
const AGAIN_WITHIN_MS = 120_000; // later, the same words are meant anew

type Named = { what: string; name: string };

/** What was asked for and not answered may have been done. Asked for again with the same words, it goes under the same name: nothing is there twice. */
export function namedOnce(now: () => number = () => performance.now()): Middleware {
  const asked = new Map<string, Named>();
  const unheard = new Map<string, { name: string; at: number }>();
  const lost = (id: string) => {
    const one = asked.get(id);
    asked.delete(id);
    if (one) unheard.set(one.what, { name: one.name, at: now() });
  };
  return {
    onRequest: async ({ request, id }) => {
      const type = request.headers.get("Content-Type");
      if (request.method !== "POST" || (type && !type.startsWith("application/json"))) return;
      const what = `${request.url} ${await request.clone().text()}`;
      const before = unheard.get(what);
      unheard.delete(what);
      const name = before && now() - before.at < AGAIN_WITHIN_MS ? before.name : crypto.randomUUID();
      asked.set(id, { what, name });
      request.headers.set(ONCE_HEADER, name);
    },
    onResponse: ({ id, response }) => (response.ok ? void asked.delete(id) : lost(id)), // one in between may have answered; what was refused was not done
    onError: ({ id }) => lost(id),
  };
}

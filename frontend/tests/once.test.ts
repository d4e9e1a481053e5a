import createClient from "openapi-fetch";
import { expect, test } from "vitest";

import { namedOnce, ONCE_HEADER } from "../src/api/once";

type Paths = Record<
  "/cards" | "/other",
  Record<"post" | "put", { requestBody: { content: { "application/json": { text: string } } }; responses: object }>
>;

/** A client whose requests are answered or lost as told; the names they went under. */
function line(now: () => number = () => 0) {
  const names: (string | null)[] = [];
  const fates: ("answered" | "lost" | 408 | Promise<void>)[] = [];
  const client = createClient<Paths>({
    baseUrl: "http://here/",
    fetch: async (request) => {
      names.push(request.headers.get(ONCE_HEADER));
      const fate = fates.shift() ?? "answered";
      if (fate === "lost") throw new TypeError("lost");
      await fate;
      return new Response("{}", { status: fate === 408 ? 408 : 201, headers: { "Content-Type": "application/json" } });
    },
  });
  client.use({
    onResponse: ({ response }) => {
      if (!response.ok) throw new Error("refused");
    },
    onError: () => new Error("unreachable"),
  });
  client.use(namedOnce(now));
  const say = (text: string, path: "/cards" | "/other" = "/cards") => client.POST(path, { body: { text } }).catch(() => undefined);
  return { client, names, fates, say };
}

test("what was not answered is asked for again under its name, by the same words alone", async () => {
  const { names, fates, say } = line();
  fates.push("lost", "answered", "lost");
  await say("a card"); // lost
  await say("another card");
  await say("a card", "/other"); // lost as well
  await say("a card");
  await say("a card"); // answered before: meant anew
  await say("a card", "/other");
  expect(names[3]).toBe(names[0]);
  expect(names[5]).toBe(names[2]);
  expect(new Set(names).size).toBe(4);
});

test("lost again it keeps its name, for two minutes", async () => {
  let at = 0;
  const { names, fates, say } = line(() => at);
  fates.push("lost", 408, "lost");
  await say("a card");
  at = 100_000;
  await say("a card");
  at = 210_000; // from the last try on
  await say("a card");
  at = 340_000;
  await say("a card");
  expect([names[1], names[2]]).toEqual([names[0], names[0]]);
  expect(names[3]).not.toBe(names[0]);
});

test("two presses are two, though the first is still on its way", async () => {
  let goOn = () => undefined as void;
  const { names, fates, say } = line();
  fates.push(new Promise((resolve) => (goOn = resolve)));
  const first = say("not yet");
  await say("not yet");
  goOn();
  await first;
  expect(names[0]).not.toBe(names[1]);
});

test("what may be done twice, and what is no word, has no name", async () => {
  const { client, names } = line();
  await client.PUT("/cards", { body: { text: "a card" } });
  await client.POST("/cards", {
    body: new Blob() as never,
    bodySerializer: (content) => content,
    headers: { "Content-Type": "image/jpeg" },
  });
  expect(names).toEqual([null, null]);
});

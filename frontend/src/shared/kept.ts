import { openDB, type DBSchema, type IDBPDatabase } from "idb";

import type { Felt, Seat } from "../api/client";

/** What of a check is filmed otherwise for this once. withoutIt: without the instrument; fromFront: facing the camera, which tells the shoulders. */
export type Once = { withoutIt: boolean; fromFront: boolean };

/** A recording as it is kept in this browser until the server has it. first_inhale_s: where the first inhale is due on its own clock; felt: what the student
 * said before the reading was there; set: which set of the card it is, from 0; programme: whose it
 * is, not known of one from before there were several. */
export type Kept = {
  key: string;
  seat: Seat;
  lessonId: number;
  first_inhale_s: number;
  type: string;
  made_at: string;
  felt?: Felt;
  set?: number;
  programme?: number;
} & Partial<Once>;
type Piece = { key: string; number: number; content: Blob };

interface Store extends DBSchema {
  recordings: { key: string; value: Kept };
  pieces: { key: [string, number]; value: Piece };
}

let opening: Promise<IDBPDatabase<Store>> | null = null;
const store = () => {
  opening ??= openDB<Store>("brevin-recordings", 1, {
    upgrade(db) {
      db.createObjectStore("recordings", { keyPath: "key" });
      db.createObjectStore("pieces", { keyPath: ["key", "number"] });
    },
  });
  return opening;
};

/** Begins to keep a recording, or says more of it. */
export const keep = async (one: Kept) => void (await (await store()).put("recordings", one));

/** Pieces that the browser has no room for: held by this page alone. */
const held = new Map<string, Piece[]>();

/** One piece of it, as it comes. Where the browser has no room it is held by the page. Returns whether it outlives the page. */
export async function keepPiece(key: string, number: number, content: Blob): Promise<boolean> {
  const piece = { key, number, content };
  try {
    await (await store()).put("pieces", piece);
    return true;
  } catch {
    held.set(key, [...(held.get(key) ?? []), piece]);
    return false;
  }
}

/** All that wait to be sent, the oldest first. */
export const allKept = async (): Promise<Kept[]> => {
  const all = await (await store()).getAll("recordings");
  return all.sort((a, b) => a.made_at.localeCompare(b.made_at));
};

/** The pieces put together as a file; null where none came. */
export async function fileOf(one: Kept): Promise<File | null> {
  const stored = await store()
    .then((db) => db.getAll("pieces", IDBKeyRange.bound([one.key, 0], [one.key, Infinity])))
    .catch(() => []); // a browser that keeps nothing
  const pieces = [...stored, ...(held.get(one.key) ?? [])].sort((a, b) => a.number - b.number);
  if (!pieces.length) return null;
  const ending = one.type.includes("mp4") ? "mp4" : "webm";
  return new File(
    pieces.map(({ content }) => content),
    `filmed-here.${ending}`,
    { type: one.type },
  );
}

/** The server has it, or nobody wants it: nothing of it stays here. */
export async function letGo(key: string) {
  held.delete(key);
  const db = await store().catch(() => null);
  if (!db) return;
  await db.delete("recordings", key);
  await db.delete("pieces", IDBKeyRange.bound([key, 0], [key, Infinity]));
}

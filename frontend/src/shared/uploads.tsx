import { useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";

import { body, client, Refusal, upload, type Felt, type Seat, TAP } from "../api/client";
import { useMe } from "../api/queries";
import { came } from "./growing";
import { allKept, fileOf, keep, letGo, type Kept, type Once } from "./kept";

/** A clip on its way. The student is the one who sat on the chair when the file was asked for, whatever the page shows by now. once: what of the
 * check is otherwise for it; again: whether it may be sent again, under the same name. */
export type Upload = {
  key: number;
  name: string;
  seat: Seat;
  lessonId: number;
  file: File;
  share: number;
  trouble: string | null;
  kept: Kept | null;
  once: Partial<Once> | null;
  again: boolean;
};

type Uploads = {
  all: Upload[];
  /** Whether anything is still on its way. */
  busy: boolean;
  send: (file: File, seat: Seat, lessonId: number, once?: Once) => void;
  /** Sends what was filmed here; it stays in the browser until the server has it. */
  sendKept: (kept: Kept) => Promise<void>;
  /** What the student of a recording said it felt like: goes with it, or after it. */
  sayFelt: (kept: Kept, felt: Felt) => Promise<void>;
  again: (one: Upload) => void;
  forget: (one: Upload) => void;
};
const LET_GO: Record<string, string> = {
  no_consent: "There is no consent to film any more, so what was filmed was deleted in this browser, too.",
  student_gone: "This student was deleted with everything, so what was filmed was deleted in this browser, too.",
};
const UNSENT = "This was filmed here and not sent: the page was closed before.";
const Shared = createContext<Uploads | null>(null);

/** Keeps what is being sent above the pages, so that it goes on and is told whichever page is open. */
export function UploadsProvider({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const [all, setAll] = useState<Upload[]>([]);
  const counted = useRef(0);
  const change = useCallback((key: number, now: Partial<Upload>) => {
    setAll((known) => known.map((one) => (one.key === key ? { ...one, ...now } : one)));
  }, []);
  const felt = useRef(new Map<string, Felt>());
  const taken = useRef(new Map<string, string>());
  const start = useCallback(
    async ({ key, name, file, seat, lessonId, kept, once }: Upload) => {
      try {
        const sent = kept && { ...kept, felt: felt.current.get(kept.key) ?? kept.felt };
        const take = await uploaded({
          file,
          seat,
          lessonId,
          kept: sent,
          once,
          came: null,
          name,
          onShare: (share) => change(key, { share }),
        });
        if (kept) taken.current.set(kept.key, take.id);
        const since = kept && felt.current.get(kept.key);
        if (since && since !== sent?.felt) await putFelt(take.id, since);
        if (kept) await letGo(kept.key);
        setAll((known) => known.filter((one) => one.key !== key));
      } catch (error) {
        const refused = kept !== null && error instanceof Refusal && (LET_GO[error.code] ?? null);
        if (refused) await letGo(kept.key); // nothing of a child stays here that nobody may film any more
        change(key, { trouble: refused || (error as Error).message, ...(refused ? { kept: null, again: false } : {}) });
      }
      void queries.invalidateQueries({ queryKey: ["today"] });
    },
    [change, queries],
  );
  const busy = all.some((one) => one.trouble === null);
  useEffect(() => {
    if (!busy) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener("beforeunload", ask);
    return () => removeEventListener("beforeunload", ask);
  }, [busy]);
  const add = useCallback((of: Pick<Upload, "file" | "seat" | "lessonId" | "kept" | "once">, trouble: string | null = null) => {
    counted.current += 1;
    const one = { ...of, key: counted.current, name: crypto.randomUUID(), share: 0, trouble, again: true };
    setAll((known) => (of.kept && known.some((other) => other.kept?.key === of.kept!.key) ? known : [one, ...known]));
    return one;
  }, []);
  const sendKept = useCallback(
    async (kept: Kept) => {
      const file = await fileOf(kept);
      if (file) void start(add(ofKept(file, kept)));
      else await letGo(kept.key);
    },
    [add, start],
  );
  const sayFelt = useCallback(
    async (kept: Kept, said: Felt) => {
      felt.current.set(kept.key, said);
      const take = taken.current.get(kept.key);
      if (take) await putFelt(take, said).catch(() => undefined);
      else if ((await allKept()).some(({ key }) => key === kept.key)) await keep({ ...kept, felt: said });
      void queries.invalidateQueries({ queryKey: ["today"] });
    },
    [queries],
  );
  const here = useMe().data?.programme?.id;
  useEffect(() => {
    const offer = async () => {
      const own = (await allKept()).filter(({ programme }) => programme === undefined || programme === here); // another's waits until somebody is there
      for (const kept of own) {
        const file = await fileOf(kept);
        if (file) add(ofKept(file, kept), UNSENT);
        else await letGo(kept.key);
      }
    };
    void offer().catch(() => undefined); // a browser that keeps nothing has nothing to offer
  }, [add, here]);
  const shared = useMemo<Uploads>(
    () => ({
      all,
      busy,
      send: (file, seat, lessonId, once) => void start(add({ file, seat, lessonId, kept: null, once: once ?? null })),
      sendKept,
      sayFelt,
      again: (one) => {
        change(one.key, { trouble: null, share: 0 });
        void start(one);
      },
      forget: (one) => {
        if (one.kept) void letGo(one.kept.key);
        setAll((known) => known.filter((other) => other.key !== one.key));
      },
    }),
    [all, busy, change, start, add, sendKept, sayFelt],
  );
  return <Shared.Provider value={shared}>{children}</Shared.Provider>;
}

const ofKept = (file: File, kept: Kept) => ({ file, seat: kept.seat, lessonId: kept.lessonId, kept, once: kept });

/** What came while it was filmed has not to be sent again; where a piece of it is missing the clip goes whole. */
async function uploaded(one: Parameters<typeof upload>[0]) {
  const size = one.kept && (await came(one.kept.key));
  if (size === one.file.size)
    try {
      return await upload({ ...one, came: size });
    } catch (error) {
      if (!(error instanceof Refusal && error.code === "piece_misplaced")) throw error;
    }
  return upload(one);
}

const putFelt = async (takeId: string, felt: Felt) =>
  void body(await client.PUT("/api/takes/{take_id}/felt", { params: { path: { take_id: takeId } }, body: { felt }, ...TAP }));

/** What is being sent, and how to send. */
export function useUploads(): Uploads {
  const shared = useContext(Shared);
  if (!shared) throw new Error("useUploads outside of UploadsProvider");
  return shared;
}

/** A file that is dropped beside its place must not take the browser away from the program. */
export function useDropGuard() {
  useEffect(() => {
    const stay = (event: DragEvent) => event.preventDefault();
    addEventListener("dragover", stay);
    addEventListener("drop", stay);
    return () => {
      removeEventListener("dragover", stay);
      removeEventListener("drop", stay);
    };
  }, []);
}

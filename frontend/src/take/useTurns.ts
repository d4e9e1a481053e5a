import { useEffect, useRef, useState } from "react";

import type { Edits, Report, Take } from "../api/client";
import { useEdit, useMe } from "../api/queries";
import type { Grip } from "../breathscore/Grips";
import { gripsOf, isMove, putRight, withMove } from "./turns";

const NO_EDITS: Edits = { player: null, first_inhale_s: null, turns: [], line: null };
const SETTLES_MS = 700; // after the last key

/** Where something is being moved to; of: in which reading, so that it is forgotten where another has come; kept: it is on its way. */
type Draft = { grip: Grip; t_s: number; of: Report; kept?: boolean };
type Chosen = { chosen: number | null; choose: (index: number) => void; seek: (t_s: number) => void };

/** Turns and beat one put right by hand: the clip follows what is moved, and the reading is judged anew where it is let go. */
export function useTurns(take: Take, report: Report, { chosen, choose, seek }: Chosen) {
  const edit = useEdit(take.id);
  const may = useMe().data?.may.includes("overrule") ?? false;
  const [on, setOn] = useState(false);
  const [draft, setDraft] = useState<Draft | null>(null);
  const settles = useRef(0);
  const moved = useRef(draft);
  const sent = useRef<{ edits: Edits; of: Report } | null>(null);
  const latest = useRef(report);
  const leaving = useRef(() => {});
  const edits = (report.edits ?? NO_EDITS) as Edits;
  const put = (now: Draft | null) => {
    moved.current = now;
    setDraft(now);
  };
  /** All that was put right so far: a second move may come before the reading with the first is there. */
  const soFar = () => (sent.current && (edit.isPending || sent.current.of === report) ? sent.current.edits : edits);
  const write = (now: Edits) => {
    sent.current = { edits: now, of: report };
    edit.mutate(now, {
      onSuccess: () => {
        if (sent.current) sent.current.of = latest.current; // it holds until the reading with it is there
      },
      onError: () => {
        sent.current = null;
        put(null);
      },
    });
  };
  const keep = () => {
    const now = moved.current;
    if (now?.of !== report || now.kept || !isMove(now.grip.t_s, now.t_s)) return;
    moved.current = { ...now, kept: true };
    write(withMove(soFar(), now.grip.key, now.grip.t_s, now.t_s));
  };
  useEffect(() => {
    leaving.current = keep;
    latest.current = report;
  });
  useEffect(
    () => () => {
      if (settles.current) leaving.current(); // what was moved by a key last is kept, however soon the page is left
      clearTimeout(settles.current);
    },
    [],
  );
  const shown = (grip: Grip) => (draft?.of === report && draft.grip.key === grip.key ? { ...grip, t_s: draft.t_s } : grip);
  const begun = gripsOf(report, chosen ?? 0, edits);
  return {
    can: may && take.judged_anew && report.breaths.length > 0,
    on,
    turn: () => {
      setOn(!on);
      if (!on && chosen === null) choose(0);
    },
    grips: on ? begun.map(shown) : [],
    onMove: (grip: Grip, t_s: number) => {
      clearTimeout(settles.current);
      settles.current = 0;
      if (moved.current && moved.current.grip.key !== grip.key) keep(); // the one before is let go by taking another
      put({ grip: begun.find(({ key }) => key === grip.key) ?? grip, t_s, of: report });
      seek(t_s);
    },
    onLeave: () => {
      clearTimeout(settles.current);
      settles.current = window.setTimeout(() => {
        settles.current = 0;
        keep();
      }, SETTLES_MS);
    },
    has: putRight(edits),
    takeBack: () => write({ ...soFar(), turns: [], first_inhale_s: null }),
    trouble: edit.error?.message,
  };
}

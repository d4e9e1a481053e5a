import { useEffect, useState } from "react";

import { useClass, useMethod, useToday } from "../api/queries";
import { keepRun, keptRun, withDone, type Run, type Step } from "./run";

const TICK_MS = 1000;

/** The first minutes as they go on, and now; null where there is no first run here. */
export type Going = { run: Run; now_ms: number } | null;

/** The run of a teacher who is signed in: the class list, the questions and the first lesson are done as soon as the server knows of them. */
export function useRun(): Going {
  const [run, setRun] = useState(() => keptRun(Date.now()));
  const method = useMethod();
  const members = useClass().data?.members.length ?? 0;
  const answered = Boolean(method.data) && method.data!.questions.every((one) => one.finer || one.question in method.data!.answers);
  const planned = Boolean(useToday().data?.lesson);
  return useTicking(run, setRun, { class: members > 0, questions: answered, lesson: planned });
}

/** The same before anybody can sign in. done: what is filled in by now. */
export function useRunBefore(done: Partial<Record<Step, boolean>>): Going {
  const [run, setRun] = useState<Run | null>(() => keptRun(Date.now()) ?? { began_ms: Date.now(), done_ms: {} });
  return useTicking(run, setRun, done);
}

function useTicking(run: Run | null, setRun: (run: Run) => void, done: Partial<Record<Step, boolean>>): Going {
  const [now_ms, setNow] = useState(() => Date.now());
  const said = JSON.stringify(done);
  useEffect(() => {
    if (!run) return;
    const ticking = setInterval(() => {
      const at_ms = Date.now();
      setNow(at_ms);
      const later = withDone(run, JSON.parse(said) as typeof done, at_ms);
      keepRun(later);
      if (later !== run) setRun(later);
    }, TICK_MS);
    return () => clearInterval(ticking);
  }, [run, setRun, said]);
  return run && { run, now_ms };
}

import { useEffect, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { BenchCard, Run, Section } from "../api/client";
import { useBegin, useBench, useCard, useTap } from "../api/bench";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { useTitle } from "../design/title";
import { Head } from "./Head";
import { Cautions } from "./Cautions";
import { SectionTabs } from "./SectionTabs";
import { StepChairs } from "./StepChairs";
import { StepRuler } from "./StepRuler";
import { StepShown } from "./StepShown";
import { useNow } from "./useNow";
import { choicesAt, clock, minutesOf, nextWay, runOf, stepNow, waitsLongest } from "./way";

const Top = styled(Head)`
  padding-bottom: 2px;
  p:last-child {
    margin-left: auto;
  }
`;
const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  padding-top: 12px;
  > :last-child {
    margin-left: auto;
  }
`;
const PHASES = { together: "put together", away: "put away" } as const;
const ENDS = { together: "All are ready", away: "All are away" } as const;
const PHASE_KEYS = ["together", "away"] as const;

/** The whole section does a step at once; only the chair that needs a hand is tapped. */
export function StepsPage() {
  const { card = "", phase = "together" } = useParams();
  const known = PHASE_KEYS.find((one) => one === phase) ?? "together";
  const bench = useBench();
  const shown = useCard(card);
  const section = bench.data?.sections.find((one) => one.card === card);
  useTitle(section ? `${section.section}, ${PHASES[known]}` : "Bench");
  if (bench.isPending || shown.isPending)
    return (
      <p className="unseen" role="status">
        Loading the steps
      </p>
    );
  if (!bench.data || !shown.data)
    return (
      <Message
        title="The steps did not load"
        text={(bench.error ?? shown.error)!.message}
        onRetry={() => (bench.refetch(), shown.refetch())}
      />
    );
  if (!section) return <Message quiet title="Nobody here plays this" text="The section is gone from the class. Go back to the bench." />;
  return <Steps key={`${card}-${known}`} section={section} sections={bench.data.sections} card={shown.data} phase={known} />;
}

type Props = { section: Section; sections: Section[]; card: BenchCard; phase: Run["phase"] };

function Steps({ section, sections, card, phase }: Props) {
  const begin = useBegin();
  const run = runOf(section, phase);
  const done = section.runs.filter((one) => one.phase === phase && one.done).at(-1);
  if (run && !run.stopped) return <Running section={section} sections={sections} card={card} run={run} />;
  return <Standing section={section} sections={sections} card={card} phase={phase} kept={run} done={done} begin={begin} />;
}

type StandingProps = Props & { kept: Run | undefined; done: Run | undefined; begin: ReturnType<typeof useBegin> };

/** Before the first step, at the step that was kept, or after the last. */
function Standing({ section, sections, card, phase, kept, done, begin }: StandingProps) {
  const go = useNavigate();
  const start = () => begin.mutate({ card: section.card, phase });
  useKeys(section.section, [
    { key: " ", shown: "space", does: kept ? "go on there" : "begin", run: start },
    { key: "Escape", shown: "Esc", does: "all sections", run: () => go("/bench") },
  ]);
  const words = wordsOf({ section, card, phase, kept, done });
  return (
    <>
      <SectionTabs sections={sections} now={section.card} />
      <Message
        quiet
        title={words.title}
        text={words.text}
        onGo={words.notes ? () => go(`/bench/notes/${section.chairs[0]?.id}`) : start}
        goes={words.goes}
      />
      {begin.error && <p role="alert">{begin.error.message}</p>}
      {!kept && !done && <Cautions card={card} />}
      <Action onPress={() => go("/bench")} letter="Esc">
        All sections
      </Action>
    </>
  );
}

type Words = { title: string; text: string; goes: string; notes: boolean };

/** What stands there while no step runs: it was kept, it is done, or it has not begun. */
function wordsOf({ section, card, phase, kept, done }: Pick<StandingProps, "section" | "card" | "phase" | "kept" | "done">): Words {
  const step = kept && stepNow(card, kept);
  if (kept && step) {
    const text = `Kept at step ${kept.step + 1} of ${kept.steps.length} when the bell rang.`;
    return { title: `${section.section} go on with: ${step.title}.`, text, goes: "Go on", notes: false };
  }
  if (done) {
    const { gone_s } = minutesOf(card, done, 0);
    const title = `${section.section} are ${phase === "together" ? "ready" : "in their cases"}.`;
    return {
      title,
      text: `All steps are behind them, in ${clock(gone_s)}.`,
      goes: phase === "together" ? "First notes" : "Once more",
      notes: phase === "together",
    };
  }
  return {
    title: `${section.section}, ${PHASES[phase]}.`,
    text: `${card.steps.filter((one) => one.phase === phase).length} steps.`,
    goes: "Begin",
    notes: false,
  };
}

type RunningProps = { section: Section; sections: Section[]; card: BenchCard; run: Run };

function Running({ section, sections, card, run }: RunningProps) {
  const go = useNavigate();
  const tap = useTap(run.id);
  const now = useNow();
  const [marking, setMarking] = useState(false);
  const step = stepNow(card, run)!;
  const stepKey = run.steps[run.step]!;
  const does = (what: "next" | "back" | "again" | "stop") => tap.mutate({ does: what, step: stepKey });
  const chair = (student: number) => {
    if (marking || run.away.includes(student)) {
      setMarking(false);
      return tap.mutate({ does: run.away.includes(student) ? "here" : "away", student, step: stepKey });
    }
    return tap.mutate({ does: run.helping.some((one) => one.student === student) ? "right" : "help", student, step: stepKey });
  };
  const choices = choicesAt(card, stepKey);
  const turn = () => choices[0] && tap.mutate({ does: "choose", step: stepKey, word: nextWay(card, run, choices[0]) });
  const first = waitsLongest(sections.filter((one) => one.card !== section.card));
  const following = card.steps.find((one) => one.key === run.steps[run.step + 1]);
  useKeys(section.section, [
    { key: " ", shown: "space", does: "next step", run: () => does("next") },
    { key: "a", does: "all once more", run: () => does("again") },
    { key: "r", does: "one step back", run: () => does("back"), off: run.step === 0 },
    { key: "v", does: "the other way", run: turn, off: !choices.length },
    ...section.chairs
      .slice(0, 9)
      .map((one, i) => ({ key: String(i + 1), does: `help comes to ${one.name}, or it is right`, run: () => chair(one.id) })),
    { key: "n", does: "not here: the chair that is tapped next", run: () => setMarking(!marking) },
    {
      key: "w",
      does: "the other section that waits longest",
      run: () => first && go(`/bench/${first.card}/${first.runs[0]?.phase ?? "together"}`),
      off: !first,
    },
    { key: "k", does: "stop here, keep the step", run: () => does("stop") },
    { key: "Escape", shown: "Esc", does: "all sections; this one stands as it is", run: () => go("/bench") },
  ]);
  const announced = useAnnounced(`${run.step + 1}. ${step.title}. ${step.say}`);
  const { gone_s, left_s, planned_s } = minutesOf(card, run, now);
  return (
    <>
      <SectionTabs sections={sections} now={section.card} />
      <Top>
        <h1>
          {section.section}, {PHASES[run.phase]}
        </h1>
        <p data-testid="step">
          step {run.step + 1} of {run.steps.length}
          {run.times > 1 && `, all once more: ${run.times} times`}
        </p>
        <p>
          {clock(gone_s)} gone, {left_s < 60 ? "less than a minute" : `about ${Math.round(left_s / 60)} minutes`} to go;{" "}
          {Math.round(planned_s / 60)} planned
        </p>
      </Top>
      <p className="unseen" role="status">
        {announced}
      </p>
      <StepRuler card={card} run={run} now={now} />
      <StepShown
        card={card}
        run={run}
        step={step}
        section={section}
        onWay={(word) => tap.mutate({ does: "choose", step: stepKey, word })}
      />
      <StepChairs section={section} run={run} now={now} marking={marking} onChair={chair} />
      {tap.error && <p role="alert">{tap.error.message}</p>}
      <Actions>
        <Action main large letter="space" data-space-free onPress={() => does("next")}>
          {following ? `Next: ${following.title}` : ENDS[run.phase]}
        </Action>
        <Action large letter="A" onPress={() => does("again")}>
          All once more
        </Action>
        <Action large letter="R" onPress={() => does("back")} isDisabled={run.step === 0}>
          Step back
        </Action>
        <Action large letter="N" pressed={marking} onPress={() => setMarking(!marking)}>
          Not here
        </Action>
        <Action large letter="K" onPress={() => does("stop")}>
          Stop here, keep step {run.step + 1}
        </Action>
      </Actions>
    </>
  );
}

/** What a screen reader is told when the step changes, and not at first sight of the page. */
function useAnnounced(words: string): string {
  const [said, setSaid] = useState("");
  const before = useRef(words);
  useEffect(() => {
    if (before.current !== words) setSaid(words);
    before.current = words;
  }, [words]);
  return said;
}

import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { BenchCard, Firsts, Outcome, Rung } from "../api/client";
import { useBench, useCameOut, useCard, useFirsts, useTry } from "../api/bench";
import { Action, KeyCap } from "../design/Action";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { instrumentWords } from "../shared/words";
import { Head } from "./Head";
import { Checks } from "./Checks";
import { GateLine } from "./GateLine";
import { Homes } from "./Homes";
import { Length } from "./Length";
import { Lines, Piece } from "./Lines";
import { OUTCOMES, Trace } from "./outcomes";
import { Plain } from "./Plain";
import { heardWords, passed, rungNow, rungTitle } from "./rungs";
import { Staff } from "./Staff";
import { useTone } from "./tone";
import { useListen } from "./useListen";
import { clock } from "./way";
import { Button } from "react-aria-components";

const Top = styled(Head)`
  align-items: center;
  > div {
    margin-left: auto;
    display: flex;
    gap: 10px;
  }
`;
const Rungs = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
`;
const Step = styled(Button)<{ $on: boolean }>`
  border: 0;
  border-bottom: 3px solid ${(p) => (p.$on ? colour("ink") : "transparent")};
  background: none;
  font: inherit;
  font-size: 17px;
  font-weight: ${(p) => (p.$on ? 700 : 400)};
  color: ${colour("ink")};
  padding: 4px 9px;
  cursor: pointer;
  &[data-disabled] {
    color: ${colour("soft")};
    cursor: default;
  }
`;
const Grid = styled.div<{ $tall: boolean }>`
  display: grid;
  gap: 16px 30px;
  grid-template-columns: ${(p) => (p.$tall ? "300px 300px minmax(0, 1fr)" : "minmax(0, 1.2fr) minmax(0, 1fr)")};
  grid-template-areas: ${(p) =>
    p.$tall ? '"draw staff ask" "draw out out" "draw gate gate"' : '"draw ask" "staff ask" "out out" "gate gate"'};
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: "ask" "out" "draw" "staff" "gate";
  }
`;
const Drawn = styled.figure<{ $tall: boolean }>`
  grid-area: draw;
  height: ${(p) => (p.$tall ? "calc(100vh - 170px)" : "260px")};
  min-height: ${(p) => (p.$tall ? "420px" : "200px")};
  figcaption {
    font-size: 17px;
    color: ${colour("soft")};
    b {
      color: ${colour("ink")};
    }
  }
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
`;
const Staffs = styled.div<{ $tall: boolean }>`
  grid-area: staff;
  display: ${(p) => (p.$tall ? "grid" : "flex")};
  flex-wrap: wrap;
  gap: 4px 24px;
  align-content: start;
`;
const Ask = styled.div`
  grid-area: ask;
`;
const Said = styled.p`
  font-size: clamp(24px, 2.6vw, 34px);
  line-height: 1.15;
  font-weight: 750;
  text-wrap: balance;
  + p {
    margin-top: 10px;
    font-size: 17px;
    color: ${colour("soft")};
  }
`;
const Out = styled.section`
  grid-area: out;
  h2 {
    font-size: 17px;
    font-weight: 700;
    margin-bottom: 6px;
    display: flex;
    justify-content: space-between;
    gap: 12px;
  }
  h2 span {
    font-weight: 400;
    color: ${colour("soft")};
  }
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(126px, 1fr));
    gap: 10px;
  }
`;
const Came = styled(Button)<{ $on: boolean }>`
  width: 100%;
  min-height: 92px;
  border: 1.5px solid ${colour("ink")};
  border-radius: 6px;
  font: inherit;
  font-size: 18px;
  font-weight: 700;
  cursor: pointer;
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 6px;
  background: ${(p) => (p.$on ? colour("ink") : "transparent")};
  color: ${(p) => (p.$on ? colour("ground") : colour("ink"))};
  &[data-disabled] {
    border-color: ${colour("hair")};
    color: ${colour("soft")};
    background: transparent;
    cursor: default;
  }
  span {
    display: flex;
    gap: 8px;
    align-items: center;
  }
`;
const SLIDE_PX_CM = 6; // of the drawing's units

/** One student's way to the first notes: what came out, what to check, when the next opens. */
export function NotesPage() {
  const student = Number(useParams().student);
  const firsts = useFirsts(student);
  const card = useCard(firsts.data?.card ?? "", firsts.data?.instrument);
  useTitle(firsts.data ? `${firsts.data.name}, first notes` : "First notes");
  const error = firsts.error ?? card.error;
  if (error && (!firsts.data || !card.data))
    return <Message title="The first notes did not load" text={error.message} onRetry={() => (firsts.data ? card : firsts).refetch()} />;
  if (!firsts.data || !card.data)
    return (
      <p className="unseen" role="status">
        Loading the first notes
      </p>
    );
  return <Notes key={student} firsts={firsts.data} told_at={firsts.dataUpdatedAt} card={card.data} />;
}

type Checking = { try_id: number; outcome: Outcome; at: number };

function Notes({ firsts, told_at, card }: { firsts: Firsts; told_at: number; card: BenchCard }) {
  const go = useNavigate();
  const bench = useBench();
  const came = useCameOut(firsts.student_id);
  const tries = useTry(firsts.student_id);
  const tone = useTone();
  const rest = useRest(firsts, told_at);
  const [picked, setPicked] = useState<string | null>(null);
  const [checking, setChecking] = useState<Checking | null>(null);
  const rung = firsts.rungs.find((one) => one.key === picked && one.opened) ?? rungNow(firsts);
  const note = card.notes.find((one) => one.key === rung.key);
  const hz = note ? note.reads.hz : card.alone_hz;
  const ear = useListen(hz);
  const chairs = bench.data?.sections.find((one) => one.card === firsts.card)?.chairs.filter((one) => !one.away) ?? [];
  const following = chairs[(chairs.findIndex((one) => one.id === firsts.student_id) + 1) % Math.max(chairs.length, 1)];
  const busy = rest > 0;
  const alone = rung.key === "alone";
  const tap = (outcome: Outcome, held_s?: number) => {
    if (busy) return;
    setPicked(rung.key);
    const heard_s = ear.heard?.like === "note" ? Math.max(ear.heard.tone_s, 0.1) : null;
    ear.forget();
    came.mutate(
      { rung: rung.key, outcome, length_s: alone && outcome === "note" ? (held_s ?? heard_s) : null },
      {
        onSuccess: (now) => {
          const made = now.rungs.find((one) => one.key === rung.key)?.tries.at(-1);
          setChecking(made && outcome !== "note" ? { try_id: made.id, outcome, at: 0 } : null);
          const tried = now.rungs.find((one) => one.key === rung.key);
          if (tried && passed(tried)) setPicked(null); // on to the next
        },
      },
    );
  };
  const checks = checking ? (firsts.checks[checking.outcome] ?? []) : [];
  const fixed = () => {
    const found = checking && checks[checking.at];
    if (found) tries.fixed.mutate({ try_id: checking.try_id, by: found.name });
    setChecking(null);
  };
  const nextCheck = () => checking && setChecking({ ...checking, at: (checking.at + 1) % (checks.length + 1) });
  const last = firsts.rungs
    .flatMap((one) => one.tries)
    .sort((a, b) => a.id - b.id)
    .at(-1);
  const back = () => {
    if (last) tries.back.mutate(last.id);
    setChecking(null);
  };
  useKeys("First notes", [
    ...OUTCOMES.map((one, i) => ({ key: String(i + 1), does: `what came out: ${one.words}`, run: () => tap(one.key) })),
    { key: "Enter", does: "that was it", run: fixed, off: !checking },
    { key: " ", shown: "space", does: "it is fine, next check", run: nextCheck, off: !checking },
    { key: "l", does: "listen by the microphone, or not", run: ear.turn },
    { key: "p", does: "hear it", run: () => hz && tone.turn(hz), off: !hz },
    { key: "n", does: "next student", run: () => following && go(`/bench/notes/${following.id}`) },
    { key: "z", does: "take the last try back", run: back, off: !last },
    { key: "Escape", shown: "Esc", does: "all sections", run: () => go("/bench") },
  ]);
  const drawing = card.drawings[note ? card.drawing : card.alone?.drawing || card.drawing]!;
  const tall = Boolean(note) && drawing.height > 400;
  const minutes = minutesOf(firsts);
  return (
    <>
      <Top>
        <h1>{firsts.name}</h1>
        <p>{instrumentWords(firsts.instrument)}</p>
        <Rungs aria-label="Notes">
          {firsts.rungs.map((one) => (
            <li key={one.key}>
              <Step
                data-space-free
                $on={one.key === rung.key}
                isDisabled={!one.opened}
                aria-current={one.key === rung.key ? "step" : undefined}
                onPress={() => (setPicked(one.key), setChecking(null))}
              >
                {rungTitle(one)}
              </Step>
            </li>
          ))}
        </Rungs>
        <p>{minutes}</p>
        <div>
          <Action letter="L" onPress={ear.turn} pressed={ear.on}>
            Listen
          </Action>
          <Action letter="P" onPress={() => hz && tone.turn(hz)} isDisabled={!hz} pressed={tone.hz !== null}>
            Hear it
          </Action>
          <Action letter="N" onPress={() => following && go(`/bench/notes/${following.id}`)}>
            Next student
          </Action>
        </div>
      </Top>
      <Grid $tall={tall}>
        <Drawn $tall={tall}>
          {note ? (
            <Piece
              drawing={drawing}
              of="instrument"
              beside="numbers"
              label={`${drawing.title}: ${note.play}`}
              pressed={note.fingers}
              slide_px={note.out_cm ? note.out_cm * SLIDE_PX_CM : 0}
            />
          ) : (
            <Lines drawing={drawing} />
          )}
          {note && (
            <figcaption>
              <b>{note.play}</b>
              {note.fingers.length > 0 && ". Filled is press, open is leave."}
              {note.out_cm ? ` About ${note.out_cm} cm out; the ear corrects.` : ""}
            </figcaption>
          )}
        </Drawn>
        <Staffs $tall={tall}>
          {note && <Staff note={note.reads} does={note.reads.steps === note.sounds.steps ? "reads and sounds" : "reads"} />}
          {note && note.reads.steps !== note.sounds.steps && <Staff note={note.sounds} does="sounds" quiet />}
        </Staffs>
        <Ask>
          {checking ? (
            <Checks firsts={firsts} outcome={checking.outcome} at={checking.at} onFixed={fixed} onNext={() => void nextCheck()} />
          ) : (
            <>
              <Said role="status">{sentenceOf(rung, card, rest)}</Said>
              <p>{card.higher}</p>
            </>
          )}
          {(came.error ?? tries.fixed.error ?? tries.back.error) && (
            <p role="alert">{(came.error ?? tries.fixed.error ?? tries.back.error)!.message}</p>
          )}
        </Ask>
        <Out aria-label="What came out">
          <h2>
            What came out
            {(ear.heard || ear.trouble) && <span role="status">{ear.heard ? heardWords(ear.heard) : ear.trouble}</span>}
            {last && <span>{rest > 0 ? `rest ${clock(rest)}` : <TakeBack onPress={back} />}</span>}
          </h2>
          <ul>
            {OUTCOMES.map((one, i) => (
              <li key={one.key}>
                <Came $on={checking?.outcome === one.key} isDisabled={busy} data-space-free onPress={() => tap(one.key)}>
                  <Trace outcome={one.key} />
                  <span>
                    {one.words} <KeyCap aria-hidden>{i + 1}</KeyCap>
                  </span>
                </Came>
              </li>
            ))}
          </ul>
        </Out>
        <GateArea>
          <GateLine rung={rung} />
          {alone && <Length rung={rung} alone={card.alone} resting={busy} onSounded={(length_s) => tap("note", length_s)} />}
        </GateArea>
      </Grid>
      <Homes card={card} student={firsts.student_id} />
    </>
  );
}

const GateArea = styled.div`
  grid-area: gate;
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0 60px;
  > * {
    min-width: 0; /* nine tries scroll in themselves */
  }
`;

const TakeBack = ({ onPress }: { onPress: () => void }) => <Plain onPress={onPress}>take the last try back (Z)</Plain>;

function sentenceOf(rung: Rung, card: BenchCard, rest: number): string {
  if (rest > 0) return "Rest now: breathe normally, lips loose.";
  if (rung.key === "alone") return card.alone?.say ?? rung.title;
  const last = rung.tries.at(-1);
  if (last?.outcome === "note") return "That was it. Once more, the same way.";
  return card.notes.find((one) => one.key === rung.key)?.counts
    ? "Any of the first notes counts at first. Breathe, and let it speak."
    : "Breathe, and let it speak.";
}

function minutesOf(firsts: Firsts): string {
  const today = firsts.rungs
    .flatMap((one) => one.tries)
    .map((one) => Date.parse(one.at))
    .filter((at) => Date.now() - at < 3_600_000);
  if (!today.length) return "no try yet today";
  const minutes = Math.max(1, Math.round((Date.now() - Math.min(...today)) / 60_000));
  return `${today.length === 1 ? "1 try" : `${today.length} tries`} in ${minutes === 1 ? "a minute" : `${minutes} minutes`}`;
}

/** Seconds of rest that are left, counted down on the page. */
function useRest(firsts: Firsts, told_at: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(tick);
  }, []);
  return firsts.rest_s > 0 ? Math.max((told_at + firsts.rest_s * 1000 - now) / 1000, 0) : 0; // now is up to half a second old
}

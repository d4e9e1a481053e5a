import { useCallback, useEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import styled from "styled-components";

import type { Report, Take, Verdict } from "../api/client";
import { useReport, useTake } from "../api/queries";
import { BreathScore, type ScoreHandle } from "../breathscore/BreathScore";
import { breathCardOf } from "../breathscore/layout";
import { Action } from "../design/Action";
import type { Binding } from "../design/keys";
import { Message } from "../design/Message";
import { PHONE } from "../design/sizes";
import { useTitle } from "../design/title";
import { BreathLine } from "./BreathLine";
import { ClipPicture } from "./ClipPicture";
import { HandsLine } from "./HandsLine";
import { Mended } from "./Mended";
import { DrawnList, DrawTools, useDrawer, type DrawnHandle } from "./Drawn";
import { firstMark } from "./inFront";
import { breathAt, momentWords } from "./moment";
import type { OverlayHandle } from "./Overlay";
import { saysWhere } from "./Places";
import { Say, stopOf } from "./Say";
import { useSetLine } from "./SetLine";
import { canShow } from "./Still";
import { Stills, useStills } from "./Stills";
import { NextBar, TakeHead, WhatElse } from "./TakeHead";
import { TickList } from "./TickList";
import { Uncovered } from "./Uncovered";
import { UnreadTake } from "./UnreadTake";
import { Told } from "./Told";
import { useArrived } from "./useArrived";
import { useClip } from "./useClip";
import { useSwipe } from "./useSwipe";
import { useTurns } from "./useTurns";
import { Verdicts } from "./Verdicts";

const SCORE_PX = 176;

const Columns = styled.div<{ $held: boolean }>`
  display: grid;
  grid-template-columns: minmax(0, ${(p) => (p.$held ? 588 : 470)}px) minmax(0, 1fr);
  gap: 26px;
  align-items: start;
  @media (max-width: 1150px) {
    grid-template-columns: minmax(0, ${(p) => (p.$held ? 440 : 360)}px) minmax(0, 1fr);
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    gap: 14px;
    > section {
      order: -1; /* what to say comes before the picture where both have no room beside each other */
    }
  }
`;
/** The clip; of a hold its stills before it and the line of the hands below both. */
const Seen = styled.div<{ $stills: boolean }>`
  display: grid;
  grid-template-columns: ${(p) => p.$stills && "120px"} minmax(0, 1fr);
  gap: 10px;
  align-items: start;
  > figure {
    grid-column: 1 / -1;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    > [data-stills] {
      order: 1;
    }
    > figure {
      order: 2;
    }
  }
`;
const Run = styled.div`
  display: grid;
  grid-template-columns: auto auto minmax(0, 1fr);
  grid-template-areas: "play choose numbers" "score score score";
  align-items: center;
  gap: 6px 18px;
  padding-top: 8px;
  > figure {
    grid-area: score;
    min-width: 0;
  }
  @media (max-width: 1000px) {
    grid-template-columns: auto minmax(0, 1fr);
    grid-template-areas: "play choose" "numbers numbers" "score score";
  }
  @media ${PHONE} {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: "play" "step" "score" "numbers" "choose";
    gap: 10px;
  }
`;
const Playing = styled.div`
  grid-area: play;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  > button {
    flex: 1 1 auto;
    justify-content: center;
  }
`;

/** See, believe or question one reading. What the class can see says filmed and no more: the reading stands on the teacher's own page. */
export function TakePage({ chalk }: { chalk: boolean }) {
  const id = useParams().id ?? "";
  const take = useTake(id);
  const report = useReport(id, take.data?.headline?.report_version);
  const arrived = useArrived(id, take.data, report.data);
  useTitle(take.data ? take.data.student.name : "Take");
  if (take.isPending)
    return (
      <p className="unseen" role="status">
        Loading the take
      </p>
    );
  if (!take.data) return <Message title="This take cannot be shown" text={take.error.message} onRetry={() => take.refetch()} />;
  if (chalk)
    return (
      <Message
        quiet
        title={`${take.data.student.name} has been filmed`}
        text="The reading is not shown where the class can see it. Press D on the teacher's own screen, and it is here."
      />
    );
  // not for a moment what stands in place of a reading: a question opened on that would close by itself
  if (take.data.headline && (report.isPending || (report.data && !arrived)))
    return <Message quiet title={take.data.student.name} text="The reading is on its way." />;
  if (report.data) return <ReadTake key={id} take={take.data} report={report.data} />;
  return <UnreadTake take={take.data} trouble={report.error?.message} />;
}

function ReadTake({ take, report }: { take: Take; report: Report }) {
  useEffect(() => {
    scrollTo(0, 0); // wherever the page before it was scrolled to
  }, []);
  const score = useRef<ScoreHandle>(null);
  const overlay = useRef<OverlayHandle>(null);
  const moment = useRef<HTMLParagraphElement>(null);
  const onDrawn = useRef<DrawnHandle>(null);
  const onTime = useCallback(
    (t_s: number) => {
      score.current?.show(t_s);
      overlay.current?.show(t_s);
      onDrawn.current?.show(t_s);
      if (moment.current) moment.current.textContent = momentWords(report, t_s);
    },
    [report],
  );
  const clip = useClip(onTime);
  const { chosen, looping, choose, step, seek, stopAt, evidence, turnLoop } = useChosen(report, clip);
  const count = report.breaths.length;
  const hold = useHold(take, report);
  const held = useStills(report, seek);
  const line = useSetLine(take, report, clip.video);
  const drawn = useDrawer(take, clip.video);
  const mend = useTurns(take, report, { chosen, choose, seek: clip.seek });
  const films = Boolean(take.clip?.url); // else its time to be kept is over
  const [places, setPlaces] = useState(false);
  const turnPlaces = () => setPlaces(!places);
  const swipe = useSwipe(step);
  const { seek: seekClip } = clip;
  const playing = hold.playing;
  useEffect(() => {
    if (playing !== undefined) seekClip(playing); // a hold opens with the instrument up
  }, [playing, seekClip]);
  const keys: Binding[] = [
    { key: " ", shown: "space", does: "play or stop", run: clip.turn, off: !films },
    { key: "l", does: "repeat the breath", run: turnLoop, off: !count || !films },
    { key: "s", does: "half as fast", run: clip.turnSlow, off: !films },
    { key: "ArrowRight", shown: "→", does: "next breath", run: () => step(1) },
    { key: "ArrowLeft", shown: "←", does: "breath before", run: () => step(-1) },
    { key: "ArrowDown", shown: "↓", does: "next verdict; enter says why", run: () => focusVerdict(1) },
    { key: "ArrowUp", shown: "↑", does: "verdict before", run: () => focusVerdict(-1) },
    { key: "e", does: "where on the body was looked", run: turnPlaces, off: !saysWhere(report) },
    { key: "p", does: lineWords(line), run: line.turn, off: !hold.shown || !line.can || drawn.drawer !== null },
    { key: "m", does: "draw on the clip: circle, arrow, note", run: drawn.turn, off: !drawn.can || line.setting !== null },
    { key: "c", does: "correct the turns and beat one by hand", run: mend.turn, off: hold.shown || !mend.can },
    { key: "i", does: "the breath, or the hold of the instrument", run: hold.turn, off: !hold.both },
    ...report.breaths.slice(0, 9).map((_, i) => ({ key: String(i + 1), does: `breath ${i + 1}`, run: () => choose(i) })),
  ];
  return (
    <>
      <TakeHead take={take} keys={keys} />
      <Columns $held={hold.shown}>
        <Seen $stills={hold.shown && canShow(take)}>
          {hold.shown && canShow(take) && <Stills take={take} report={report} stills={held.stills} onSeek={seek} />}
          <div>
            <ClipPicture
              take={take}
              report={report}
              video={clip.video}
              overlay={overlay}
              moment={moment}
              bands={!hold.shown}
              places={places}
              line={line.setting}
              drawn={drawn}
              onDrawn={onDrawn}
              onTurn={clip.turn}
            />
            {drawn.drawer && <DrawTools drawer={drawn.drawer} />}
            <DrawnList takeId={take.id} kept={drawn.kept} may={drawn.can} onSeek={stopAt} />
            {drawn.trouble && <p role="alert">{drawn.trouble}</p>}
          </div>
          {hold.shown && <HandsLine report={report} stills={held.stills} onSeek={seek} onMove={films ? held.move : undefined} />}
        </Seen>
        <section>
          <Say take={take} report={report} />
          <Verdicts
            takeId={take.id}
            verdicts={report.verdicts}
            exempt={report.exempt}
            breaths={count}
            chosen={chosen}
            held={hold.shown}
            said={stopOf(report)}
            segments={report.segments}
            onEvidence={evidence}
            onSeek={stopAt}
          >
            {!hold.shown && <Uncovered take={take} report={report} />}
          </Verdicts>
        </section>
      </Columns>
      <Run {...(hold.shown || mend.on ? {} : swipe)}>
        <Playing>
          {films && (
            <Action main letter="space" onPress={clip.turn}>
              {clip.playing ? "Stop" : "Play"}
            </Action>
          )}
          {films && !hold.shown && count > 0 && (
            <Action letter="L" pressed={looping} onPress={turnLoop}>
              Loop breath {(chosen ?? 0) + 1}
            </Action>
          )}
          {films && (
            <Action letter="S" pressed={clip.slow} onPress={clip.turnSlow}>
              Half as fast
            </Action>
          )}
          {hold.shown && line.can && (
            <Action letter="P" pressed={line.setting !== null} isDisabled={drawn.drawer !== null} onPress={line.turn}>
              {line.has ? "Take the line back" : "Set its line"}
            </Action>
          )}
          {hold.both && (
            <Action letter="I" onPress={hold.turn}>
              {hold.shown ? "Breath" : "Hold"}
            </Action>
          )}
        </Playing>
        {line.trouble && <p role="alert">{line.trouble}</p>}
        {!hold.shown && count > 0 && <BreathLine report={report} chosen={chosen} onChoose={choose} onStep={step} />}
        {!hold.shown && (count > 0 || report.trace.t_s.length > 0) && (
          <BreathScore
            report={report}
            card={breathCardOf(take.check)}
            height={SCORE_PX}
            chosen={chosen}
            onSeek={seek}
            playhead={score}
            mend={mend}
          />
        )}
        {!hold.shown && <Mended mend={mend} />}
      </Run>
      {hold.shown && <TickList take={take} report={report} />}
      <Told report={report} chosen={chosen} onSeek={stopAt} />
      <WhatElse take={take}>
        {saysWhere(report) && (
          <Action letter="E" pressed={places} onPress={turnPlaces}>
            Where it looked
          </Action>
        )}
        {mend.can && !hold.shown && (
          <Action letter="C" pressed={mend.on} onPress={mend.turn}>
            Correct the turns
          </Action>
        )}
        {drawn.can && (
          <Action letter="M" pressed={drawn.drawer !== null} isDisabled={line.setting !== null} onPress={drawn.turn}>
            Draw on the clip
          </Action>
        )}
      </WhatElse>
      <NextBar take={take} />
    </>
  );
}

const lineWords = ({ has }: { has: boolean }) =>
  has ? "take the instrument's line back" : "set the instrument's line by two taps, or by arrows and enter";

/** Breath and hold of one clip, a key apart: a check of the hold opens with it. */
function useHold(take: Take, report: Report) {
  const [shown, setShown] = useState(take.check.kind === "hold");
  const stills = report.hold?.hands?.stills ?? [];
  const held = stills.length > 0;
  const playing = shown ? stills.find(({ kind }) => kind === "playing")?.t_s : undefined;
  return { shown: shown && held, both: held, playing, turn: () => setShown(!shown) };
}

/** The breath that is looked at: the one the cue speaks of first, then whatever is chosen; the clip goes with it. */
function useChosen(report: Report, clip: ReturnType<typeof useClip>) {
  const [opens] = useState(() => firstMark(report));
  const [chosen, setChosen] = useState(opens?.breath ?? null);
  const { seek: seekClip } = clip;
  useEffect(() => {
    if (opens) seekClip(opens.to_s); // where a rise is highest and a count that was missed has gone by
  }, [opens, seekClip]);
  const [looping, setLooping] = useState(false);
  const stretchOf = (index: number | null) => {
    const breath = index === null ? undefined : report.breaths[index];
    return breath?.inhale_start_s != null && breath.exhale_end_s != null ? { from: breath.inhale_start_s, to: breath.exhale_end_s } : null;
  };
  const choose = (index: number | null) => {
    setChosen(index);
    const stretch = stretchOf(index);
    if (stretch) clip.seek(stretch.from);
    if (looping) clip.setLoop(stretch);
  };
  const step = (by: number) => {
    const count = report.breaths.length;
    const before = by > 0 ? -1 : count;
    if (count) choose(((chosen ?? before) + by + count) % count);
  };
  const seek = (t_s: number) => {
    const inside = breathAt(report, t_s);
    setChosen(inside >= 0 ? inside : null);
    setLooping(false);
    clip.setLoop(null);
    clip.seek(t_s);
  };
  const stopAt = (t_s: number) => {
    clip.stop(); // what is shown at one moment only would be gone before it was seen
    seek(t_s);
  };
  const evidence = (verdict: Verdict) => {
    const mark = verdict.marks.find((m) => m.from_s === verdict.from_s);
    if (mark) setChosen(mark.breath);
    if (verdict.from_s !== null) clip.seek(verdict.from_s);
  };
  const turnLoop = () => {
    const stretch = looping ? null : stretchOf(chosen ?? 0);
    setLooping(stretch !== null);
    clip.setLoop(stretch);
    if (!stretch) return;
    setChosen(chosen ?? 0);
    clip.seek(stretch.from);
    clip.play();
  };
  return { chosen, looping, choose, step, seek, stopAt, evidence, turnLoop };
}

/** Moves the focus along the rows of verdicts. */
function focusVerdict(by: number) {
  const rows = [...document.querySelectorAll<HTMLButtonElement>("[data-testid^=verdict-]")];
  const at = rows.indexOf(document.activeElement as HTMLButtonElement);
  rows[(at + by + rows.length + (at < 0 && by < 0 ? 1 : 0)) % rows.length]?.focus();
}

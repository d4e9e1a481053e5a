import { useCallback, useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import styled from "styled-components";

import type { Report, Take, Verdict } from "../api/client";
import { useReport, useTake } from "../api/queries";
import { BreathScore, playheadOf } from "../breathscore/BreathScore";
import type { Binding } from "../design/keys";
import { Message } from "../design/Message";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { BreathLine } from "./BreathLine";
import { Overlay, type OverlayHandle } from "./Overlay";
import { Say, stopOf } from "./Say";
import { TakeHead } from "./TakeHead";
import { UnreadTake } from "./UnreadTake";
import { useClip } from "./useClip";
import { Verdicts } from "./Verdicts";

const SCORE = { width: 1232, height: 264 };

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 0.94fr) minmax(0, 1fr);
  gap: 22px;
  align-items: start;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Picture = styled.div`
  position: relative;
  background: ${colour("ink")};
  border-radius: 4px;
  overflow: hidden;
  aspect-ratio: 16 / 9.6;
  video {
    width: 100%;
    height: 100%;
    object-fit: contain;
    display: block;
  }
`;
const Frame = styled.div<{ $ratio: number }>`
  position: absolute;
  inset: 0;
  margin: auto;
  aspect-ratio: ${(p) => p.$ratio};
  max-width: 100%;
  max-height: 100%;
  ${(p) => (p.$ratio > 16 / 9.6 ? "width: 100%;" : "height: 100%;")}
`;
const Moment = styled.p`
  position: absolute;
  left: 12px;
  bottom: 8px;
  color: #fff;
  font-weight: 650;
  font-size: 17px;
  text-shadow:
    0 0 4px #101517,
    0 0 2px #101517;
  pointer-events: none;
`;
/** See, believe or question one reading. What the class can see says filmed and no more: the reading stands on the teacher's own page. */
export function TakePage({ chalk }: { chalk: boolean }) {
  const id = useParams().id ?? "";
  const take = useTake(id);
  const report = useReport(id, take.data?.headline?.report_version);
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
        title={`${take.data.student.name} has been filmed`}
        text="The reading is not shown where the class can see it. Press D on the teacher's own screen, and it is here."
      />
    );
  if (report.data) return <ReadTake key={id} take={take.data} report={report.data} />;
  return <UnreadTake take={take.data} trouble={report.error?.message} />;
}

function ReadTake({ take, report }: { take: Take; report: Report }) {
  const playhead = useRef<SVGGElement>(null);
  const overlay = useRef<OverlayHandle>(null);
  const moment = useRef<HTMLParagraphElement>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const [looping, setLooping] = useState(false);
  const playheadX = useMemo(() => playheadOf(report, SCORE.width), [report]);
  const onTime = useCallback(
    (t_s: number) => {
      playhead.current?.setAttribute("transform", `translate(${playheadX(t_s)},0)`);
      overlay.current?.show(t_s);
      if (moment.current) moment.current.textContent = momentWords(report, t_s);
    },
    [report, playheadX],
  );
  const { video, seek: seekClip, turn, setLoop } = useClip(onTime);
  const choose = (index: number | null) => {
    setChosen(index);
    const breath = index === null ? undefined : report.breaths[index];
    if (breath?.inhale_start_s != null && breath.exhale_end_s != null) {
      seekClip(breath.inhale_start_s);
      setLoop(looping ? { from: breath.inhale_start_s, to: breath.exhale_end_s } : null);
    }
  };
  const seek = (t_s: number) => {
    const inside = breathAt(report, t_s);
    setChosen(inside >= 0 ? inside : null);
    setLoop(null);
    seekClip(t_s);
  };
  const evidence = (verdict: Verdict) => {
    const mark = verdict.marks.find((m) => m.from_s === verdict.from_s);
    if (mark) setChosen(mark.breath);
    if (verdict.from_s !== null) seekClip(verdict.from_s);
  };
  const turnLoop = () => {
    const breath = report.breaths[chosen ?? 0];
    const on = !looping && breath?.inhale_start_s != null && breath.exhale_end_s != null;
    setLooping(on);
    setLoop(on ? { from: breath!.inhale_start_s!, to: breath!.exhale_end_s! } : null);
    if (on) seekClip(breath!.inhale_start_s!);
  };
  const count = report.breaths.length;
  const step = (by: number) => {
    const before = by > 0 ? -1 : count;
    if (count) choose(((chosen ?? before) + by + count) % count);
  };
  const keys: Binding[] = [
    { key: " ", shown: "space", does: "play or stop", run: turn },
    { key: "ArrowRight", shown: "→", does: "next breath", run: () => step(1) },
    { key: "ArrowLeft", shown: "←", does: "breath before", run: () => step(-1) },
    { key: "l", does: "repeat the breath", run: turnLoop },
    { key: "ArrowDown", shown: "↓", does: "next verdict; enter says why", run: () => focusVerdict(1) },
    { key: "ArrowUp", shown: "↑", does: "verdict before", run: () => focusVerdict(-1) },
    ...report.breaths.slice(0, 9).map((_, i) => ({ key: String(i + 1), does: `breath ${i + 1}`, run: () => choose(i) })),
  ];
  return (
    <>
      <TakeHead take={take} keys={keys} />
      <Columns>
        <Picture onClick={turn}>
          <Frame $ratio={report.clip.width_px / report.clip.height_px}>
            {take.clip?.url && (
              <video ref={video} src={take.clip.url} preload="auto" playsInline tabIndex={-1} aria-label={`Clip of ${take.student.name}`} />
            )}
            <Overlay report={report} handle={overlay} />
            <Moment ref={moment} />
          </Frame>
        </Picture>
        <section>
          <Say take={take} report={report} />
          <Verdicts verdicts={report.verdicts} said={stopOf(report)} onEvidence={evidence} />
        </section>
      </Columns>
      {count > 0 && <BreathLine breaths={report.breaths} scale={report.scale} chosen={chosen} onChoose={choose} />}
      {(count > 0 || report.trace.t_s.length > 0) && (
        <BreathScore report={report} card={take.check.card} {...SCORE} chosen={chosen} onSeek={seek} playhead={playhead} />
      )}
    </>
  );
}

function momentWords(report: Report, t_s: number): string {
  const { first_inhale_s: first, tempo_bpm: tempo } = report.beats;
  const seconds = `${t_s.toFixed(1)} s`;
  const inside = breathAt(report, t_s);
  if (first === null || tempo === null) return seconds;
  const beat = ((t_s - first) * tempo) / 60;
  if (beat < 0) return `count-in · ${seconds}`;
  const breath = inside >= 0 ? `breath ${inside + 1}, ` : "";
  return `${breath}bar ${Math.floor(beat / 4) + 1}, beat ${(Math.floor(beat) % 4) + 1} · ${seconds}`;
}

/** Moves the focus along the rows of verdicts. */
function focusVerdict(by: number) {
  const rows = [...document.querySelectorAll<HTMLButtonElement>("[data-testid^=verdict-]")];
  const at = rows.indexOf(document.activeElement as HTMLButtonElement);
  rows[(at + by + rows.length + (at < 0 && by < 0 ? 1 : 0)) % rows.length]?.focus();
}

/** The breath a moment belongs to, the later one where two meet; -1 between breaths. */
function breathAt(report: Report, t_s: number): number {
  return report.breaths.findLastIndex(
    (b) => b.inhale_start_s != null && b.exhale_end_s != null && t_s >= b.inhale_start_s - 0.02 && t_s <= b.exhale_end_s,
  );
}

import { useCallback, useRef, useState } from "react";
import { Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import { useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Report, Take, Verdict } from "../api/client";
import { useDelete, useReadAgain, useReport, useTake } from "../api/queries";
import { BreathScore, playheadX } from "../breathscore/BreathScore";
import { cardWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { useKeys, type Binding } from "../design/keys";
import { Message } from "../design/Message";
import { colour } from "../design/tokens";
import { firstName, instrumentWords } from "../shared/words";
import { BreathLine } from "./BreathLine";
import { Overlay, type OverlayHandle } from "./Overlay";
import { useClip } from "./useClip";
import { Verdicts } from "./Verdicts";

const SCORE = { width: 1232, height: 264 };

const Head = styled.div`
  display: flex; align-items: center; gap: 14px; padding: 10px 0 10px; flex-wrap: wrap;
  h1 { font-size: 25px; font-weight: 800; } p { color: ${colour("soft")}; } div { margin-left: auto; display: flex; flex-wrap: wrap; gap: 10px; }
`;
const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 0.94fr) minmax(0, 1fr); gap: 22px; align-items: start;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const Picture = styled.div`
  position: relative; background: ${colour("ink")}; border-radius: 4px; overflow: hidden; aspect-ratio: 16 / 9.6;
  video { width: 100%; height: 100%; object-fit: contain; display: block; }
`;
const Frame = styled.div<{ $ratio: number }>`
  position: absolute; inset: 0; margin: auto; aspect-ratio: ${(p) => p.$ratio}; max-width: 100%; max-height: 100%; ${(p) => (p.$ratio > 16 / 9.6 ? "width: 100%;" : "height: 100%;")}
`;
const Moment = styled.p`
  position: absolute; left: 12px; bottom: 8px; color: #fff; font-weight: 650; font-size: 17px; text-shadow: 0 0 4px #101517, 0 0 2px #101517; pointer-events: none;
`;
const Cue = styled.div`
  .label { color: ${colour("soft")}; font-weight: 650; } .text { font-size: 27px; font-weight: 750; line-height: 1.15; margin-top: 2px; text-wrap: balance; }
`;
const Shade = styled(ModalOverlay)`position: fixed; inset: 0; display: grid; place-items: center; background: color-mix(in srgb, ${colour("ink")} 40%, transparent); z-index: 10;`;
const Sheet = styled(Modal)`background: ${colour("sheet")}; border-radius: 6px; padding: 24px 28px; max-width: 460px; p { margin: 10px 0 18px; } div { display: flex; gap: 12px; }`;

/** See, believe or question one reading. */
export function TakePage() {
  const id = useParams().id ?? "";
  const take = useTake(id);
  const report = useReport(id, take.data?.headline?.report_version);
  if (take.isPending) return <p className="unseen" role="status">Loading the take</p>;
  if (take.error) return <Message title="This take cannot be shown" text={take.error.message} onRetry={() => take.refetch()} />;
  if (report.data) return <ReadTake key={id} take={take.data} report={report.data} />;
  return <UnreadTake take={take.data} trouble={report.error?.message} />;
}

/** Head of a take with what can be done to it. */
function TakeHead({ take, keys }: { take: Take; keys: Binding[] }) {
  const go = useNavigate();
  const again = useReadAgain(take.id);
  const remove = useDelete(take.id);
  const [asking, setAsking] = useState(false);
  const reads = take.state === "queued" || take.state === "reading";
  useKeys("Take", [
    ...keys,
    { key: "r", does: "read again", run: () => again.mutate(), off: reads || !take.clip },
    { key: "x", does: "delete this take", run: () => setAsking(true) },
  ]);
  return (
    <Head>
      <h1>{take.student.name}</h1>
      <p>{instrumentWords(take.instrument)} · {take.card ? `counted breathing ${cardWords(take.card)}` : "without a count"} · try {take.try_number}</p>
      <div>
        <Action letter="R" isDisabled={reads || !take.clip} onPress={() => again.mutate()}>{reads ? `${take.stage} ${Math.round(100 * take.progress)} %` : "Read again"}</Action>
        <Action letter="X" onPress={() => setAsking(true)}>Delete</Action>
        <Action main letter="H" onPress={() => go("/")}>Next student</Action>
      </div>
      <Shade isOpen={asking} onOpenChange={setAsking} isDismissable>
        <Sheet>
          <Dialog role="alertdialog">
            <Heading slot="title">Delete {firstName(take.student.name)}'s take?</Heading>
            <p>The clip, its copy and every reading of it are deleted from this computer. This cannot be taken back.</p>
            {remove.error && <p role="alert">{remove.error.message}</p>}
            <div>
              <Action main autoFocus onPress={() => remove.mutate(undefined, { onSuccess: () => go("/") })}>Delete it</Action>
              <Action onPress={() => setAsking(false)}>Keep it</Action>
            </div>
          </Dialog>
        </Sheet>
      </Shade>
    </Head>
  );
}

function UnreadTake({ take, trouble }: { take: Take; trouble: string | undefined }) {
  const failed = take.state === "failed";
  const title = failed ? "This clip could not be read" : take.state === "queued" ? "Waiting to be read" : `${take.stage}, ${Math.round(100 * take.progress)} %`;
  const text = failed ? take.reason_text : (trouble ?? "You can leave this page: the reading goes on, and the result drops into Today.");
  return (
    <>
      <TakeHead take={take} keys={[]} />
      <section style={{ maxWidth: 640, paddingTop: 40 }} aria-live="polite">
        <h2 style={{ fontSize: 30, fontWeight: 800 }}>{title}</h2>
        <p style={{ fontSize: 19, marginTop: 10, color: colour("soft") }}>{text}</p>
        {!failed && <progress value={take.progress} max={1} aria-label="reading" style={{ width: "100%", marginTop: 24, accentColor: colour("ink") }} />}
      </section>
    </>
  );
}

function ReadTake({ take, report }: { take: Take; report: Report }) {
  const playhead = useRef<SVGGElement>(null);
  const overlay = useRef<OverlayHandle>(null);
  const moment = useRef<HTMLParagraphElement>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const [looping, setLooping] = useState(false);
  const onTime = useCallback(
    (t_s: number) => {
      playhead.current?.style.setProperty("transform", `translateX(${playheadX(report, SCORE.width, t_s)}px)`);
      overlay.current?.show(t_s);
      if (moment.current) moment.current.textContent = momentWords(report, t_s);
    },
    [report],
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
  const step = (by: number) => count && choose(chosen === null ? (by > 0 ? 0 : count - 1) : (chosen + by + count) % count);
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
          <Say report={report} />
          <Verdicts verdicts={report.verdicts} onEvidence={evidence} />
        </section>
      </Columns>
      {count > 0 && <BreathLine breaths={report.breaths} scale={report.scale} chosen={chosen} onChoose={choose} />}
      {(count > 0 || report.trace.t_s.length > 0) && (
        <BreathScore report={report} card={take.card} {...SCORE} chosen={chosen} onSeek={seek} playhead={playhead} />
      )}
    </>
  );
}

/** The one sentence to say, or why there is none and what to do. */
function Say({ report }: { report: Report }) {
  const stops = report.reasons.filter((r) => r.check === "breath" || r.check === "all");
  if (!report.readable_for.breath && stops[0])
    return (
      <Cue>
        <p className="label">{report.readable ? "The breath is not readable here" : "Not readable"}</p>
        <p className="text">{stops[0].message}</p>
      </Cue>
    );
  return (
    <Cue>
      <p className="label">Say this, then try again</p>
      <p className="text">{report.cue?.text}</p>
      {report.reasons.map((reason) => <p key={reason.code} style={{ color: colour("soft"), fontSize: 15, marginTop: 4 }}>{reason.message}</p>)}
    </Cue>
  );
}

function momentWords(report: Report, t_s: number): string {
  const { first_inhale_s: first, tempo_bpm: tempo } = report.beats;
  const seconds = `${t_s.toFixed(1)} s`;
  const inside = breathAt(report, t_s);
  if (first === null || tempo === null) return seconds;
  const beat = ((t_s - first) * tempo) / 60;
  if (beat < 0) return `count-in · ${seconds}`;
  return `${inside >= 0 ? `breath ${inside + 1}, ` : ""}bar ${Math.floor(beat / 4) + 1}, beat ${(Math.floor(beat) % 4) + 1} · ${seconds}`;
}

/** Moves the focus along the rows of verdicts. */
function focusVerdict(by: number) {
  const rows = [...document.querySelectorAll<HTMLButtonElement>("[data-testid^=verdict-]")];
  const at = rows.indexOf(document.activeElement as HTMLButtonElement);
  rows[(at + by + rows.length + (at < 0 && by < 0 ? 1 : 0)) % rows.length]?.focus();
}

/** The breath a moment belongs to, the later one where two meet; -1 between breaths. */
function breathAt(report: Report, t_s: number): number {
  return report.breaths.findLastIndex((b) => b.inhale_start_s != null && b.exhale_end_s != null && t_s >= b.inhale_start_s - 0.02 && t_s <= b.exhale_end_s);
}

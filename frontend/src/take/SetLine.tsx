import { useState, type RefObject } from "react";
import styled from "styled-components";

import type { Edits, Report, Take } from "../api/client";
import { useEdit, useMe } from "../api/queries";
import { onClip } from "../design/tokens";
import { Aim, Line, Ring, type Place } from "./Aim";

const NO_EDITS: Edits = { player: null, first_inhale_s: null, turns: [], line: null };

export type LineSetting = { near: Place | null; place: (at: Place, to?: Place) => void; leave: () => void };

/** The instrument's line, set by two taps where the reading did not find it or found another, and taken back. */
export function useSetLine(take: Take, report: Report, video: RefObject<HTMLVideoElement | null>) {
  const edit = useEdit(take.id);
  const may = useMe().data?.may.includes("overrule") ?? false;
  const [near, setNear] = useState<Place | "first" | null>(null);
  const edits = (report.edits ?? NO_EDITS) as Edits;
  const write = (line: Edits["line"]) => edit.mutate({ ...edits, line });
  const leave = () => setNear(null);
  const place = (at: Place, to?: Place) => {
    const begins = near === "first" || near === null ? at : near;
    const ends = begins === at ? to : (to ?? at);
    if (!ends) return setNear(begins);
    leave();
    write({ t_s: video.current?.currentTime ?? 0, near_px: begins, far_px: ends });
  };
  const turn = () => {
    if (near !== null) return leave();
    if (edits.line) return write(null);
    video.current?.pause();
    setNear("first");
  };
  const setting: LineSetting | null = near === null ? null : { near: near === "first" ? null : near, place, leave };
  const films = Boolean(take.clip?.url); // a line that stands can be taken back without it
  return {
    can: may && take.judged_anew && showsLine(report) && (films || Boolean(edits.line)),
    has: Boolean(edits.line),
    setting,
    turn,
    trouble: edit.error?.message,
  };
}

const OF_THE_LINE = new Set(["axis_level", "axis_to_trunk"]);

/** Whether the instrument's line lies in the picture, found or not: a tuba has none, and a trumpet's points at a camera in front of it. */
export const showsLine = ({ hold, verdicts }: Report) =>
  Boolean(hold?.instrument_axis_deg) || verdicts.some(({ criterion, reason }) => OF_THE_LINE.has(criterion) && reason !== "view_unserved");

const Asks = styled.p`
  position: absolute;
  left: 0;
  right: 0;
  top: 0;
  padding: 8px 12px;
  background: ${onClip.dark};
  color: ${onClip.light};
  font-weight: 650;
  pointer-events: none;
`;

/** What to tap now, over the top of the picture. */
export function LineAsks({ setting }: { setting: LineSetting }) {
  return <Asks role="status">{setting.near ? "Now tap its far end" : "Tap where it meets the mouth"}</Asks>;
}

/** Lies over the whole picture while a line is set: a tap, or arrow keys and enter, sets an end. */
export function LineAim({ report, setting }: { report: Report; setting: LineSetting }) {
  return (
    <Aim
      clip={report.clip}
      begins={report.hold?.hands?.stills.at(-1)?.mouth_px as Place | undefined}
      label={`${setting.near ? "Its far end" : "Where it meets the mouth"}: arrows move, enter sets`}
      onPlace={setting.place}
      onKey={(key) => {
        if (key !== "Escape" && key !== "p") return false;
        setting.leave();
        return true;
      }}
    >
      {(at, size) => (
        <>
          {setting.near && <Line from={setting.near} to={at} width={size * 0.25} />}
          {setting.near && <Ring at={setting.near} size={size} />}
          <Ring at={at} size={size} />
        </>
      )}
    </Aim>
  );
}

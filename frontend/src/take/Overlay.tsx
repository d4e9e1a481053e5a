import { useImperativeHandle, useMemo, type Ref, useRef } from "react";

import type { Report } from "../api/client";
import { onClip } from "../design/tokens";
import { Axis } from "./Axis";
import { axisShown } from "./axis";
import { Moving, type MovingHandle } from "./Moving";
import { onBody, type ToPx } from "./onBody";
import { OverClip } from "./OverClip";
import { movePlaces, outlineAt, Places } from "./Places";

const AXIS_PIECES = 4; // it bends in at most so many
const AXIS_ENDS = [0, 1]; // hips and shoulders, trunk lengths up
const LINES = 20; // of the words on the clip, in the height that is shown

export type OverlayHandle = { show: (t_s: number) => void };

type Props = { report: Report; handle: Ref<OverlayHandle>; shownHeight: number; bands: boolean; places: boolean };

/** The trunk's axis, the instrument's, and what was followed of the breath, drawn on the clip. bands: the breath's too, where it is read; places: where was looked. */
export function Overlay({ report, handle, shownHeight, bands, places }: Props) {
  const moving = useRef<MovingHandle | null>(null);
  const outline = useRef<SVGGElement | null>(null);
  const shown_s = useRef(0);
  const axisLines = useRef<SVGGElement | null>(null);
  const spots = useRef<SVGGElement | null>(null);
  const { clip } = report;
  const size = shownHeight / LINES;
  const placed = useMemo(() => onBody(report), [report]);
  useImperativeHandle(handle, () => ({
    show: (t_s) => {
      shown_s.current = t_s;
      if (placed) drawAxis(axisLines.current, placed(t_s));
      if (placed) movePlaces(spots.current, placed(t_s));
      drawOutline(outline.current, report, t_s);
      moving.current?.show(t_s);
    },
  }));
  if (!placed) return null;
  const axis = axisShown(report);
  return (
    <OverClip viewBox={`0 0 ${clip.width_px} ${clip.height_px}`} aria-hidden data-testid="overlay">
      <g
        ref={(group) => {
          axisLines.current = group;
          drawAxis(group, placed(shown_s.current));
        }}
        data-testid="trunk-axis"
        fill="none"
      >
        <path stroke={onClip.dark} strokeWidth={size * 0.18} opacity="0.5" />
        <path stroke={onClip.light} strokeWidth={size * 0.1} strokeDasharray={`${size * 0.25} ${size * 0.22}`} />
        {AXIS_ENDS.map((up) => (
          <circle key={up} r={size * 0.26} stroke={onClip.light} strokeWidth={size * 0.12} />
        ))}
      </g>
      {axis && <Axis axis={axis} size={size} />}
      {places && (
        <g
          ref={(group) => {
            spots.current = group;
            movePlaces(group, placed(shown_s.current));
          }}
        >
          <Places report={report} size={size} />
        </g>
      )}
      {places && (
        <g
          ref={(group) => {
            outline.current = group;
            drawOutline(group, report, shown_s.current);
          }}
          data-testid="outline"
          fill="none"
          strokeLinejoin="round"
        >
          <path stroke={onClip.dark} strokeWidth={size * 0.24} opacity="0.5" />
          <path stroke={onClip.light} strokeWidth={size * 0.1} />
        </g>
      )}
      {bands && report.readable_for.breath && (
        <Moving
          report={report}
          size={size}
          placed={placed}
          handle={(mounted) => {
            moving.current = mounted;
            mounted?.show(shown_s.current);
          }}
        />
      )}
    </OverClip>
  );
}

/** The trunk's axis from the hips to the shoulders, and a ring at either end. */
function drawAxis(group: SVGGElement | null, toPx: ToPx) {
  const along = Array.from({ length: AXIS_PIECES + 1 }, (_, i) =>
    toPx(i / AXIS_PIECES, 0)
      .map((one) => one.toFixed(1))
      .join(),
  );
  for (const path of group?.querySelectorAll("path") ?? []) path.setAttribute("d", `M${along.join(" L")}`);
  for (const [i, ring] of [...(group?.querySelectorAll("circle") ?? [])].entries()) {
    const [x, y] = toPx(AXIS_ENDS[i]!, 0);
    ring.setAttribute("transform", `translate(${x.toFixed(1)},${y.toFixed(1)})`);
  }
}

/** The body's outline as it was looked at nearest to a moment. */
function drawOutline(group: SVGGElement | null, report: Report, t_s: number) {
  for (const path of group?.querySelectorAll("path") ?? []) path.setAttribute("d", outlineAt(report, t_s));
}

import { useImperativeHandle, type Ref, useRef } from "react";

import type { Report } from "../api/client";
import { onClip } from "../design/tokens";
import { Axis } from "./Axis";
import { axisShown } from "./axis";
import { Moving, type MovingHandle } from "./Moving";
import { OverClip } from "./OverClip";
import { outlineAt, Places } from "./Places";

const LINES = 20; // of the words on the clip, in the height that is shown

export type OverlayHandle = { show: (t_s: number) => void };

type Props = { report: Report; handle: Ref<OverlayHandle>; shownHeight: number; bands: boolean; places: boolean };

/** The trunk's axis, the instrument's, and what was followed of the breath, drawn on the clip. bands: the breath's too, where it is read; places: where was looked. */
export function Overlay({ report, handle, shownHeight, bands, places }: Props) {
  const moving = useRef<MovingHandle | null>(null);
  const outline = useRef<SVGGElement | null>(null);
  const shown_s = useRef(0);
  const { player, scale, clip } = report;
  const size = shownHeight / LINES;
  useImperativeHandle(handle, () => ({
    show: (t_s) => {
      shown_s.current = t_s;
      drawOutline(outline.current, report, t_s);
      moving.current?.show(t_s);
    },
  }));
  if (!player || !scale?.trunk_px) return null;
  const [hx, hy] = player.hip_px as [number, number];
  const [ux, uy] = player.up as [number, number];
  const [fx, fy] = player.forward as [number, number];
  const trunk = scale.trunk_px;
  const toPx = (up: number, ahead: number) => [hx + trunk * (ux * up + fx * ahead), hy + trunk * (uy * up + fy * ahead)] as const;
  const [sx, sy] = toPx(1, 0);
  const axis = axisShown(report);
  return (
    <OverClip viewBox={`0 0 ${clip.width_px} ${clip.height_px}`} aria-hidden data-testid="overlay">
      <line x1={hx} y1={hy} x2={sx} y2={sy} stroke={onClip.dark} strokeWidth={size * 0.18} opacity="0.5" />
      <line
        x1={hx}
        y1={hy}
        x2={sx}
        y2={sy}
        stroke={onClip.light}
        strokeWidth={size * 0.1}
        strokeDasharray={`${size * 0.25} ${size * 0.22}`}
      />
      {[
        [hx, hy],
        [sx, sy],
      ].map(([x, y]) => (
        <circle key={`${x}`} cx={x} cy={y} r={size * 0.26} fill="none" stroke={onClip.light} strokeWidth={size * 0.12} />
      ))}
      {axis && <Axis axis={axis} size={size} />}
      {places && <Places report={report} size={size} />}
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
          toPx={toPx}
          handle={(mounted) => {
            moving.current = mounted;
            mounted?.show(shown_s.current);
          }}
        />
      )}
    </OverClip>
  );
}

/** The body's outline as it was looked at nearest to a moment. */
function drawOutline(group: SVGGElement | null, report: Report, t_s: number) {
  for (const path of group?.querySelectorAll("path") ?? []) path.setAttribute("d", outlineAt(report, t_s));
}

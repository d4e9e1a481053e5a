import { type ReactNode, useState } from "react";
import styled, { css } from "styled-components";

import type { Take } from "../api/client";
import { onClip } from "../design/tokens";

const Frame = styled.div<{ $shape: number }>`
  position: relative;
  overflow: hidden;
  border-radius: 4px;
  background: ${onClip.dark};
  aspect-ratio: ${(p) => p.$shape};
  p {
    position: absolute;
    inset: auto 8px 5px;
    display: flex;
    justify-content: space-between;
    color: ${onClip.light};
    font-size: 14px;
    font-weight: 650;
    text-shadow:
      0 0 4px ${onClip.dark},
      0 0 2px ${onClip.dark};
  }
`;
type At = { $at: [number, number, number] };
const placed = (p: At) => ({ style: { left: `${p.$at[0]}%`, top: `${p.$at[1]}%`, width: `${p.$at[2]}%` } });
const whole = css`
  position: absolute;
  height: auto;
  max-width: none;
`;
const Picture = styled.img.attrs<At>(placed)`
  ${whole}
`;
const Moment = styled.video.attrs<At>(placed)`
  ${whole}
`;

const Over = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  polyline {
    fill: none;
    stroke: ${onClip.light};
    stroke-width: 1.4;
    stroke-linejoin: round;
  }
`;

export type Part = { x: number; y: number; width: number };

type Props = {
  take: Take;
  t_s: number;
  part: Part;
  shape: number;
  clip: { width_px: number; height_px: number };
  words?: string;
  label: string;
  lines?: number[][][];
  children?: ReactNode;
};

/** Whether there is a picture of a take's moments. */
export const canShow = ({ stills, clip }: Take) => Boolean(stills ?? clip?.url);

/** One moment of a take as a still: a part of its picture, px of the clip; the picture that was kept of it, else the clip itself. lines: from place to place; children: what else lies
 * over it. */
export function Still({ take, t_s, part, shape, clip, words, label, lines = [], children }: Props) {
  const [none, setNone] = useState(false);
  const height = part.width / shape;
  const at: [number, number, number] = [(-100 * part.x) / part.width, (-100 * part.y) / height, (100 * clip.width_px) / part.width];
  return (
    <Frame $shape={shape}>
      {take.stills && !none ? (
        <Picture $at={at} src={`${take.stills}/${Math.round(1000 * t_s)}`} alt={label} draggable={false} onError={() => setNone(true)} />
      ) : (
        take.clip?.url && (
          <Moment $at={at} src={`${take.clip.url}#t=${t_s.toFixed(2)}`} preload="auto" muted playsInline tabIndex={-1} aria-label={label} />
        )
      )}
      {lines.length > 0 && (
        <Over viewBox={`0 0 100 ${100 / shape}`} aria-hidden>
          {lines.map((line) => (
            <polyline
              key={line.join()}
              points={line
                .map(([x, y]) => `${(100 * ((x ?? 0) - part.x)) / part.width},${(100 * ((y ?? 0) - part.y)) / part.width}`)
                .join(" ")}
            />
          ))}
        </Over>
      )}
      {children}
      {words && (
        <p aria-hidden>
          <span>{words}</span>
          <span>{t_s.toFixed(1)} s</span>
        </p>
      )}
    </Frame>
  );
}

/** A part of a picture around a place, inside the picture. */
export function around([x, y]: [number, number], width: number, shape: number, clip: { width_px: number; height_px: number }): Part {
  const wide = Math.min(width, clip.width_px, clip.height_px * shape);
  const inside = (value: number, most: number) => Math.min(Math.max(value, 0), Math.max(most, 0));
  return {
    x: inside(x - wide / 2, clip.width_px - wide),
    y: inside(y - wide / shape / 2, clip.height_px - wide / shape),
    width: wide,
  };
}

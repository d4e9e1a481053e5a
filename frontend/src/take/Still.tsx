import styled from "styled-components";

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
const Picture = styled.video.attrs<{ $at: [number, number, number] }>((p) => ({
  style: { left: `${p.$at[0]}%`, top: `${p.$at[1]}%`, width: `${p.$at[2]}%` },
}))`
  position: absolute;
  height: auto;
`;

const Rings = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  circle {
    fill: none;
    stroke: ${onClip.light};
    stroke-width: 1.6;
  }
  text {
    fill: ${onClip.light};
    stroke: ${onClip.dark};
    stroke-width: 2.4;
    paint-order: stroke;
    font-size: 9px;
    font-weight: 700;
  }
`;
const RING = 13; // of a hundred
const BESIDE = 18;

export type Part = { x: number; y: number; width: number };
/** Where to look on a still: px of the clip, and the numbers of the rows that say what for. */
export type Ring = { at: [number, number]; numbers: string };

type Props = {
  src: string;
  t_s: number;
  part: Part;
  shape: number;
  clip: { width_px: number; height_px: number };
  words?: string;
  label: string;
  rings?: Ring[];
};

/** One moment of a clip as a still: a part of its picture, px of the clip. */
export function Still({ src, t_s, part, shape, clip, words, label, rings = [] }: Props) {
  const height = part.width / shape;
  const at: [number, number, number] = [(-100 * part.x) / part.width, (-100 * part.y) / height, (100 * clip.width_px) / part.width];
  return (
    <Frame $shape={shape}>
      <Picture $at={at} src={`${src}#t=${t_s.toFixed(2)}`} preload="auto" muted playsInline tabIndex={-1} aria-label={label} />
      {rings.length > 0 && (
        <Rings viewBox={`0 0 100 ${100 / shape}`} aria-hidden>
          {rings.map(({ at: [x, y], numbers }) => {
            const [left, top] = [(100 * (x - part.x)) / part.width, (100 * (y - part.y)) / part.width];
            const beside = left > 60 ? -BESIDE : BESIDE;
            return (
              <g key={numbers}>
                <circle cx={left} cy={top} r={RING} />
                <text x={left + beside} y={top + 4} textAnchor={beside < 0 ? "end" : "start"}>
                  {numbers}
                </text>
              </g>
            );
          })}
        </Rings>
      )}
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

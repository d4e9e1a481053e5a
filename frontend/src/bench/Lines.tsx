import { createElement, useLayoutEffect, useRef, useState, type ReactNode, type SVGProps } from "react";
import styled from "styled-components";

import type { LineDrawing, LineShape } from "../api/client";
import { colour } from "../design/tokens";

export const Ink = styled.svg`
  display: block;
  fill: none;
  stroke: ${colour("ink")};
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
  text {
    fill: ${colour("ink")};
    stroke: none;
    font-size: 17px;
  }
  .bold {
    font-weight: 700;
  }
  .soft {
    stroke: ${colour("soft")};
    stroke-width: 1.5;
  }
  text.soft,
  .soft text {
    fill: ${colour("soft")};
    stroke: none;
  }
  .hair {
    stroke: ${colour("hair")};
  }
  .wash {
    fill: ${colour("wash")};
  }
  .fill,
  .pressed {
    fill: ${colour("ink")};
  }
  .ground,
  .key {
    fill: ${colour("ground")};
  }
  .key.pressed {
    fill: ${colour("ink")};
  }
  .dash {
    stroke-dasharray: 5 5;
  }
  .thick,
  .now * {
    stroke-width: 4;
  }
  .loupe * {
    vector-effect: non-scaling-stroke;
  }
`;

/** pressed: fingers that are down; hidden: groups that are left out; rules: of marks, by part; slide_px: how far the slide is out, in the drawing's units;
 *  now: a group that is drawn heavier. */
export type Shown = { pressed?: string[]; hidden?: string[]; rules?: Record<string, string>; slide_px?: number; now?: string };

const NAMES: Record<string, string> = { class: "className", "text-anchor": "textAnchor", "font-size": "fontSize" };

/** A drawing's shapes in the page's own ink. */
export function shapes(list: readonly LineShape[], shown: Shown = {}): ReactNode[] {
  return list.filter((one) => !shown.hidden?.includes(one.attributes.id ?? "")).map((one, i) => shape(one, i, shown));
}

function shape(one: LineShape, i: number, shown: Shown): ReactNode {
  const { id = "", ...attributes } = one.attributes;
  if (attributes.class?.includes("mark"))
    return <Mark key={i} x={Number(attributes.cx)} y={Number(attributes.cy)} rule={shown.rules?.[id] ?? "yours"} />;
  const props = Object.fromEntries(Object.entries(attributes).map(([name, value]) => [NAMES[name] ?? name, value])) as SVGProps<SVGElement>;
  const classes = [attributes.class, shown.pressed?.includes(id) && "pressed", shown.now === id && "now"].filter(Boolean).join(" ");
  const moved = id === "slide" && shown.slide_px ? { transform: `translate(${shown.slide_px},0)` } : {};
  return createElement(one.tag, { ...props, ...moved, key: i, className: classes || undefined }, one.words || shapes(one.inside, shown));
}

/** A part: a filled dot is the student's, a barred square stays shut, a ring opens once it was shown. */
function Mark({ x, y, rule }: { x: number; y: number; rule: string }) {
  if (rule === "yours") return <circle cx={x} cy={y} r="6" className="fill" />;
  if (rule === "shown") return <circle cx={x} cy={y} r="6" className="ground" />;
  return (
    <g>
      <rect x={x - 7} y={y - 7} width="14" height="14" rx="3" className="ground" />
      <path d={`M${x - 4},${y} H${x + 4}`} className="thick" />
    </g>
  );
}

/** A whole drawing, with the text that says the same. */
export function Lines({ drawing, ...shown }: { drawing: LineDrawing } & Shown) {
  return (
    <Ink viewBox={`0 0 ${drawing.width} ${drawing.height}`} role="img" aria-label={drawing.text} width="100%" height="100%">
      {shapes(drawing.shapes, shown)}
    </Ink>
  );
}

const within = (list: readonly LineShape[], id: string): LineShape | undefined =>
  list.map((one) => (one.attributes.id === id ? one : within(one.inside, id))).find(Boolean);

type PieceProps = { drawing: LineDrawing; of: string; beside?: string; margin?: number; label?: string } & Shown;

/** One named group of a drawing, with another beside it, as large as there is room; nothing where the drawing has none of that name. */
export function Piece({ drawing, of, beside = "", margin = 6, label, ...shown }: PieceProps) {
  const group = within(drawing.shapes, of);
  const other = within(drawing.shapes, beside);
  const inside = useRef<SVGGElement>(null);
  const [box, setBox] = useState(`0 0 ${drawing.width} ${drawing.height}`);
  useLayoutEffect(() => {
    const found = inside.current?.getBBox?.();
    if (found?.width) setBox([found.x - margin, found.y - margin, found.width + 2 * margin, found.height + 2 * margin].join(" "));
  }, [drawing, of, beside, margin, shown.slide_px]);
  if (!group) return null;
  const named = label ? { role: "img", "aria-label": label } : { "aria-hidden": true };
  return (
    <Ink viewBox={box} width="100%" height="100%" {...named}>
      <g ref={inside} className={label ? undefined : "loupe"}>
        {shapes(other ? [group, other] : [group], shown)}
      </g>
    </Ink>
  );
}

/** Where a part's mark stands in a drawing. */
export function markOf(drawing: LineDrawing, part: string): { x: number; y: number } | null {
  const found = within(drawing.shapes, part);
  return found ? { x: Number(found.attributes.cx), y: Number(found.attributes.cy) } : null;
}

const WIDE = 760;
const HIGH = 360;
const ROUND = 130;
const CLOSER = 3;

/** The whole instrument with one of its parts enlarged: for steps that have no drawing of their own. */
export function Enlarged({ drawing, part }: { drawing: LineDrawing; part: string }) {
  const at = markOf(drawing, part);
  const scale = Math.min(440 / drawing.width, HIGH / drawing.height);
  const spot = at ?? { x: drawing.width / 2, y: drawing.height / 2 };
  const [x, y] = [spot.x * scale, spot.y * scale];
  const r = ROUND / CLOSER / scale;
  const hidden = ["labels", "numbers"];
  return (
    <Ink viewBox={`0 0 ${WIDE} ${HIGH}`} role="img" aria-label={`${drawing.text} Enlarged: ${part}.`} width="100%" height="100%">
      <g transform={`scale(${scale})`}>{shapes(drawing.shapes, { hidden, now: `part-${part}` })}</g>
      <circle cx={x} cy={y} r={ROUND / CLOSER} className="soft" />
      <path d={`M${x},${y - ROUND / CLOSER} L600,52 M${x},${y + ROUND / CLOSER} L600,308`} className="soft" />
      <clipPath id={`loupe-${part.replaceAll(" ", "-")}`}>
        <circle cx="620" cy="180" r={ROUND} />
      </clipPath>
      <circle cx="620" cy="180" r={ROUND} className="ground" />
      <g clipPath={`url(#loupe-${part.replaceAll(" ", "-")})`}>
        <g className="loupe" transform={`translate(620,180) scale(${ROUND / r}) translate(${-spot.x},${-spot.y})`}>
          {shapes(drawing.shapes, { hidden, now: `part-${part}` })}
        </g>
      </g>
      <circle cx="620" cy="180" r={ROUND} />
      <text x="620" y="340" textAnchor="middle" className="bold">
        {part}
      </text>
    </Ink>
  );
}

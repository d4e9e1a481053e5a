import { useState } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Report, Take } from "../api/client";
import { colour } from "../design/tokens";
import { cropOf } from "./crop";
import { Still } from "./Still";

const Column = styled.div`
  display: grid;
  gap: 8px;
  @media (max-width: 900px) {
    grid-template-columns: repeat(3, minmax(0, 148px));
  }
`;
const One = styled(Button)`
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  cursor: pointer;
  &[data-hovered] {
    outline: 2px solid ${colour("ink")};
    outline-offset: 1px;
  }
`;
const SHAPE = 1.25;

type StillOf = NonNullable<NonNullable<Report["hold"]>["hands"]>["stills"][number];
type Shown = StillOf & { kept: boolean };

/** The stills of rest, raising and playing, each at its own moment or at the one it was moved to. */
export function useStills(report: Report, onSeek: (t_s: number) => void) {
  const [moved, setMoved] = useState<Record<string, number>>({});
  const stills: Shown[] = (report.hold?.hands?.stills ?? []).map((still) => {
    const t_s = moved[still.kind];
    return t_s === undefined ? { ...still, kept: true } : { ...still, t_s, lines_px: [], kept: false };
  });
  const move = (kind: StillOf["kind"], t_s: number) => {
    setMoved((before) => ({ ...before, [kind]: t_s }));
    onSeek(t_s);
  };
  return { stills, move };
}

/** Stills of a clip, small, each a way into it. */
export function Stills({ take, report, stills, onSeek }: { take: Take; report: Report; stills: Shown[]; onSeek: (t_s: number) => void }) {
  const crop = cropOf(report, SHAPE);
  const part = { x: crop.left, y: crop.top, width: crop.width };
  return (
    <Column data-stills>
      {stills.map((still) => (
        <One key={still.kind} onPress={() => onSeek(still.t_s)} aria-label={`${still.kind}, ${still.t_s.toFixed(1)} s`}>
          <Still
            take={still.kept ? take : { ...take, stills: null }} // of another moment only the clip has a picture
            t_s={still.t_s}
            part={part}
            shape={SHAPE}
            clip={report.clip}
            words={still.kind}
            label={still.kind}
            lines={still.lines_px}
          />
        </One>
      ))}
    </Column>
  );
}

import { useState } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Report, Take } from "../api/client";
import { colour } from "../design/tokens";
import { cropOf } from "./crop";
import { HandsLine } from "./HandsLine";
import { canShow, Still } from "./Still";

const Beside = styled.div`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 20px;
  align-items: center;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Stills = styled.div`
  display: flex;
  gap: 10px;
`;
const One = styled(Button)`
  width: 148px;
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

/** The hold of a clip: stills of rest, raising and playing, each a way into the clip, beside the way of the hands over the whole of it, on
 * which each may be moved to another moment. */
export function HoldLine({ take, report, onSeek }: { take: Take; report: Report; onSeek: (t_s: number) => void }) {
  const [moved, setMoved] = useState<Record<string, number>>({});
  const stills = (report.hold?.hands?.stills ?? []).map((still) => {
    const t_s = moved[still.kind];
    return t_s === undefined ? { ...still, kept: true } : { ...still, t_s, lines_px: [], kept: false };
  });
  const move = (kind: string, t_s: number) => {
    setMoved((before) => ({ ...before, [kind]: t_s }));
    onSeek(t_s);
  };
  const crop = cropOf(report, SHAPE);
  const part = { x: crop.left, y: crop.top, width: crop.width };
  return (
    <Beside>
      {canShow(take) && (
        <Stills>
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
        </Stills>
      )}
      <HandsLine report={report} stills={stills} onSeek={onSeek} onMove={take.clip?.url ? move : undefined} />
    </Beside>
  );
}

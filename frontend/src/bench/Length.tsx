import { useEffect, useRef, useState } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";

import type { BenchCard, Rung } from "../api/client";
import { colour } from "../design/tokens";
import { guideWords, longest } from "./lengths";

const Box = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
  margin-top: 14px;
  font-size: 17px;
  p {
    color: ${colour("soft")};
  }
  b {
    color: ${colour("ink")};
  }
`;
const Hold = styled(Button)`
  min-height: 56px;
  min-width: 260px;
  padding: 0 18px;
  border: 1.5px solid ${colour("ink")};
  border-radius: 6px;
  background: transparent;
  color: ${colour("ink")};
  font: inherit;
  font-weight: 700;
  font-variant-numeric: tabular-nums;
  cursor: pointer;
  touch-action: none;
  user-select: none;
  &[data-pressed] {
    background: ${colour("ink")};
    color: ${colour("ground")};
  }
  &[data-disabled] {
    border-color: ${colour("hair")};
    color: ${colour("soft")};
    cursor: default;
  }
`;
const LEAST_S = 0.3; // less is a slip of the finger

type Props = { rung: Rung; alone: BenchCard["alone"]; resting: boolean; onSounded: (length_s: number) => void };

/** How long the part alone sounds: held down while it does, beside the longest so far and the guide. */
export function Length({ rung, alone, resting, onSounded }: Props) {
  const since = useRef(0);
  const [held_s, setHeld] = useState<number | null>(null);
  const down = held_s !== null;
  useEffect(() => {
    if (!down) return;
    const tick = setInterval(() => setHeld((performance.now() - since.current) / 1000), 100);
    return () => clearInterval(tick);
  }, [down]);
  const start = () => {
    since.current = performance.now();
    setHeld(0);
  };
  const end = () => {
    const length_s = (performance.now() - since.current) / 1000;
    setHeld(null);
    if (length_s >= LEAST_S) onSounded(Math.min(Math.round(length_s * 10) / 10, 60));
  };
  const best = longest(rung);
  return (
    <Box aria-label="How long it sounds">
      <Hold isDisabled={resting} data-space-free onPressStart={start} onPressEnd={end}>
        {down ? `${held_s.toFixed(1)} s` : "Hold while it sounds"}
      </Hold>
      <p>
        {best !== null && <b>longest {best.toFixed(1)} s</b>}
        {best !== null && guideWords(alone) && ", "}
        {guideWords(alone)}
      </p>
    </Box>
  );
}

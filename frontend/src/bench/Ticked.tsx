import { Checkbox } from "react-aria-components";
import styled from "styled-components";

import { colour } from "../design/tokens";

const Tick = styled(Checkbox)`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 34px;
  cursor: pointer;
  i {
    width: 22px;
    height: 22px;
    border: 1.5px solid ${colour("ink")};
    border-radius: 4px;
    display: grid;
    place-items: center;
    font-style: normal;
    font-weight: 700;
  }
  &[data-focus-visible] i {
    outline: 3px solid ${colour("ink")};
    outline-offset: 2px;
  }
`;

/** Something that is so or is not. */
export function Ticked({ words, on, onChange }: { words: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Tick isSelected={on} onChange={onChange}>
      <i aria-hidden>{on ? "✓" : ""}</i>
      {words}
    </Tick>
  );
}

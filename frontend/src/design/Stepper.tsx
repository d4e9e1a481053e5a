import { Button, Group, Input, Label, NumberField } from "react-aria-components";
import styled from "styled-components";

import { colour } from "./tokens";

const Field = styled(NumberField)`
  display: flex;
  align-items: center;
  gap: 7px;
  > div {
    display: flex;
    border: 1.5px solid ${colour("ink")};
    border-radius: 6px;
    overflow: hidden;
  }
  input {
    width: 44px;
    border: 0;
    border-inline: 1px solid ${colour("hair")};
    background: transparent;
    color: inherit;
    font: inherit;
    font-weight: 800;
    font-size: 18px;
    text-align: center;
  }
  button {
    width: 30px;
    min-height: 36px;
    border: 0;
    background: transparent;
    color: inherit;
    font: inherit;
    font-size: 18px;
    cursor: pointer;
  }
`;
type StepperProps = { label: string; value: number; by: number; low?: number; high?: number; onChange: (value: number) => void };

/** A number that is changed by a step, or typed. */
export function Stepper({ label, value, by, low = 0, high, onChange }: StepperProps) {
  return (
    <Field value={value} step={by} onChange={(v) => Number.isFinite(v) && onChange(v)} minValue={low} maxValue={high}>
      <Group>
        <Button slot="decrement">−</Button>
        <Input />
        <Button slot="increment">+</Button>
      </Group>
      <Label>{label}</Label>
    </Field>
  );
}

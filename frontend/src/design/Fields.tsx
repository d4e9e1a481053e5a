import { Input, Label, TextField, type TextFieldProps } from "react-aria-components";
import styled from "styled-components";

import { colour } from "./tokens";

const Field = styled(TextField)`
  display: grid;
  gap: 5px;
  font-weight: 650;
`;
const Line = styled(Input)`
  font: inherit;
  font-weight: 400;
  color: inherit;
  background: ${colour("sheet")};
  border: 1.5px solid ${colour("soft")};
  border-radius: 6px;
  min-height: 46px;
  padding: 0 12px;
  min-width: 0;
`;
const Small = styled.span`
  color: ${colour("soft")};
  font-weight: 400;
  font-size: 15px;
`;
/** What went wrong or right, beside a rule in ink. */
export const Said = styled.p`
  border-left: 4px solid ${colour("ink")};
  padding-left: 12px;
  max-width: 52ch;
`;

type Props = TextFieldProps & { label: string; complete?: string; hint?: string };

/** One line to fill in, with its label and what helps to fill it. */
export function TextLine({ label, complete = "off", hint, ...rest }: Props) {
  return (
    <Field {...rest}>
      <Label>{label}</Label>
      <Line autoComplete={complete} />
      {hint && <Small>{hint}</Small>}
    </Field>
  );
}

const Choice = styled.label`
  display: grid;
  gap: 5px;
  font-weight: 650;
  select {
    font: inherit;
    font-weight: 400;
    color: inherit;
    background: ${colour("sheet")};
    border: 1.5px solid ${colour("soft")};
    border-radius: 6px;
    min-height: 46px;
    padding: 0 10px;
    min-width: 0;
  }
`;
type ChoiceProps = {
  label: string;
  value: string;
  options: { value: string; words: string }[];
  onChange: (value: string) => void;
  isDisabled?: boolean;
};

/** One of a few, with its label. */
export function ChoiceLine({ label, value, options, onChange, isDisabled = false }: ChoiceProps) {
  return (
    <Choice>
      {label}
      <select value={value} disabled={isDisabled} onChange={(event) => onChange(event.target.value)}>
        {options.map((one) => (
          <option key={one.value} value={one.value}>
            {one.words}
          </option>
        ))}
      </select>
    </Choice>
  );
}

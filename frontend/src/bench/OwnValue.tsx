import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";

import { Refusal, type BenchStep, type Section } from "../api/client";
import { useKeepInstrument, usePassport } from "../api/bench";
import { Action } from "../design/Action";
import { ChoiceLine, Said, TextLine } from "../design/Fields";
import { Shade, Sheet } from "../design/Sheet";
import { Plain } from "./Plain";

const Form = styled.form`
  display: grid;
  gap: 14px;
  min-width: min(380px, 84vw);
  margin-top: 12px;
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
  }
`;

type Props = { step: BenchStep; section: Section; open: boolean; onOpen: (open: boolean) => void };

/** The value of this step that fitted one student. */
export function OwnValue({ step, section, open, onOpen }: Props) {
  const value = step.value!;
  return (
    <>
      <Plain data-space-free onPress={() => onOpen(true)}>
        {value.words}
        {value.value === 0 || value.words.includes(String(value.value)) ? "" : `, ${value.value} ${value.unit}`}; a student's own value
      </Plain>
      <Shade isOpen={open} onOpenChange={onOpen} isDismissable>
        <Sheet>
          <Dialog aria-label="A student's own value">
            <Heading slot="title">
              {step.title}: usually {value.value} {value.unit}
            </Heading>
            <ValueForm step={step} section={section} onDone={() => onOpen(false)} />
          </Dialog>
        </Sheet>
      </Shade>
    </>
  );
}

function ValueForm({ step, section, onDone }: { step: BenchStep; section: Section; onDone: () => void }) {
  const value = step.value!;
  const [student, setStudent] = useState(section.chairs[0]!.id);
  const [said, setSaid] = useState("");
  const keep = useKeepInstrument(student).value;
  const known = usePassport(student).data?.values[value.key];
  const number = Number(said.replace(",", "."));
  const asked = keep.error instanceof Refusal && keep.error.code === "asked_back";
  const send = (sure: boolean) => keep.mutate({ key: value.key, value: said.trim() ? number : null, sure }, { onSuccess: onDone });
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        send(false);
      }}
    >
      <ChoiceLine
        label="Whose"
        value={String(student)}
        options={section.chairs.map((one) => ({ value: String(one.id), words: one.name }))}
        onChange={(id) => setStudent(Number(id))}
      />
      <TextLine
        label={`In ${value.unit}`}
        value={said}
        onChange={setSaid}
        inputMode="decimal"
        hint={known === undefined ? `${value.low} to ${value.high} is what is expected` : `on record: ${known} ${value.unit}`}
      />
      {keep.error && <Said role="alert">{keep.error.message}</Said>}
      <div>
        <Action main type="submit" isDisabled={said.trim() !== "" && !Number.isFinite(number)}>
          {said.trim() ? "Keep it" : "Take it back"}
        </Action>
        {asked && <Action onPress={() => send(true)}>Yes, it is meant</Action>}
        <Action onPress={onDone}>Leave it</Action>
      </div>
    </Form>
  );
}

import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";

import type { BenchCard, Care, Passport } from "../api/client";
import { useKeepInstrument, usePassport } from "../api/bench";
import { Action } from "../design/Action";
import { Said, TextLine } from "../design/Fields";
import { Shade, Sheet } from "../design/Sheet";
import { Ticked } from "./Ticked";

const Form = styled.form`
  display: grid;
  gap: 12px;
  min-width: min(520px, 86vw);
  margin-top: 12px;
  h3 {
    font-size: 16px;
    font-weight: 700;
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
    align-items: end;
  }
`;
type Props = { care: Care; card: BenchCard; student: number | null; onClose: () => void };

/** One instrument's passport: what it is, what was shown to its player, what needs repair. The cards follow it. */
export function PassportSheet({ care, card, student, onClose }: Props) {
  const known = usePassport(student);
  const who = care.chairs.find((one) => one.id === student);
  return (
    <Shade isOpen={student !== null} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Sheet>
        <Dialog aria-label="Passport of the instrument">
          <Heading slot="title">{who?.name}: the instrument's passport</Heading>
          {known.error && <Said role="alert">{known.error.message}</Said>}
          {known.data && student !== null && (
            <PassportForm key={student} passport={known.data} card={card} care={care} student={student} onClose={onClose} />
          )}
        </Dialog>
      </Sheet>
    </Shade>
  );
}

type FormProps = { passport: Passport; card: BenchCard; care: Care; student: number; onClose: () => void };

function PassportForm({ passport, card, care, student, onClose }: FormProps) {
  const keep = useKeepInstrument(student);
  const [now, setNow] = useState(passport);
  const [broken, setBroken] = useState("");
  const shown = [
    ...care.tasks.filter((one) => one.shown).map((one) => ({ key: one.key, words: one.title })),
    ...card.parts.filter((one) => one.rule === "shown").map((one) => ({ key: one.name, words: one.name })),
  ];
  const turn = (key: string, on: boolean) => setNow({ ...now, shown: on ? [...now.shown, key] : now.shown.filter((one) => one !== key) });
  const error = keep.passport.error ?? keep.repair.error;
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        keep.passport.mutate(now, { onSuccess: onClose });
      }}
    >
      <div>
        <TextLine label="Size or model" value={now.size} onChange={(size) => setNow({ ...now, size })} maxLength={40} />
        <TextLine label="Number on it" value={now.number} onChange={(number) => setNow({ ...now, number })} maxLength={40} />
      </div>
      <Ticked words="It is the student's own, not the school's" on={now.own} onChange={(own) => setNow({ ...now, own })} />
      {card.passport.map((one) => (
        <Ticked
          key={one.key}
          words={one.ask}
          on={now.answers[one.key] ?? false}
          onChange={(on) => setNow({ ...now, answers: { ...now.answers, [one.key]: on } })}
        />
      ))}
      {shown.length > 0 && <h3>Was shown, and may be done alone</h3>}
      {shown.map((one) => (
        <Ticked key={one.key} words={one.words} on={now.shown.includes(one.key)} onChange={(on) => turn(one.key, on)} />
      ))}
      <div>
        <TextLine label="Needs repair" value={broken} onChange={setBroken} maxLength={160} hint="bent key, stuck slide, dent" />
        <Action isDisabled={broken.trim().length < 2} onPress={() => keep.repair.mutate(broken.trim(), { onSuccess: () => setBroken("") })}>
          On the list
        </Action>
      </div>
      {error && <Said role="alert">{error.message}</Said>}
      <div>
        <Action main type="submit">
          Keep the passport
        </Action>
        <Action onPress={onClose}>Leave it</Action>
      </div>
    </Form>
  );
}

import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";

import type { BenchCard, BenchRules, Care, Section } from "../api/client";
import { useBenchRules, useCard, useCare, useChangeBenchRules } from "../api/bench";
import { Action } from "../design/Action";
import { ChoiceLine, Said, TextLine } from "../design/Fields";
import { Shade, Sheet } from "../design/Sheet";
import { colour } from "../design/tokens";
import { Ticked } from "./Ticked";

const Form = styled.form`
  display: grid;
  gap: 14px;
  width: min(760px, 86vw);
  margin-top: 12px;
  h3 {
    font-size: 16px;
    font-weight: 700;
  }
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
    gap: 12px 18px;
  }
  .two p {
    color: ${colour("soft")};
    font-size: 15px;
  }
  .end {
    display: flex;
    gap: 10px;
  }
`;

/** How this programme does it: the ways that differ, the gate, how often what is due. */
export function WaysSheet({ section, onClose }: { section: Section | null; onClose: () => void }) {
  return (
    <Shade isOpen={section !== null} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Sheet>
        <Dialog aria-label="How we do it">
          <Heading slot="title">{section?.section}: how we do it</Heading>
          {section && <Ways section={section} onClose={onClose} />}
        </Dialog>
      </Sheet>
    </Shade>
  );
}

function Ways({ section, onClose }: { section: Section; onClose: () => void }) {
  const card = useCard(section.card);
  const care = useCare(section.card);
  const rules = useBenchRules();
  const error = card.error ?? care.error ?? rules.error;
  if (error) return <Said role="alert">{error.message}</Said>;
  if (!card.data || !care.data || !rules.data) return <p role="status">Loading</p>;
  return <WaysForm card={card.data} care={care.data} rules={rules.data} onClose={onClose} />;
}

type Props = { card: BenchCard; care: Care; rules: BenchRules; onClose: () => void };

function WaysForm({ card, care, rules, onClose }: Props) {
  const change = useChangeBenchRules();
  const [ways, setWays] = useState(card.chosen);
  const [gate, setGate] = useState(card.gate.on);
  const [days, setDays] = useState(() => Object.fromEntries(care.tasks.map((one) => [one.key, String(one.every_days)])));
  const wrong = Object.values(days).some((one) => !/^\d{1,3}$/.test(one) || Number(one) > 730);
  const keep = () => {
    const changed = Object.fromEntries(
      care.tasks
        .filter((one) => Number(days[one.key]) !== one.every_days || rules.days[card.name]?.[one.key] !== undefined)
        .map((one) => [one.key, Number(days[one.key])]),
    );
    const before = rules.choices[card.name] ?? {}; // what was left alone goes on following how the programme teaches
    const own = Object.fromEntries(Object.entries(ways).filter(([key, way]) => key in before || way !== card.chosen[key]));
    change.mutate(
      {
        gates: gate === card.gate.on ? rules.gates : { ...rules.gates, [card.name]: gate },
        choices: { ...rules.choices, [card.name]: own },
        days: { ...rules.days, [card.name]: changed },
      },
      { onSuccess: onClose },
    );
  };
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <div className="two">
        {card.choices.map((one) => (
          <div key={one.key}>
            <ChoiceLine
              label={one.title}
              value={ways[one.key] ?? ""}
              options={one.options.map((option, i) => ({ value: option.key, words: `${option.label}${i === 0 ? " (usual)" : ""}` }))}
              onChange={(key) => setWays({ ...ways, [one.key]: key })}
            />
            <p>{one.options.find((option) => option.key === ways[one.key])?.reason}</p>
          </div>
        ))}
      </div>
      <Ticked words={`The gate: ${card.gate.good} good of the last ${card.gate.of} open the next note`} on={gate} onChange={setGate} />
      <h3>Days between (0 = each time)</h3>
      <div className="two">
        {care.tasks.map((one) => (
          <TextLine
            key={one.key}
            label={one.title}
            value={days[one.key] ?? ""}
            inputMode="numeric"
            onChange={(said) => setDays({ ...days, [one.key]: said })}
          />
        ))}
      </div>
      {change.error && <Said role="alert">{change.error.message}</Said>}
      {wrong && <Said role="alert">Days are whole numbers up to 730.</Said>}
      <div className="end">
        <Action main type="submit" isDisabled={wrong}>
          So we do it
        </Action>
        <Action onPress={onClose}>Leave it</Action>
      </div>
    </Form>
  );
}

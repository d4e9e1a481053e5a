import styled from "styled-components";

import type { LadderOut } from "../api/client";
import { ChoiceLine, TextLine } from "../design/Fields";
import { Stepper } from "../design/Stepper";
import { ARTICULATIONS, DYNAMICS, FLIPPING, POSITIONS } from "../shared/asked";
import { QUESTIONS, SCHOOLS } from "../shared/schools";
import type { Draft } from "./draft";
import { Panel } from "./Panel";

const Fields = styled(Panel)`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(165px, 1fr));
  gap: 10px 14px;
  align-items: start;
  > div {
    align-self: end;
  }
  h2 {
    grid-column: 1 / -1;
    margin-top: 8px;
  }
`;

const ASKED = { where: "where did the air go?", easier: "was it easier?", air: "was there enough air?" } as const;
const CONTRASTS = {
  none: "no",
  high_low: "high, then low",
  slumped_tall: "slumped, then tall",
  pinched_open: "pinched, then open",
  slack_slow: "slack, then slow",
} as const;
/** The schools of each question of which a verdict depends. */
const WAYS = {
  breathing_in: ["belly_then_ribs", "belly_only"],
  breathing_out: ["slow_and_even", "let_fall", "small_pushes"],
  between: ["no_pause", "short_set", "counted_pause"],
  fullness: ["over_all_counts", "counts_are_time"],
} as const;
const MOST_NOTES = 40;

const optionsOf = (words: Record<string, string>) => Object.entries(words).map(([value, text]) => ({ value, words: text }));

/** Half of the breaths for each side, so that their number is even. */
function twoSided(draft: Draft, contrast: Draft["contrast"]): Partial<Draft> {
  const even = (card: Draft["card"]) => ({ ...card, cycles: card.cycles % 2 ? card.cycles + 1 : card.cycles });
  return contrast === "none" ? { contrast } : { contrast, card: even(draft.card), sets: draft.sets.map(even) };
}

type Props = { draft: Draft; onChange: (part: Partial<Draft>) => void };

/** What a card asks beside its count: how one sits, what is played, and by which school it is judged where that is not the programme's. */
export function Besides({ draft, onChange }: Props) {
  const { check } = draft;
  const put = (part: Partial<LadderOut["cards"][number]["check"]>) => onChange({ check: { ...check, ...part } });
  const hold = draft.kind === "hold";
  return (
    <>
      <Fields className="desk">
        <h2>Beside the count</h2>
        <Stepper label="rung" value={draft.rung} by={1} onChange={(v) => onChange({ rung: Math.min(Math.max(v, 1), 20) })} />
        <TextLine label="Name of the rung" value={draft.title} onChange={(title) => onChange({ title })} />
        <ChoiceLine
          label="Position"
          value={check.position}
          options={optionsOf(POSITIONS)}
          onChange={(position) => put({ position: position as typeof check.position })}
        />
        <ChoiceLine
          label="Asked before the reading"
          value={draft.asks}
          options={optionsOf(ASKED)}
          onChange={(asks) => onChange({ asks: asks as Draft["asks"] })}
        />
        {!hold && (
          <ChoiceLine
            label="Both sides on purpose"
            value={draft.contrast}
            options={optionsOf(CONTRASTS)}
            onChange={(contrast) => onChange(twoSided(draft, contrast as Draft["contrast"]))}
          />
        )}
        <TextLine
          label="Words of the count-in"
          hint={wordsHint(draft)}
          value={draft.words.join(" ")}
          onChange={(text) => onChange({ words: text.split(/[\s,]+/).slice(0, 9) })}
        />
      </Fields>
      {check.with_instrument && (
        <Fields className="desk">
          <h2>
            What is played <span>told before the count; sound is not judged</span>
          </h2>
          <TextLine label="Notes" value={check.notes} maxLength={MOST_NOTES} onChange={(notes) => put({ notes })} />
          <ChoiceLine
            label="How loud"
            value={check.dynamic}
            options={optionsOf(DYNAMICS)}
            onChange={(dynamic) => put({ dynamic: dynamic as typeof check.dynamic })}
          />
          <ChoiceLine
            label="How it begins"
            value={check.articulation}
            options={optionsOf(ARTICULATIONS)}
            onChange={(articulation) => put({ articulation: articulation as typeof check.articulation })}
          />
        </Fields>
      )}
      {!hold && (
        <Fields className="desk">
          <h2>
            Judged on this card <span>as you teach, unless it says otherwise</span>
          </h2>
          {FLIPPING.map((question) => (
            <ChoiceLine
              key={question}
              label={QUESTIONS[question].title}
              value={check.taught[question] ?? ""}
              options={[
                { value: "", words: "as we teach" },
                ...WAYS[question].map((school) => ({ value: school, words: SCHOOLS[school]!.title.toLowerCase() })),
              ]}
              onChange={(school) => put({ taught: answered(check.taught, question, school) })}
            />
          ))}
        </Fields>
      )}
    </>
  );
}

/** The card's answers with one more, or with one less where it is as everywhere. */
function answered(taught: Draft["check"]["taught"], question: string, school: string): Draft["check"]["taught"] {
  const others = Object.entries(taught).filter(([one]) => one !== question);
  return Object.fromEntries(school ? [...others, [question, school]] : others);
}

function wordsHint({ words, card }: Draft): string {
  const said = words.filter(Boolean).length;
  if (said === 0) return "one a beat, such as one two ready in; none: numbers";
  return said === card.countin_beats + 1
    ? `the breath starts on "${words[said - 1]}"`
    : `${said} words on ${card.countin_beats} beats; one more falls on the first breath`;
}

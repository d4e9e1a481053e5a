import { useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";

import type { Group, Seat } from "../api/client";
import { useCards } from "../api/cards";
import { usePlanLesson } from "../api/queries";
import { checkWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { ChoiceLine, Said, TextLine } from "../design/Fields";
import { colour } from "../design/tokens";
import { mayBeAsked } from "../shared/asked";
import { dayWords } from "../shared/words";
import { fitting, leftWords } from "./words";

const Fields = styled(Form)`
  display: grid;
  gap: 12px;
  h2 {
    font-size: 20px;
    font-weight: 800;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 12px;
  }
  p {
    color: ${colour("soft")};
  }
`;
const SIDES = [
  { value: "right", words: "their right side" },
  { value: "left", words: "their left side" },
];
const OWN = "own";
const OWN_CARD = { value: OWN, words: "each on their own rung" };
const LEAST_EACH_MIN = 0.5;
const BEFORE_MIN = 4;
const AFTER_MIN = 6;

/** The next lesson in under a minute: what is asked, how long, and who fits, those first who need a look most. */
export function NextLesson({ who, now, group, onNone }: { who: Seat["student"][]; now: Date; group: Group | null; onNone: () => void }) {
  const go = useNavigate();
  const plan = usePlanLesson();
  const cards = useCards().data?.cards ?? [];
  const [asked, setAsked] = useState({
    title: `${group?.name ?? "Lesson"} of ${dayWords(now.toISOString().slice(0, 10))}`,
    card: OWN,
    minutes: "40",
    change: "45",
    side: "right" as "left" | "right",
  });
  const put = (key: Exclude<keyof typeof asked, "side">) => (value: string) => setAsked({ ...asked, [key]: value });
  const chosen = cards.filter(({ id, check }) => (asked.card === OWN ? check.kind === "counted_breathing" : String(id) === asked.card));
  const lying = asked.card !== OWN && chosen[0]?.check.position === "lying";
  const ids = who.filter((one) => mayBeAsked(one, { position: lying ? "lying" : "seated" })).map(({ id }) => id);
  const each_s = Math.max(0, ...chosen.map(({ lasts_s }) => lasts_s)) + Number(asked.change);
  const fit = Math.min(fitting(Number(asked.minutes), each_s / 60, BEFORE_MIN, AFTER_MIN) || 0, ids.length);
  const filmed = lying ? "filmed lying down" : "filmed";
  const fitWords = ids.length
    ? `${fit} of ${ids.length} who may be ${filmed} fit, ${Math.round(each_s)} s each, between ${BEFORE_MIN} minutes of setting up and ${AFTER_MIN} together. Never seen comes first, then the longest ago.`
    : `No family's yes to being ${filmed} is on record: print their letters first.`;
  const send = (event: FormEvent) => {
    event.preventDefault();
    plan.mutate(
      {
        title: asked.title,
        group_id: group?.id ?? null,
        card_id: asked.card === OWN ? null : Number(asked.card),
        student_ids: ids,
        minutes: Number(asked.minutes),
        each_min: Math.max(each_s / 60, LEAST_EACH_MIN),
        before_min: BEFORE_MIN,
        after_min: AFTER_MIN,
        side: asked.side,
        starts_at: null,
      },
      { onSuccess: ({ left }) => go("/", { state: { left: leftWords(left.map((id) => who.find((one) => one.id === id)?.name ?? "")) } }) },
    );
  };
  return (
    <Fields onSubmit={send}>
      <h2>The next lesson</h2>
      <TextLine label="What it is called" value={asked.title} onChange={put("title")} isRequired autoFocus />
      <ChoiceLine
        label="Count card"
        value={asked.card}
        onChange={put("card")}
        options={[
          OWN_CARD,
          ...cards.map(({ id, rung, title, check }) => ({ value: String(id), words: `${rung} ${title}: ${checkWords(check)}` })),
        ]}
      />
      <div className="pair">
        <TextLine label="Minutes" value={asked.minutes} onChange={put("minutes")} inputMode="numeric" isRequired />
        <TextLine label="Seconds to change chairs" value={asked.change} onChange={put("change")} inputMode="numeric" isRequired />
      </div>
      <ChoiceLine
        label="Toward the camera"
        value={asked.side}
        onChange={(side) => setAsked({ ...asked, side: side === "left" ? "left" : "right" })}
        options={SIDES}
      />
      <p>
        {asked.card === OWN && "Up a rung after three steady in a row, back after two to work on. "}
        {fitWords}
      </p>
      {plan.error && <Said role="alert">{plan.error.message}</Said>}
      <Action main large type="submit" isDisabled={!fit || !chosen.length || plan.isPending}>
        Open the lesson
      </Action>
      <Action large onPress={onNone}>
        Not now
      </Action>
    </Fields>
  );
}

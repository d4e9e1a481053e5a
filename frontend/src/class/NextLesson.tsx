import { useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";

import type { Group, Seat } from "../api/client";
import { useCards, usePlanLesson } from "../api/queries";
import { checkWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { ChoiceLine, Said, TextLine } from "../design/Fields";
import { colour } from "../design/tokens";
import { mayBeAsked } from "../shared/asked";
import { dayWords } from "../shared/words";
import { fitting } from "./words";

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
const BEFORE_MIN = 4;
const AFTER_MIN = 6;

/** The next lesson in under a minute: what is asked, how long, and who fits, those first who need a look most. */
export function NextLesson({ who, now, group, onNone }: { who: Seat["student"][]; now: Date; group: Group | null; onNone: () => void }) {
  const go = useNavigate();
  const plan = usePlanLesson();
  const cards = useCards().data?.cards ?? [];
  const [asked, setAsked] = useState({
    title: `${group?.name ?? "Lesson"} of ${dayWords(now.toISOString().slice(0, 10))}`,
    card: "",
    minutes: "40",
    each: "1.5",
    side: "right" as "left" | "right",
  });
  const put = (key: Exclude<keyof typeof asked, "side">) => (value: string) => setAsked({ ...asked, [key]: value });
  const card = cards.find(({ id }) => String(id) === asked.card) ?? cards[0];
  const ids = card ? who.filter((one) => mayBeAsked(one, card.check)).map(({ id }) => id) : [];
  const fit = Math.min(fitting(Number(asked.minutes), Number(asked.each), BEFORE_MIN, AFTER_MIN) || 0, ids.length);
  const filmed = card?.check.position === "lying" ? "filmed lying down" : "filmed";
  const fitWords = ids.length
    ? `${fit} of ${ids.length} who may be ${filmed} fit between ${BEFORE_MIN} minutes of setting up and ${AFTER_MIN} together. Never seen comes first, then the longest ago.`
    : `No family's yes to being ${filmed} is on record: print their letters first.`;
  const send = (event: FormEvent) => {
    event.preventDefault();
    plan.mutate(
      {
        title: asked.title,
        group_id: group?.id ?? null,
        card_id: card?.id ?? 0,
        student_ids: ids,
        minutes: Number(asked.minutes),
        each_min: Number(asked.each),
        before_min: BEFORE_MIN,
        after_min: AFTER_MIN,
        side: asked.side,
        starts_at: null,
      },
      { onSuccess: () => go("/") },
    );
  };
  return (
    <Fields onSubmit={send}>
      <h2>The next lesson</h2>
      <TextLine label="What it is called" value={asked.title} onChange={put("title")} isRequired autoFocus />
      <ChoiceLine
        label="Count card"
        value={String(card?.id ?? "")}
        onChange={put("card")}
        options={cards.map(({ id, rung, title, check }) => ({ value: String(id), words: `${rung} ${title}: ${checkWords(check)}` }))}
      />
      <div className="pair">
        <TextLine label="Minutes" value={asked.minutes} onChange={put("minutes")} inputMode="numeric" isRequired />
        <TextLine label="Minutes a student" value={asked.each} onChange={put("each")} inputMode="decimal" isRequired />
      </div>
      <ChoiceLine
        label="Toward the camera"
        value={asked.side}
        onChange={(side) => setAsked({ ...asked, side: side === "left" ? "left" : "right" })}
        options={SIDES}
      />
      <p>{fitWords}</p>
      {plan.error && <Said role="alert">{plan.error.message}</Said>}
      <Action main large type="submit" isDisabled={!fit || !cards.length || plan.isPending}>
        Open the lesson
      </Action>
      <Action large onPress={onNone}>
        Not now
      </Action>
    </Fields>
  );
}

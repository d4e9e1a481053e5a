import { useRef, useState } from "react";
import styled from "styled-components";

import type { Card, LadderCard, LadderOut } from "../api/client";
import { useAllowEmpty, useCards, useDeleteCard, usePutCard } from "../api/cards";
import { Action } from "../design/Action";
import { Said } from "../design/Fields";
import { Joined } from "../design/Joined";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { Clicker } from "../film/clicker";
import { besidesWords } from "../shared/asked";
import { BigBreath } from "./BigBreath";
import { Besides } from "./Besides";
import { asKind, cardsOf, draftOf, KINDS, rungOf, sumOf, tempoOf, withCard, withOneMore, type Draft, type Kind } from "./draft";
import { Demonstration } from "./Demonstration";
import { Ladder } from "./Ladder";
import { Sets } from "./Sets";
import { Stepper } from "../design/Stepper";
import { WholeRun } from "./WholeRun";

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(320px, 440px) minmax(0, 1fr);
  gap: 40px;
  padding-top: 16px;
  h1 {
    font-size: 24px;
    font-weight: 800;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
  @media print {
    display: block;
    > aside,
    button,
    .desk {
      display: none;
    }
  }
`;
const Open = styled.section`
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  h1 {
    margin-right: auto;
  }
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 10px 14px;
`;
const Quiet = styled.p`
  aside > & {
    margin-top: 18px;
  }
  color: ${colour("soft")};
  font-size: 15px;
`;
/** The ladder of count cards, and one of them open to be changed. */
export function CardsPage({ may }: { may: boolean }) {
  const cards = useCards();
  useTitle("Count cards");
  if (cards.isPending) return null;
  if (!cards.data) return <Message title="The cards did not load" text={cards.error.message} onRetry={() => cards.refetch()} />;
  return <Cards found={cards.data} may={may} />;
}

function Cards({ found, may }: { found: LadderOut; may: boolean }) {
  const [chosen, setChosen] = useState<number | null>(found.cards[0]?.id ?? null);
  const [adding, setAdding] = useState<LadderCard | null>(null);
  const card = adding ?? found.cards.find(({ id }) => id === chosen) ?? found.cards[0];
  const choose = (id: number) => {
    setAdding(null);
    setChosen(id);
  };
  const step = (by: number) => {
    const at = found.cards.findIndex(({ id }) => id === card?.id);
    const next = found.cards[(at + by + found.cards.length) % found.cards.length];
    if (next) choose(next.id);
  };
  useKeys("Count cards", [
    { key: "ArrowDown", shown: "↓", does: "next card", run: () => step(1) },
    { key: "ArrowUp", shown: "↑", does: "card before", run: () => step(-1) },
    { key: "a", does: "add a card like this one", run: () => card && setAdding({ ...card, id: 0 }), off: !may },
  ]);
  return (
    <Page>
      <aside>
        <Head>
          <h1>Count cards</h1>
          {may && (
            <Action letter="A" onPress={() => card && setAdding({ ...card, id: 0 })}>
              Add one
            </Action>
          )}
        </Head>
        <Ladder cards={found.cards} chosen={adding ? null : (card?.id ?? null)} onChoose={choose} />
        <EmptySwitch allowed={found.empty_allowed} may={may} />
      </aside>
      {card && <OneCard key={adding ? "new" : card.id} card={card} found={found} may={may} onKept={choose} />}
    </Page>
  );
}

const KIND_WORDS: Record<Kind, string> = { counted_breathing: "check", drill: "drill", hold: "hold" };
/** What a card asks for beside its count. */
const SWITCHES = [
  ["with_instrument", "With the instrument"],
  ["full_breath", "Their full breath"],
] as const;

const alike = (one: Draft | null, other: Draft | null) => JSON.stringify(one) === JSON.stringify(other);

type OneCardProps = { card: LadderCard; found: LadderOut; may: boolean; onKept: (id: number) => void };

function OneCard({ card, found, may, onKept }: OneCardProps) {
  const put = usePutCard();
  const remove = useDeleteCard();
  const was = draftOf(card);
  const [draft, setDraft] = useState<Draft | null>(was);
  const [known, setKnown] = useState(was);
  if (!alike(known, was)) {
    setKnown(was); // somebody else kept it otherwise: shown where nothing was changed here
    if (alike(draft, known)) setDraft(was);
  }
  const [open, setOpen] = useState(0);
  const one = draft && (cardsOf(draft)[open] ?? draft.card);
  const hear = useHear(one);
  const hold = draft?.kind === "hold";
  const fresh = card.id === 0;
  const changed = fresh || !alike(draft, was);
  const keep = () => draft && changed && put.mutate({ id: card.id || null, draft }, { onSuccess: (kept) => onKept(kept.id) });
  useKeys("This card", [
    { key: "Enter", does: "keep this card", run: keep, off: !may || !changed },
    { key: "l", does: "hear it: count-in and clicks", run: hear.turn },
    { key: "p", does: "print it", run: () => window.print() },
    { key: "z", does: "as it was", run: () => setDraft(was), off: !changed || fresh },
    { key: "x", does: "delete this card", run: () => remove.mutate(card.id), off: !may || fresh || found.cards.length < 2 },
  ]);
  if (!draft || !one) return null;
  const besides = besidesWords(draft.check);
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const setCard = (part: Partial<Draft["card"]>) => setDraft(withCard(draft, open, { ...one, ...part }));
  const addSet = () => {
    const more = withOneMore(draft);
    setDraft(more);
    setOpen(more.sets.length);
  };
  const turnKind = (kind: Kind) => {
    setDraft({ ...asKind(draft, kind), ...(fresh ? rungOf(found.cards, kind) : {}) }); // a card that stands on a rung stays there
  };
  const lessSets = () => {
    set({ sets: draft.sets.slice(0, -1) });
    setOpen(0);
  };
  return (
    <Open aria-label="The open card">
      <Head>
        <h1>{draft.title || "A new card"}</h1>
        <Action letter="L" pressed={hear.on} onPress={hear.turn}>
          {hear.on ? "Stop" : "Hear it"}
        </Action>
        <Action letter="P" onPress={() => window.print()}>
          Print
        </Action>
        {may && changed && !fresh && (
          <Action letter="Z" onPress={() => setDraft(was)}>
            As it was
          </Action>
        )}
        {may && (
          <Action main letter="Enter" isDisabled={!changed || put.isPending} onPress={keep}>
            Keep this card
          </Action>
        )}
      </Head>
      <Line>
        <Stepper label="beats a minute" value={one.tempo_bpm} by={2} onChange={(v) => setCard({ tempo_bpm: tempoOf(v) })} />
        <Stepper
          label={hold ? "raises" : "breaths"}
          value={one.cycles}
          by={1}
          onChange={(v) => setCard({ cycles: Math.min(Math.max(v, 1), found.most_in_a_row) })}
        />
        <Stepper
          label="count-in"
          value={one.countin_beats}
          by={1}
          onChange={(v) => setCard({ countin_beats: Math.min(Math.max(v, 1), 8) })}
        />
        {may && (
          <Joined role="group" aria-label="What kind of card it is">
            {KINDS.map((kind) => (
              <Action key={kind} pressed={draft.kind === kind} main={draft.kind === kind} onPress={() => turnKind(kind)}>
                {KIND_WORDS[kind]}
              </Action>
            ))}
          </Joined>
        )}
        {may && !hold && (
          <Action pressed={one.exhale_beats === null} onPress={() => setCard({ exhale_beats: one.exhale_beats === null ? 6 : null })}>
            Out without end
          </Action>
        )}
        {may &&
          !hold &&
          SWITCHES.map(([key, words]) => (
            <Action key={key} pressed={draft.check[key]} onPress={() => set({ check: { ...draft.check, [key]: !draft.check[key] } })}>
              {words}
            </Action>
          ))}
      </Line>
      <BigBreath
        card={one}
        hold={hold}
        was={changed && was ? (cardsOf(was)[open] ?? null) : null}
        emptyAllowed={found.empty_allowed}
        onChange={(now) => setCard(now)}
      />
      <Quiet>
        <span className="desk">Drag a corner, or choose it with Tab and use the arrow keys: whole beats, with Shift quarters. </span>
        {hold ? "Up to the mouth, kept there, and down to rest. Tired arms? A longer rest." : "Light-headed? Stop, breathe normally, sit."}
        {draft.check.full_breath && " Asks for a comfortable full breath: a student's others are held against it."}
        {draft.kind === "drill" && " A drill is practice: it is read and kept, and says nothing of who needs to be seen."}
      </Quiet>
      {besides && <Quiet>This card: {besides}.</Quiet>}
      <Sets hold={hold} cards={cardsOf(draft)} open={open} may={may} onOpen={setOpen} onAdd={addSet} onLess={lessSets} />
      <WholeRun hold={hold} cards={cardsOf(draft)} most={found.most_in_a_row} rest_s={found.rest_s} />
      <Besides draft={draft} onChange={set} />
      {may && !fresh && <Demonstration cardId={card.id} shown={card.check.shown} />}
      {(put.error ?? remove.error) && <Said role="alert">{(put.error ?? remove.error)?.message}</Said>}
      {may && !fresh && found.cards.length > 1 && (
        <Line className="desk">
          <Action letter="X" onPress={() => remove.mutate(card.id)}>
            Delete this card
          </Action>
        </Line>
      )}
    </Open>
  );
}

/** The run's clicks, to be heard. */
function useHear(card: Card | null) {
  const clicker = useRef<Clicker | null>(null);
  const ending = useRef(0);
  const [on, setOn] = useState(false);
  const stop = () => {
    clicker.current?.stop();
    clearTimeout(ending.current);
    setOn(false);
  };
  const turn = () => {
    if (on || !card) return stop();
    clicker.current ??= new Clicker(false);
    void clicker.current.context.resume();
    const beats = Math.ceil((sumOf(card).whole * card.tempo_bpm) / 60);
    clicker.current.start(60 / card.tempo_bpm, beats, 4);
    ending.current = window.setTimeout(stop, 1000 * sumOf(card).whole + 600);
    setOn(true);
  };
  return { on, turn };
}

/** Cards that ask to stay empty are off until somebody switches them on. */
function EmptySwitch({ allowed, may }: { allowed: boolean; may: boolean }) {
  const allow = useAllowEmpty();
  return (
    <>
      <Quiet>
        {allowed
          ? "Cards may ask to stay empty after breathing out: short, seated, never alone."
          : "Cards that ask to stay empty are switched off."}
      </Quiet>
      {may && <Action onPress={() => allow.mutate(!allowed)}>{allowed ? "Switch them off" : "Switch them on"}</Action>}
    </>
  );
}

import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Card } from "../api/client";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import { breathBeats, secondsOf } from "./draft";
import { Panel } from "./Panel";
import { Wedge } from "./Wedge";

const Table = styled(Panel)`
  table {
    width: 100%;
    border-collapse: collapse;
    font-variant-numeric: tabular-nums;
  }
  th {
    font-weight: 400;
    color: ${colour("soft")};
    text-align: right;
  }
  td {
    text-align: right;
    border-top: 1px solid ${colour("hair")};
    padding: 2px 6px;
    white-space: nowrap;
  }
  td:first-child {
    text-align: left;
  }
  tr[data-open] td {
    background: ${colour("wash")};
  }
  svg {
    display: block;
  }
  @media (max-width: 700px) {
    .wide {
      display: none;
    }
  }
`;
const Number = styled(Button)`
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  font-weight: 800;
  min-width: 34px;
  min-height: 32px;
  cursor: pointer;
`;
const WIDTH = 260;
const HEIGHT = 24;

type SetsProps = {
  hold: boolean;
  cards: Card[];
  open: number;
  may: boolean;
  onOpen: (at: number) => void;
  onAdd: () => void;
  onLess: () => void;
};

/** The sets of a card, a row each with its seconds; the one that is open stands above as the big breath. Each is filmed as a clip of its own. */
export function Sets({ hold, cards, open, may, onOpen, onAdd, onLess }: SetsProps) {
  const longest_s = Math.max(...cards.map((card) => secondsOf(breathBeats(card), card)));
  const s = (beats: number | null, card: Card) => (beats === null ? "open" : `${secondsOf(beats, card).toFixed(2)} s`);
  return (
    <Table aria-label="The sets">
      <h2>
        The sets <span>{setsWords(cards)}</span>
      </h2>
      {cards.length > 1 && (
        <table>
          <thead>
            <tr>
              <td />
              <td className="wide" />
              <th scope="col">{hold ? "up" : "in"}</th>
              <th scope="col">{hold ? "keep" : "out"}</th>
              <th scope="col">{hold ? "all raises" : "all breaths"}</th>
            </tr>
          </thead>
          <tbody>
            {cards.map((card, at) => (
              <tr key={at} data-open={at === open || undefined}>
                <td>
                  <Number aria-label={`set ${at + 1}`} aria-pressed={at === open} onPress={() => onOpen(at)}>
                    {at + 1}
                  </Number>
                </td>
                <td className="wide">
                  <svg width={WIDTH} height={HEIGHT} aria-hidden>
                    <Wedge
                      card={card}
                      x={(beat) => 2 + ((WIDTH - 4) * secondsOf(beat, card)) / longest_s}
                      middle={HEIGHT / 2}
                      half={9}
                      hold={hold}
                    />
                  </svg>
                </td>
                <td>{s(card.inhale_beats, card)}</td>
                <td>{s(card.exhale_beats, card)}</td>
                <td>
                  {card.cycles} × {breathBeats(card)} beats, <b>{secondsOf(card.cycles * breathBeats(card), card).toFixed(1)} s</b>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {may && (
        <p className="desk">
          <Action onPress={onAdd}>Add a set</Action> {cards.length > 1 && <Action onPress={onLess}>Take the last one away</Action>}
        </p>
      )}
    </Table>
  );
}

function setsWords(cards: Card[]): string {
  if (cards.length === 1) return "one; more can follow, each with its own counts and tempo";
  const less = cards.every((card, i) => i === 0 || card.inhale_beats === cards[i - 1]!.inhale_beats - 1);
  const same = cards.every((card) => card.exhale_beats === cards[0]!.exhale_beats);
  return less && same ? "the inhale shrinks by 1 beat, the exhale stays" : "each filmed as a clip of its own";
}

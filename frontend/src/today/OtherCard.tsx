import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";

import type { LadderCard, Seat } from "../api/client";
import { useCards, useGiveCard } from "../api/cards";
import { checkWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Shade, Sheet } from "../design/Sheet";
import { firstName } from "../shared/words";

const Cards = styled(Sheet)`
  width: min(640px, 92vw);
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
    gap: 8px;
    margin: 14px 0 18px;
  }
  li > button {
    width: 100%;
  }
`;

/** Another card of the ladder for the student on the chair alone: two taps, the others keep what was planned. */
export function OtherCard({ seat }: { seat: Seat }) {
  const [open, setOpen] = useState(false);
  useKeys("This chair", [{ key: "k", does: "another card for this chair", run: () => setOpen(true) }]);
  return (
    <>
      <Action letter="K" onPress={() => setOpen(true)}>
        Other card
      </Action>
      <Shade isOpen={open} onOpenChange={setOpen} isDismissable>
        <Cards>
          <Dialog>
            <Ladder seat={seat} onDone={() => setOpen(false)} />
          </Dialog>
        </Cards>
      </Shade>
    </>
  );
}

function Ladder({ seat, onDone }: { seat: Seat; onDone: () => void }) {
  const cards = useCards();
  const give = useGiveCard();
  const trouble = give.error ?? cards.error;
  return (
    <>
      <Heading slot="title">Another card for {firstName(seat.student.name)}</Heading>
      <ul>
        {cards.data?.cards.map((card, i) => (
          <li key={card.id}>
            <Action
              large
              autoFocus={i === 0}
              pressed={card.check.name === seat.check.name}
              isDisabled={give.isPending}
              onPress={() => give.mutate({ seatId: seat.id, cardId: card.id }, { onSuccess: onDone })}
            >
              {rungWords(card)}
            </Action>
          </li>
        ))}
      </ul>
      {trouble && <p role="alert">{trouble.message}</p>}
      <Action onPress={onDone}>Leave it</Action>
    </>
  );
}

const rungWords = ({ rung, check }: LadderCard) => `${rung}: ${checkWords(check)}`;

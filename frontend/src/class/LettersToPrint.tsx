import styled, { createGlobalStyle } from "styled-components";

import type { Member } from "../api/client";
import { PURPOSES } from "./consent";

const OnlyLetters = createGlobalStyle`
  @media print {
    body * { visibility: hidden; }
    .letters, .letters * { visibility: visible; }
    .letters { position: absolute; inset: 0 0 auto 0; }
  }
`;
const Letters = styled.div`
  display: none;
  @media print {
    display: block;
    color: black;
    font-size: 12pt;
    article {
      break-after: page;
      padding: 12mm;
      display: grid;
      gap: 5mm;
    }
    h3 {
      font-size: 16pt;
    }
    li {
      display: grid;
      grid-template-columns: 22mm 22mm 1fr;
      padding: 3mm 0;
      border-bottom: 0.3mm solid black;
    }
    ul {
      list-style: none;
    }
  }
`;
/** A letter for every family whose answer is missing or ends soon: what is asked, by purpose, and what becomes of the clip. */
export function LettersToPrint({ members, programme }: { members: Member[]; programme: string }) {
  return (
    <>
      <OnlyLetters />
      <Letters className="letters" aria-hidden>
        {members.map(({ student }) => (
          <article key={student.id}>
            <p>{programme}</p>
            <h3>Filming {student.name} in the band lesson</h3>
            <p>
              In the lesson we film each student for about half a minute to see how the breath moves, and to say one useful thing about it.
              The clip stays on the school&apos;s computer, is seen by the teachers of the class alone, and is deleted when you say so, with
              every copy of it. Other children who come into the picture are blurred in it. A child may say &quot;not today&quot; at any
              time, and it costs nothing. The school&apos;s policy and the law come first.
            </p>
            <p>Please answer each line; you may take an answer back whenever you like.</p>
            <ul>
              {PURPOSES.map(({ purpose, asks }) => (
                <li key={purpose}>
                  <span>☐ yes</span>
                  <span>☐ no</span>
                  <span>{asks}</span>
                </li>
              ))}
            </ul>
            <p>until (day) ____________________</p>
            <p>
              Please tell us of asthma, a cold, recent illness or surgery, heart or lung conditions, braces or dental work: we follow what
              your doctor says. Nothing here is medical advice.
            </p>
            <p>name, date, signature ________________________________________</p>
          </article>
        ))}
      </Letters>
    </>
  );
}

import { useState } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";

import type { Section } from "../api/client";
import { useBegin, useBench } from "../api/bench";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { Head } from "./Head";
import { Plain } from "./Plain";
import { Progress } from "./Progress";
import { useNow } from "./useNow";
import { WaysSheet } from "./WaysSheet";
import { clock, runOf, standingWords, waitsLongest, waitsSince } from "./way";

const Top = styled(Head)`
  nav {
    display: flex;
    gap: 18px;
    margin-left: auto;
    font-size: 15px;
  }
  nav a {
    color: ${colour("soft")};
  }
`;
const List = styled.ol`
  border-top: 1.5px solid ${colour("ink")};
`;
const Row = styled.li`
  display: grid;
  grid-template-columns: 130px 210px minmax(60px, 1fr) auto;
  gap: 8px 24px;
  align-items: center;
  padding: 9px 0;
  border-bottom: 1px solid ${colour("hair")};
  h2 {
    font-size: 19px;
    font-weight: 700;
  }
  p {
    color: ${colour("soft")};
    font-size: 16px;
  }
  b {
    color: ${colour("ink")};
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
  }
`;
const HEADER_KEYS = 9;

/** Every section of the class: where it stands, who waits, what is due. */
export function BenchPage({ may }: { may: boolean }) {
  const bench = useBench();
  useTitle("Bench");
  if (bench.isPending)
    return (
      <p className="unseen" role="status">
        Loading the bench
      </p>
    );
  if (!bench.data) return <Message title="The bench did not load" text={bench.error.message} onRetry={() => bench.refetch()} />;
  if (!bench.data.sections.length)
    return (
      <Message
        quiet
        title="Nobody plays an instrument yet"
        text="Put the class together on the page Class, each with an instrument; then their step cards are here."
      />
    );
  return <Sections sections={bench.data.sections} may={may} />;
}

function Sections({ sections, may }: { sections: Section[]; may: boolean }) {
  const [ways, setWays] = useState<Section | null>(null);
  const go = useNavigate();
  const begin = useBegin();
  const first = waitsLongest(sections);
  const start = (section: Section, phase: "together" | "away") =>
    begin.mutate({ card: section.card, phase }, { onSuccess: () => go(`/bench/${section.card}/${phase}`) });
  useKeys("Bench", [
    ...sections.slice(0, HEADER_KEYS).map((section, i) => ({
      key: String(i + 1),
      does: `${section.section.toLowerCase()}: put together`,
      run: () => start(section, "together"),
    })),
    { key: "w", does: "the section that waits longest", run: () => first && go(`/bench/${first.card}/${phaseOf(first)}`), off: !first },
  ]);
  return (
    <>
      <Top>
        <h1>The instrument bench</h1>
        <p>{first ? `${first.section} wait for help.` : "From the closed case to the first note, and back into the case."}</p>
        <nav aria-label="The bench's record">
          <a href="/api/bench/record/record.csv">everything on record (CSV)</a>
          <a href="/api/bench/care/due.ics">care as a calendar</a>
        </nav>
      </Top>
      {begin.error && <p role="alert">{begin.error.message}</p>}
      <List>
        {sections.map((section, i) => (
          <SectionRow
            key={section.card}
            section={section}
            letter={i < HEADER_KEYS ? String(i + 1) : undefined}
            onBegin={(phase) => start(section, phase)}
            onWays={may ? () => setWays(section) : undefined}
          />
        ))}
      </List>
      <WaysSheet section={ways} onClose={() => setWays(null)} />
    </>
  );
}

const phaseOf = (section: Section) => (runOf(section, "together") ? "together" : "away");

type RowProps = {
  section: Section;
  letter: string | undefined;
  onBegin: (phase: "together" | "away") => void;
  onWays: (() => void) | undefined;
};

function SectionRow({ section, letter, onBegin, onWays }: RowProps) {
  const go = useNavigate();
  const now = useNow();
  const since = Math.min(...section.runs.map((run) => waitsSince(run) ?? Infinity));
  const here = section.chairs.filter((one) => !one.away);
  const together = runOf(section, "together") ? "Go on" : "Put together";
  return (
    <Row>
      <h2>{section.section}</h2>
      <p>
        {here.length === 1 ? "1 chair" : `${here.length} chairs`},{" "}
        {since < Infinity ? <b>help comes, waiting {clock((now - since) / 1000)}</b> : standingWords(section)}
      </p>
      <Progress section={section} />
      <div>
        <Action
          main={!runOf(section, "away")}
          letter={letter}
          onPress={() => onBegin("together")}
          aria-label={`${together}, ${section.section}`}
        >
          {together}
        </Action>
        <Action
          onPress={() => here[0] && go(`/bench/notes/${here[0].id}`)}
          isDisabled={!here.length}
          aria-label={`First notes, ${section.section}`}
        >
          First notes
        </Action>
        <Action onPress={() => onBegin("away")} aria-label={`Put away, ${section.section}`}>
          Put away
        </Action>
        <CareLink section={section} />
        {onWays && (
          <Ways onPress={onWays} aria-label={`How we do it, ${section.section}`}>
            our ways
          </Ways>
        )}
      </div>
    </Row>
  );
}

const Ways = styled(Plain)`
  padding: 9px 6px;
`;
const Quiet = styled(Link)`
  align-self: center;
  min-width: 86px;
  padding: 9px 6px;
`;

function CareLink({ section }: { section: Section }) {
  return (
    <Quiet to={`/bench/care/${section.card}`} aria-label={`Care, ${section.section}, ${section.due} due`}>
      care{section.due ? `, ${section.due} due` : ""}
    </Quiet>
  );
}

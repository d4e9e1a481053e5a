import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Take, Today } from "../api/client";
import { useTakesOf } from "../api/bench";
import { useFits } from "../api/help";
import { usePast, useReports, useResults } from "../api/past";
import { useMe, useJudgedRows, useStudents, useToday } from "../api/queries";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { PHONE } from "../design/sizes";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { mayBeAsked } from "../shared/asked";
import { pastWords } from "../shared/past";
import { withUnit } from "../shared/valueWords";
import { dayWords, firstName, instrumentWords } from "../shared/words";
import { daysOf, rowsOf, windowOf, type Day } from "./days";
import { Held } from "./Held";
import { Score } from "./Score";

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
  gap: 0 30px;
  align-items: start;
  padding-top: 8px;
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Head = styled.div`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 4px 0 10px;
  @media ${PHONE} {
    order: -2;
  }
  h1 {
    font-size: 25px;
    font-weight: 800;
  }
  p {
    flex: 1 1 260px;
    color: ${colour("soft")};
  }
`;
const Aside = styled.aside`
  display: grid;
  gap: 4px;
  h2 {
    font-size: 16px;
    font-weight: 650;
    color: ${colour("soft")};
  }
  h2:not(:first-child) {
    margin-top: 18px;
    border-bottom: 1px solid ${colour("ink")};
    padding-bottom: 4px;
  }
  .next {
    font-size: 24px;
    font-weight: 750;
    line-height: 1.15;
    text-wrap: balance;
  }
  li {
    padding: 5px 0;
    border-bottom: 1px solid ${colour("hair")};
  }
  @media ${PHONE} {
    order: -1; /* what comes next, before the weeks */
    margin-bottom: 18px;
  }
`;
const Paging = styled.div`
  display: flex;
  gap: 10px;
  margin-top: 12px;
`;
const MOST_DAYS = 6;

/** The record of one student: a column a day, what was read in the rows, every mark leads to its take. The class never sees it. */
export function StudentPage({ chalk }: { chalk: boolean }) {
  const id = Number(useParams().id);
  const go = useNavigate();
  const takes = useTakesOf(id);
  const today = useToday();
  const everyone = useStudents(takes.data?.takes.length === 0);
  const student = takes.data?.takes[0]?.student ?? everyone.data?.find((one) => one.id === id);
  useTitle(student?.name ?? "A student");
  if (chalk)
    return (
      <Message quiet title="A student's record" text="It is not shown where the class can see it. Press D on the teacher's own screen." />
    );
  if (takes.isPending) return null;
  if (!takes.data) return <Message title="The record did not load" text={takes.error.message} onRetry={() => takes.refetch()} />;
  if (!takes.data.takes.length || !student)
    return (
      <>
        <Message title={student?.name ?? "No record yet"} text="Nothing was filmed of this student yet. Film a first breath from Today." />
        {student && <Held student={student} onGone={() => go("/class")} />}
      </>
    );
  return <Record key={id} student={student} takes={takes.data.takes} today={today.data} />;
}

type RecordProps = { student: Take["student"]; takes: Take[]; today: Today | undefined };

function Record({ student, takes, today }: RecordProps) {
  const go = useNavigate();
  const [back, setBack] = useState(0);
  const days = daysOf(takes, useMe().data?.programme?.time_zone ?? "UTC");
  const shown = windowOf(days, MOST_DAYS, back);
  const results = useResults(student.id).data?.results ?? [];
  const judged = useJudgedRows().data ?? [];
  const reports = useReports(shown.map(({ take }) => take));
  const rows = rowsOf(shown, results, judged);
  const seat = today?.lesson?.seats.find((one) => one.student.id === student.id);
  const films = seat !== undefined && mayBeAsked(student, seat.check) && seat.check.card !== null;
  const older = days.length - back > MOST_DAYS;
  const page = (by: number) => setBack(Math.min(Math.max(back + by, 0), Math.max(days.length - MOST_DAYS, 0)));
  useKeys("The record", [
    { key: "f", does: "film this student", run: () => seat && go(`/film/${seat.id}`), off: !films },
    { key: "ArrowLeft", shown: "←", does: "earlier days", run: () => page(1), off: !older },
    { key: "ArrowRight", shown: "→", does: "later days", run: () => page(-1), off: back === 0 },
  ]);
  return (
    <Page>
      <Head>
        <h1>{student.name}</h1>
        <p>
          {instrumentWords(student.instrument)} · {takesWords(takes.length, days.length)} ·{" "}
          {student.may_film_until ? `may be filmed until ${dayWords(student.may_film_until)}` : "not to be filmed"}
        </p>
        {films && (
          <Action main letter="F" onPress={() => go(`/film/${seat.id}`)}>
            Film {firstName(student.name)}
          </Action>
        )}
      </Head>
      <div>
        <Score days={shown} rows={rows} reports={reports} />
        {days.length > MOST_DAYS && (
          <Paging>
            <Action letter="←" isDisabled={!older} onPress={() => page(1)}>
              Earlier
            </Action>
            <Action letter="→" isDisabled={back === 0} onPress={() => page(-1)}>
              Later
            </Action>
          </Paging>
        )}
      </div>
      <Beside student={student} last={days.at(-1)!} />
      <Held student={student} onGone={() => go("/class")} />
    </Page>
  );
}

const takesWords = (takes: number, days: number) => `${takes} ${takes === 1 ? "take" : "takes"} on ${days} ${days === 1 ? "day" : "days"}`;

/** What comes next, what fitted, and what is not measured. */
function Beside({ student, last }: { student: Take["student"]; last: Day }) {
  const past = usePast([last.take]).data?.[last.take.id];
  const fits = useFits(student.id, true).data?.fits ?? [];
  const judged = useJudgedRows().data ?? [];
  const spared = judged.filter(({ criterion }) => student.exempt.includes(criterion));
  const cue = last.take.headline?.cue;
  const words = past ? pastWords(past) : "";
  return (
    <Aside aria-label="What comes next">
      <h2>Say next</h2>
      {cue ? <p className="next">{cue}</p> : <Link to={`/take/${last.take.id}`}>see the last reading</Link>}
      {words && <p>{words}</p>}
      {student.note && <p>{student.note}</p>}
      {fits.length > 0 && (
        <>
          <h2>What fits</h2>
          <ul>
            {fits.map(({ key, title, value, unit }) => (
              <li key={key}>
                {title} {value}
                {withUnit(unit)}
              </li>
            ))}
          </ul>
        </>
      )}
      {spared.length > 0 && (
        <>
          <h2>Not measured</h2>
          <ul>
            {spared.map(({ criterion, title }) => (
              <li key={criterion}>{title}</li>
            ))}
          </ul>
        </>
      )}
    </Aside>
  );
}

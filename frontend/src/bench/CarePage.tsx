import { useState } from "react";
import { NavLink, useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { BenchCard, Care, CareTask } from "../api/client";
import { useBench, useCard, useCare, useLogCare } from "../api/bench";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { firstName } from "../shared/words";
import { Head } from "./Head";
import { CareChairs } from "./CareChairs";
import { CareRow } from "./CareRow";
import { How } from "./How";
import { Lid } from "./Lid";
import { Lines } from "./Lines";
import { Little } from "./Little";
import { PassportSheet } from "./PassportSheet";
import { Repairs } from "./Repairs";
import { OnThePage } from "./print";
import { inOrder, lettersOf, logWords, saidFirst } from "./due";

const Top = styled(Head)`
  nav {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 20px;
    color: ${colour("soft")};
  }
  nav a {
    color: ${colour("soft")};
    text-decoration: none;
    padding-bottom: 3px;
    border-bottom: 3px solid transparent;
  }
  nav a[aria-current] {
    color: ${colour("ink")};
    font-weight: 650;
    border-bottom-color: ${colour("ink")};
  }
`;
const Stage = styled.div<{ $tall: boolean }>`
  display: grid;
  grid-template-columns: ${(p) => (p.$tall ? "minmax(0, 1fr) minmax(0, 1.1fr)" : "minmax(0, 1.7fr) minmax(0, 1fr)")};
  gap: 30px;
  figure {
    height: ${(p) => (p.$tall ? "380px" : "330px")};
  }
  h2 {
    font-size: clamp(24px, 2.6vw, 34px);
    line-height: 1.15;
    font-weight: 750;
    text-wrap: balance;
    margin-bottom: 14px;
  }
  .careful {
    border-left: 4px solid ${colour("ink")};
    padding-left: 14px;
    font-size: 17px;
    margin-top: 14px;
  }
  .key {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    margin-top: 14px;
    color: ${colour("soft")};
    font-size: 16px;
  }
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 18px 0;
`;

type Undo = { undo: string; task: string; count: number; at: string };
const GLOBAL = "hbjygdqzp";

/** What is due for a section's instruments: one tap logs it for all, a chair that is tapped first is left out. */
export function CarePage() {
  const { card = "" } = useParams();
  const care = useCare(card);
  const shown = useCard(card);
  const others = useBench(); // whose line stands over what is due: late, it would push that from under a finger
  useTitle(care.data ? `${care.data.section}, care` : "Care");
  const error = care.error ?? shown.error;
  if (error && (!care.data || !shown.data))
    return <Message title="The care list did not load" text={error.message} onRetry={() => (care.refetch(), shown.refetch())} />;
  if (!care.data || !shown.data || others.isPending)
    return (
      <p className="unseen" role="status">
        Loading what is due
      </p>
    );
  return <CareOf key={card} care={care.data} card={shown.data} />;
}

function CareOf({ care, card }: { care: Care; card: BenchCard }) {
  const go = useNavigate();
  const { log, undo } = useLogCare(care.card);
  const [out, setOut] = useState<number[]>([]);
  const [last, setLast] = useState<Undo | null>(null);
  const [opened, setOpened] = useState<number | null>(null);
  const tasks = inOrder(care.tasks);
  const letters = lettersOf(tasks, GLOBAL);
  const said = saidFirst(care.tasks);
  const here = care.chairs.filter((one) => !one.away);
  const turn = (student: number) => setOut(out.includes(student) ? out.filter((one) => one !== student) : [...out, student]);
  const done = (task: CareTask) =>
    log.mutate(
      { task: task.key, but: out },
      { onSuccess: (logged) => setLast({ undo: logged.undo, task: task.key, count: logged.students.length, at: timeOf(new Date()) }) },
    );
  const back = () => last && undo.mutate(last.undo, { onSettled: () => setLast(null) });
  const left = out.map((id) => firstName(care.chairs.find((one) => one.id === id)?.name ?? ""));
  useKeys("Care", [
    ...tasks.map((task, i) => ({
      key: letters[i] ?? "",
      does: `${task.does.toLowerCase()}: ${task.title.toLowerCase()}`,
      run: () => done(task),
    })),
    ...care.chairs.slice(0, 9).map((one, i) => ({ key: String(i + 1), does: `leave ${one.name} out`, run: () => turn(one.id) })),
    { key: "z", does: "undo what was logged last", run: () => back(), off: !last },
    { key: "p", does: "print for the case lid", run: () => window.print() },
    { key: "Escape", shown: "Esc", does: "all sections", run: () => go("/bench") },
  ]);
  const due = tasks.filter((task) => task.rows.some((row) => row.applies && row.due && !row.today && !out.includes(row.student))).length;
  const drawing = card.drawings[card.drawing]!;
  const tall = drawing.height > 400;
  return (
    <>
      <OnThePage>
        <Top>
          <h1>{care.section}, care</h1>
          <p>{due === 0 ? "nothing is due" : `${due} ${due === 1 ? "thing" : "things"} due`}</p>
          <DueLine care={care} />
        </Top>
        <Stage $tall={tall}>
          <figure>
            <Lines drawing={drawing} hidden={["numbers"]} rules={Object.fromEntries(card.parts.map((one) => [one.name, one.rule]))} />
          </figure>
          <div>
            {said && <h2>{said.say}</h2>}
            {said && <Little drops={said.drops} rice={said.rice} />}
            <p className="careful">
              <b>Careful:</b> {cautionOf(card, said)}
            </p>
            <PartKey />
          </div>
        </Stage>
        <CareChairs care={care} out={out} onTurn={turn} onPassport={setOpened} />
        {(log.error ?? undo.error) && <p role="alert">{(log.error ?? undo.error)!.message}</p>}
        <div role="list" aria-label="Tasks">
          {tasks.map((task, i) => (
            <CareRow
              key={task.key}
              task={task}
              chairs={care.chairs}
              out={out}
              letter={letters[i]?.toUpperCase()}
              words={last?.task === task.key ? `Undo, ${last.count} logged at ${last.at}` : logWords(task, left)}
              undo={last?.task === task.key}
              main={task.key === said?.key}
              disabled={!here.length || log.isPending}
              onDo={() => (last?.task === task.key ? back() : done(task))}
            />
          ))}
        </div>
        <How card={card} tasks={tasks} />
        <Repairs care={care} />
        <Foot>
          <Action letter="P" onPress={() => window.print()}>
            Print for the case lid
          </Action>
          <Action letter="Esc" onPress={() => go("/bench")}>
            All sections
          </Action>
        </Foot>
        <PassportSheet care={care} card={card} student={opened} onClose={() => setOpened(null)} />
      </OnThePage>
      <Lid card={card} tasks={tasks} section={care.section} />
    </>
  );
}

/** The caution that belongs to what is done: of oil and grease where there is some. */
function cautionOf(card: BenchCard, said: CareTask | undefined): string {
  const all = card.cautions.filter((one) => one.at === "care");
  const oily = all.find((one) => one.say.startsWith("Oil"));
  return ((said?.drops || said?.rice ? oily : undefined) ?? all[0])?.say ?? "";
}

const timeOf = (at: Date) => at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** What is due in the other sections. */
function DueLine({ care }: { care: Care }) {
  const sections = useBench().data?.sections ?? [];
  return (
    <nav aria-label="Due in">
      due in:
      {sections.map((one) => (
        <NavLink key={one.card} to={`/bench/care/${one.card}`}>
          {one.section.toLowerCase()} <b>{care.due[one.card] ?? ""}</b>
        </NavLink>
      ))}
    </nav>
  );
}

function PartKey() {
  return (
    <p className="key">
      <span>● yours</span>
      <span>○ once it was shown</span>
      <span>⊟ leave shut, bring it to me</span>
    </p>
  );
}

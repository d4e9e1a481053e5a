import { useRef, useState, type ChangeEvent } from "react";
import { DropZone } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";

import type { ClassChanges, ClassList, Group, Member } from "../api/client";
import { useChangeClass, useClass, useLookAtList, usePutInGroup, useTakeOutOfGroup } from "../api/queries";
import { Action } from "../design/Action";
import { Said } from "../design/Fields";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { Quiet } from "../design/Shell";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { Ruler } from "../first/Ruler";
import { useRun } from "../first/useRun";
import { firstName } from "../shared/words";
import { AskedHow } from "./AskedHow";
import { Band, studentOf } from "./Band";
import { Consents } from "./Consents";
import { Dropped } from "./Dropped";
import { AddStudent, EditStudent, IntoGroup, Letters, Withdrawing } from "./forms";
import { choices, inGroup, nextGroup } from "./groups";
import { Groups } from "./Groups";
import { NextLesson } from "./NextLesson";
import { Seating } from "./Seating";
import { placesOf, putBack, type Way } from "./seats";
import { Spared } from "./Spared";
import { Stand } from "./Stand";
import { undoOf } from "./undo";
import { useSeats } from "./useSeats";
import { classWords } from "./words";

const Page = styled(DropZone)`
  display: grid;
  grid-template-columns: minmax(0, 2.3fr) minmax(300px, 1fr);
  gap: 20px 40px;
  padding-top: 14px;
  min-height: 80vh;
  align-content: start;
  &[data-drop-target] {
    outline: 3px dashed ${colour("ink")};
    outline-offset: 6px;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 12px;
  margin-bottom: 8px;
  h1 {
    font-size: 24px;
    font-weight: 800;
  }
  p {
    color: ${colour("soft")};
    margin-right: auto;
  }
`;
const Aside = styled.aside`
  display: grid;
  gap: 14px;
  align-content: start;
  h2 {
    font-size: 20px;
    font-weight: 800;
  }
  p {
    color: ${colour("soft")};
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
`;
type Doing = "" | "add" | "consent" | "lesson" | "withdraw" | "spare" | "edit" | "group" | "seats";
/** moved: whose chair, where that is all that was done. */
type Made = { words: string; undo: ClassChanges; moved?: number };
const LISTS = ".csv,text/csv,.txt";

/** The band, what a dropped list would change of it, whose letters are back, and the next lesson. */
export function ClassPage({ programme, may }: { programme: string; may: boolean }) {
  const found = useClass();
  useTitle("Class");
  if (found.isPending)
    return (
      <p className="unseen" role="status">
        Loading the class
      </p>
    );
  if (!found.data) return <Message title="The class did not load" text={found.error.message} onRetry={() => found.refetch()} />;
  return (
    <TheClass
      everybody={found.data.members}
      rows={found.data.rows}
      groups={choices(found.data.groups, found.data.members)}
      programme={programme}
      may={may}
    />
  );
}

type ClassProps = { everybody: Member[]; rows: number[][]; groups: Group[]; programme: string; may: boolean };

function TheClass({ everybody, rows, groups, programme, may }: ClassProps) {
  const [shown, setShown] = useState<number | null>(null);
  const group = groups.find(({ id }) => id === shown) ?? null;
  const [now] = useState(() => new Date());
  const going = useRun();
  const [picked, setPicked] = useState<Set<number>>(new Set());
  const [doing, setDoing] = useState<Doing>("");
  const [list, setList] = useState<{ file: string; found: ClassList } | null>(null);
  const [made, setMade] = useState<Made | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const members = list ? everybody : inGroup(everybody, group); // a list is of the whole class
  const putIn = usePutInGroup();
  const out = useTakeOutOfGroup();
  const look = useLookAtList();
  const change = useChangeClass();
  const show = (id: number | null) => {
    setShown(id);
    setPicked(new Set());
    setDoing("");
  };
  const takeOut = (one: Group, ids: number[]) =>
    out.mutate({ id: one.id, ids }, { onSuccess: () => (ids.length === one.student_ids.length ? show(null) : setPicked(new Set())) });
  const chosen = members.filter((one) => picked.has(one.student.id));
  const go = useNavigate();
  const meant = chosen.length ? chosen : members;
  const turn = (id: number) => setPicked(new Set(picked.has(id) ? [...picked].filter((one) => one !== id) : [...picked, id]));
  const seats = useSeats(
    (id) => everybody.find((one) => one.student.id === id)?.student.name ?? "",
    (words, id, before) => setMade((last) => (last?.moved === id ? { ...last, words } : { words, undo: putBack(before, id), moved: id })),
  );
  const seating = doing === "seats" && !list && !group;
  const mover = seating && chosen.length === 1 ? chosen[0]!.student : null;
  const step = (way: Way) => () => mover && seats.step(mover.id, way);
  const turnSection = () => {
    const focused = studentOf(document.activeElement);
    const meant = members.filter(({ student }) => student.id === focused || (focused === null && picked.has(student.id)));
    const alike = members.filter(({ student }) => meant.some((one) => one.student.instrument === student.instrument));
    const ids = idsOf(alike);
    setPicked(ids.every((id) => picked.has(id)) ? new Set([...picked].filter((id) => !ids.includes(id))) : new Set([...picked, ...ids]));
  };
  const read = (file: File) => {
    setMade(null);
    show(null);
    look.mutate(file, { onSuccess: (answer) => setList({ file: file.name, found: answer }) });
  };
  const make = (changes: ClassChanges, words: string) =>
    change.mutate(changes, {
      onSuccess: (ids) => {
        setMade({ words, undo: undoOf(changes, ids, everybody, rows) });
        if (group && !list && ids.length) putIn.mutate({ name: group.name, ids }); // who joins while a group is shown joins it
        setList(null);
        setDoing("");
        setPicked(new Set());
      },
    });
  const trouble = look.error ?? change.error ?? out.error;
  const takeBack = () => made && change.mutate(made.undo, { onSuccess: () => setMade(null) });
  const drop = async (items: { kind: string; getFile?: () => Promise<File> }[]) => {
    const file = items.find((item) => item.kind === "file");
    if (file?.getFile && may) read(await file.getFile());
  };
  useKeys("Class", [
    { key: "l", does: "choose a class list", run: () => chooser.current?.click(), off: !may },
    { key: "a", does: "add a student", run: () => setDoing("add"), off: !may },
    { key: "k", does: "letters are back", run: () => setDoing("consent"), off: !may || !members.length },
    { key: "p", does: "plan the next lesson", run: () => setDoing("lesson"), off: !may || !members.length },
    { key: "e", does: "name, instrument and note of who is chosen", run: () => setDoing("edit"), off: !may || chosen.length !== 1 },
    { key: "n", does: "what is not measured for who is chosen", run: () => setDoing("spare"), off: !may || chosen.length !== 1 },
    {
      key: "r",
      does: "the record of who is chosen",
      run: () => chosen[0] && go(`/student/${chosen[0].student.id}`),
      off: chosen.length !== 1,
    },
    { key: "o", does: "into a group: those who are chosen", run: () => setDoing("group"), off: !may || !chosen.length },
    {
      key: "x",
      does: "the next group",
      run: () => show(nextGroup(groups, shown)),
      off: !groups.length || list !== null,
    },
    { key: "s", does: "choose a section", run: turnSection },
    { key: "c", does: "change the seats", run: () => setDoing("seats"), off: !may || seating || list !== null || group !== null },
    { key: "Escape", shown: "Esc", does: "the seats are right", run: () => setDoing(""), off: !seating },
    { key: "ArrowLeft", shown: "←", does: "the chair goes left", run: step("left"), off: !mover },
    { key: "ArrowRight", shown: "→", does: "the chair goes right", run: step("right"), off: !mover },
    { key: "ArrowUp", shown: "↑", does: "the chair goes into the row behind", run: step("behind"), off: !mover },
    { key: "ArrowDown", shown: "↓", does: "the chair comes into the row before", run: step("before"), off: !mover },
    { key: "z", does: "take the last change back", run: takeBack, off: !made },
  ]);
  return (
    <Page onDrop={(event) => void drop(event.items as never)} getDropOperation={() => "copy"} aria-label="Drop a class list here">
      {going && <Ruler going={going} />}
      <div>
        <Head>
          <h1>{programme}</h1>
          <p>{members.length ? classWords(members, now) : "nobody is in the class yet"}</p>
          {may && !list && !group && !seating && members.length > 1 && <Quiet onPress={() => setDoing("seats")}>change the seats</Quiet>}
        </Head>
        {!list && <Groups groups={groups} shown={shown} onShow={show} />}
        <Band
          rows={placesOf(members, rows, list?.found ?? null)}
          chosen={picked}
          now={now}
          onTurn={turn}
          onMove={seating ? seats.put : undefined}
        />
        {members.length > 0 && <Stand />}
        {members.length > 0 && <Consents key={shown} members={members} programme={programme} now={now} />}
      </div>
      <Aside>
        {list ? (
          <Dropped
            file={list.file}
            list={list.found}
            busy={change.isPending}
            onMake={(changes) => make(changes, `${list.file} is taken over.`)}
            onNone={() => setList(null)}
          />
        ) : (
          may && (
            <>
              {doing === "" && (
                <>
                  <h2>{members.length ? "Change the class" : "Drop the class list here"}</h2>
                  <p>
                    A CSV file with the headings name and instrument, in any order; row and chair seat them. What it would change is shown
                    first.
                  </p>
                  <Row>
                    <Action main={!members.length} large letter="L" onPress={() => chooser.current?.click()}>
                      Choose a list
                    </Action>
                    <Action large letter="A" onPress={() => setDoing("add")}>
                      Add a student
                    </Action>
                  </Row>
                </>
              )}
              {doing === "" && members.length > 0 && (
                <>
                  <h2>{chosen.length ? `${chosen.length} chosen` : (group?.name ?? "Everybody")}</h2>
                  <Row>
                    <Action large letter="K" onPress={() => setDoing("consent")}>
                      Letters are back
                    </Action>
                    <Action main large letter="P" onPress={() => setDoing("lesson")}>
                      Plan a lesson
                    </Action>
                    {chosen.length === 1 && chosen[0]!.student.may_film_until !== null && (
                      <Action large onPress={() => setDoing("withdraw")}>
                        Consent is taken back
                      </Action>
                    )}
                    {chosen.length === 1 && (
                      <>
                        <Action large letter="E" onPress={() => setDoing("edit")}>
                          Name, instrument
                        </Action>
                        <Action large letter="N" onPress={() => setDoing("spare")}>
                          Not measured
                        </Action>
                        <Action large letter="R" onPress={() => go(`/student/${chosen[0]!.student.id}`)}>
                          The record
                        </Action>
                      </>
                    )}
                    {chosen.length > 0 && (
                      <Action large letter="O" onPress={() => setDoing("group")}>
                        Into a group
                      </Action>
                    )}
                    {group && (
                      <Action
                        large
                        isDisabled={out.isPending}
                        onPress={() => takeOut(group, chosen.length ? idsOf(chosen) : group.student_ids)}
                      >
                        {chosen.length ? `Out of ${group.name}` : "No group any more"}
                      </Action>
                    )}
                    {chosen.length > 0 && (
                      <Action large onPress={() => make({ leave: idsOf(chosen) }, `${namesOf(chosen)} left the class.`)}>
                        Left the class
                      </Action>
                    )}
                  </Row>
                  <p>
                    Choose chairs to mean only these. <a href="/api/class/list.csv">Save the class as a list</a>
                  </p>
                </>
              )}
              {doing === "" && members.length > 0 && <AskedHow />}
              {doing === "add" && (
                <AddStudent onAdd={(one) => make({ add: [one] }, `${one.name} is in the class.`)} onNone={() => setDoing("")} />
              )}
              {doing === "consent" && <Letters members={meant} onDone={() => setDoing("")} />}
              {doing === "withdraw" && chosen[0] && <Withdrawing member={chosen[0]} onDone={() => setDoing("")} />}
              {doing === "group" && (
                <IntoGroup
                  groups={groups}
                  who={namesOf(chosen)}
                  trouble={putIn.error?.message}
                  onPut={(name) => putIn.mutate({ name, ids: idsOf(chosen) }, { onSuccess: show })}
                  onNone={() => setDoing("")}
                />
              )}
              {doing === "edit" && chosen[0] && (
                <EditStudent
                  member={chosen[0]}
                  onKeep={(one) => make({ edit: [one] }, `${one.name} stands as you wrote it.`)}
                  onNone={() => setDoing("")}
                />
              )}
              {seating && <Seating chosen={mover && firstName(mover.name)} trouble={seats.trouble} onDone={() => setDoing("")} />}
              {doing === "spare" && chosen[0] && <Spared member={chosen[0]} onDone={() => setDoing("")} />}
              {doing === "lesson" && (
                <NextLesson who={meant.map((one) => one.student)} now={now} group={group} onNone={() => setDoing("")} />
              )}
            </>
          )
        )}
        {made && (
          <Said role="status">
            {made.words}{" "}
            <Action letter="Z" onPress={takeBack}>
              Take it back
            </Action>
          </Said>
        )}
        {trouble && <Said role="alert">{trouble.message}</Said>}
        <input
          ref={chooser}
          type="file"
          accept={LISTS}
          hidden
          aria-hidden
          tabIndex={-1}
          onChange={(event: ChangeEvent<HTMLInputElement>) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) read(file);
          }}
        />
      </Aside>
    </Page>
  );
}

const idsOf = (members: Member[]) => members.map((one) => one.student.id);
const namesOf = (members: Member[]) => members.map((one) => firstName(one.student.name)).join(", ");

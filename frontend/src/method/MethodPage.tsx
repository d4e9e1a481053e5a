import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";

import type { Method, Proposed } from "../api/client";
import { useMethod, useTeach } from "../api/queries";
import { useWouldChange } from "../api/said";
import { Action } from "../design/Action";
import { Said } from "../design/Fields";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { Ruler } from "../first/Ruler";
import { SoFar } from "../first/SoFar";
import { ToCome } from "../first/ToCome";
import { useRun } from "../first/useRun";
import { ByExample } from "./ByExample";
import { Elsewhere } from "./Elsewhere";
import { Finer } from "./Finer";
import { First } from "./First";
import { Joined } from "../design/Joined";
import { RuleChanges } from "./RuleChanges";
import { Schools } from "./Schools";
import { QUESTIONS, type Question } from "../shared/schools";
import { askedOf, ifWords, leftWords, tally, tried, usualOfOpen, type Way } from "./schools";
import { WouldChange, type Would } from "./WouldChange";
import { Trouble } from "./Trouble";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px 24px;
  padding: 14px 0 10px;
  border-bottom: 1px solid ${colour("ink")};
  h1 {
    font-size: 27px;
    font-weight: 800;
    line-height: 1.15;
  }
  p {
    color: ${colour("soft")};
  }
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 18px;
  padding-top: 16px;
  p {
    color: ${colour("soft")};
  }
  p:first-child {
    min-width: 130px;
  }
`;
const Beside = styled.div<{ $first: boolean }>`
  display: grid;
  grid-template-columns: ${(p) => (p.$first ? "minmax(240px, 300px) minmax(0, 1fr)" : "minmax(0, 1fr) minmax(330px, 370px)")};
  gap: 20px 28px;
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const STRICTNESS = { milder: "milder", usual: "as usual", stricter: "stricter" } as const;
type Strictness = keyof typeof STRICTNESS;

/** How the programme teaches: five questions, and how strictly it judges. Every answer is kept at once. */
export function MethodPage({ may }: { may: boolean }) {
  const found = useMethod();
  useTitle("How you teach");
  if (found.isPending) return null;
  if (!found.data) return <Message title="How you teach did not load" text={found.error.message} onRetry={() => found.refetch()} />;
  return <TheMethod method={found.data} may={may} />;
}

function TheMethod({ method, may }: { method: Method; may: boolean }) {
  const go = useNavigate();
  const teach = useTeach();
  const going = useRun();
  const [picked, setPicked] = useState<Question | null>(null);
  const [way, setWay] = useState<Way | null>(null);
  const [line, setLine] = useState<Proposed | null>(null);
  const tryOut = useWouldChange();
  const preview = tryOut.data;
  const asked = askedOf(method).map((one) => one.question);
  const open = asked.filter((one) => !(one in method.answers));
  const now = may ? (picked ?? open[0]) : undefined;
  const answer = (question: Question, school: string) => {
    setPicked(null);
    teach.mutate({ answers: { [question]: school }, strictness: null, order: null });
  };
  const number = (i: number) => {
    const school = method.questions.find((one) => one.question === now)?.schools[i];
    if (now && school) answer(now, school);
  };
  const usual = () => teach.mutate({ answers: usualOfOpen(method), strictness: null, order: null });
  const judge = (strictness: Strictness) => teach.mutate({ answers: {}, strictness, order: null });
  const take = () => {
    if (!way) return;
    if (way.strictness) judge(way.strictness);
    else answer(way.question!, way.school!);
    setWay(null);
  };
  const found = way && tried(preview, way);
  const pointed: Would | null = found && preview ? { ...preview, ...found, words: ifWords(way) } : null;
  const shown = line ? { ...line, overruled: 0, words: ["If the line were drawn there,", ""] as [string, string] } : pointed;
  const point = (other: Way) => {
    setLine(null);
    setWay(other);
  };
  const leave = () => {
    setLine(null);
    setWay(null);
  };
  const step = (by: number) => setPicked(asked[(asked.indexOf(now ?? asked[0]!) + by + asked.length) % asked.length] ?? null);
  useKeys("How you teach", [
    ...[0, 1, 2].map((i) => ({ key: `${i + 1}`, does: `the ${["first", "second", "third"][i]} answer`, run: () => number(i), off: !now })),
    { key: "ArrowDown", shown: "↓", does: "next question", run: () => step(1), off: !may },
    { key: "ArrowUp", shown: "↑", does: "question before", run: () => step(-1), off: !may },
    { key: "u", does: "the usual for all that is open", run: usual, off: !may || !open.length },
    { key: "j", does: "judge as pointed at", run: take, off: !may || !pointed },
    { key: "Escape", shown: "Esc", does: "back to the class; everything is kept", run: () => (shown ? leave() : go("/class")) },
  ]);
  return (
    <>
      <Head>
        <div>
          <h1>{tally(asked.length - open.length, asked.length)}</h1>
          <p>Teachers differ, and all of these are right. Your answers set what counts as good; change them at any time.</p>
        </div>
        <Action letter="Esc" onPress={() => go("/class")}>
          {open.length ? "Leave it here, go on later" : "Go on to the class"}
        </Action>
      </Head>
      <Ruler going={going} />
      <Beside $first={going !== null}>
        {going && <SoFar />}
        <div>
          <Schools method={method} now={now} may={may} preview={preview} onAnswer={answer} onPoint={point} />
          <Foot>
            {open.length > 0 && (
              <Action main large letter="U" onPress={usual} isDisabled={!may}>
                Take the usual for {leftWords(open.length, asked.length)}
              </Action>
            )}
            <p id="judge">judge</p>
            <Joined role="group" aria-labelledby="judge">
              {(Object.keys(STRICTNESS) as Strictness[]).map((one) => (
                <Action
                  key={one}
                  pressed={method.strictness === one}
                  main={method.strictness === one}
                  onPress={() => judge(one)}
                  onHoverStart={() => point({ strictness: one })}
                  onFocus={() => point({ strictness: one })}
                  isDisabled={!may}
                >
                  {STRICTNESS[one]}
                </Action>
              ))}
            </Joined>
            <p>{strictWords(method)}</p>
            {teach.error && <Said role="alert">{teach.error.message}</Said>}
          </Foot>
          {!going && <Finer method={method} may={may} preview={preview} onAnswer={answer} onPoint={point} />}
          <First order={method.order} may={may} onOrder={(order) => teach.mutate({ answers: {}, strictness: null, order })} />
          {!going && <Elsewhere />}
          {!going && <RuleChanges />}
        </div>
        {!going && (
          <div>
            <WouldChange
              would={shown}
              about={QUESTIONS[way?.question ?? now ?? "breathing_in"].changes}
              hint={preview?.takes !== 0}
              may={may}
              onTake={line ? null : take}
              onLeave={leave}
            />
            {tryOut.error && !preview && (
              <Trouble
                words={`What another way would change did not load: ${tryOut.error.message}`}
                onRetry={() => void tryOut.refetch()}
              />
            )}
            {!pointed && <ByExample may={may} onShow={setLine} />}
          </div>
        )}
      </Beside>
      {going && <ToCome onClass={() => go("/class")} />}
    </>
  );
}

function strictWords({ strictness, shoulders_pct }: Method): string {
  const rise = (one: Strictness) => `${shoulders_pct[one]?.toFixed(1)} %`;
  if (strictness === "usual") return `as usual: shoulders may rise ${rise("usual")} of the trunk before a mark`;
  return `${strictness}: shoulders may rise ${rise(strictness)} before a mark, not ${rise("usual")}; every other limit moves with it`;
}

import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";

import type { Helps, Report, Take } from "../api/client";
import { useHelp, useKeepFit } from "../api/help";
import { useMe } from "../api/queries";
import { Action } from "../design/Action";
import { Said } from "../design/Fields";
import { useKeys } from "../design/keys";
import { Shade, Sheet } from "../design/Sheet";
import { PHONE } from "../design/sizes";
import { Stepper } from "../design/Stepper";
import { colour } from "../design/tokens";
import { withUnit } from "../shared/valueWords";
import { firstName, shortDay } from "../shared/words";
import { CueLine } from "./CueLine";

const Page = styled.div`
  display: grid;
  gap: 12px;
  width: min(660px, calc(92vw - 56px));
  h3 {
    font-size: 15px;
    font-weight: 650;
    color: ${colour("soft")};
    margin-top: 8px;
  }
  .drill {
    font-size: 22px;
    font-weight: 750;
    line-height: 1.2;
    text-wrap: balance;
  }
  .quiet {
    color: ${colour("soft")};
    margin-bottom: 14px;
  }
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 128px;
  align-items: center;
  gap: 4px 16px;
  min-height: 56px;
  border-bottom: 1px solid ${colour("hair")};
  p b {
    font-weight: 650;
    display: block;
  }
  p {
    color: ${colour("soft")};
    line-height: 1.25;
    b {
      color: ${colour("ink")};
    }
  }
  > :last-child {
    justify-self: end;
  }
  @media ${PHONE} {
    grid-template-columns: minmax(0, 1fr) auto;
    padding-block: 8px;
    > p {
      grid-column: 1 / -1;
    }
  }
`;

type Props = { take: Take; cue: NonNullable<Report["cue"]> };

/** What helps with the fault that is spoken of: the equipment is looked at first, then comes one drill. */
export function Help({ take, cue }: Props) {
  const found = useHelp(take.id, cue).data;
  const [open, setOpen] = useState(false);
  useKeys("Take, help", [{ key: "t", does: "what helps: the equipment first, then a drill", run: () => setOpen(true), off: !found }]);
  if (!found) return null;
  return (
    <CueLine>
      {found.parts.length > 0 && (
        <span>
          first look at the <b>{found.parts.map(({ title }) => title.toLowerCase()).join(", ")}</b>
        </span>
      )}
      <Action letter="T" onPress={() => setOpen(true)}>
        The drill for it
      </Action>
      <Shade isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet>
          <Dialog aria-label="What helps">
            <Heading slot="title">What helps: {found.fault}</Heading>
            <What take={take} help={found} />
            <Action autoFocus onPress={() => setOpen(false)}>
              Back to the take
            </Action>
          </Dialog>
        </Sheet>
      </Shade>
    </CueLine>
  );
}

function What({ take, help }: { take: Take; help: Helps }) {
  return (
    <Page>
      {help.parts.length > 0 && <h3>First the equipment, then {firstName(take.student.name)}</h3>}
      <div>
        {help.parts.map((part) => (
          <PartRow key={part.key} studentId={take.student.id} part={part} />
        ))}
      </div>
      <h3>
        Then this drill, {help.drill.times} times: {help.drill.title.toLowerCase()}
      </h3>
      <p className="drill">{help.drill.words}</p>
      <p className="quiet">
        Then film once more and look at “{help.again}” again. Light-headed, or something hurts? Stop, breathe normally, sit.
      </p>
    </Page>
  );
}

function PartRow({ studentId, part }: { studentId: number; part: Helps["parts"][number] }) {
  const may = useMe().data?.may.includes("tick") ?? false;
  const keep = useKeepFit(studentId);
  const [tried, setTried] = useState<number | null>(null);
  const { fit, value } = part;
  const shown = tried ?? value ?? fit?.usual ?? 0;
  const kept = value !== null && shown === value;
  const write = (next: number | null) => keep.mutate({ key: part.key, value: next }, { onSuccess: () => setTried(null) });
  return (
    <Row role="group" aria-label={part.title}>
      <p>
        <b>{part.title}</b>
        {part.look}
        {kept && part.kept_at && `; fitted on ${shortDay(part.kept_at)}`}
      </p>
      {fit && may && (
        <Stepper label={withUnit(fit.unit).trim()} value={shown} by={fit.step} low={fit.low} high={fit.high} onChange={setTried} />
      )}
      {fit &&
        may &&
        (kept ? <Action onPress={() => write(null)}>Take back</Action> : <Action onPress={() => write(shown)}>It fits</Action>)}
      {fit && !may && value !== null && (
        <span>
          {value}
          {withUnit(fit.unit)}
        </span>
      )}
      {keep.error && <Said role="alert">{keep.error.message}</Said>}
    </Row>
  );
}

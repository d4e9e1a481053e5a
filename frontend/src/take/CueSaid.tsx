import type { CueRecord, Report, Take } from "../api/client";
import { useMe } from "../api/queries";
import { useCueRecord, useCueSaid } from "../api/said";
import { Action } from "../design/Action";
import { Said } from "../design/Fields";
import { useKeys } from "../design/keys";
import { CueLine } from "./CueLine";

/** What came after a cue so far, and without it; nothing where there was no next try. */
export function afterWords({ better_after, after, better_without, without }: Omit<CueRecord, "said" | "ways" | "first">): string {
  const times = (better: number, of: number) => `${better} of ${of} ${of === 1 ? "time" : "times"}`;
  const parts = [
    after > 0 && `better after it ${times(better_after, after)}`,
    without > 0 && `without a cue ${better_without} of ${without}`,
  ];
  return parts.filter(Boolean).join(", ");
}

/** Whether the cue was said: one tap keeps it, and in which words; the next tries show what came of it. */
export function CueSaid({ take, cue, way }: { take: Take; cue: NonNullable<Report["cue"]>; way: number }) {
  const may = useMe().data?.may.includes("tick") ?? false;
  const found = useCueRecord(take.id, cue).data;
  const say = useCueSaid(take.id);
  const tell = () => say.mutate({ criterion: cue.criterion, side: cue.side, way });
  useKeys("Take, cue", [{ key: "v", does: "the cue was said", run: tell, off: !may || !found || found.said }]);
  if (!found) return null;
  const became = afterWords(found);
  return (
    <CueLine>
      {found.said && <span>said</span>}
      {!found.said && may && (
        <Action letter="V" onPress={tell}>
          I said it
        </Action>
      )}
      {became && <span>{became}</span>}
      {say.error && <Said role="alert">{say.error.message}</Said>}
    </CueLine>
  );
}

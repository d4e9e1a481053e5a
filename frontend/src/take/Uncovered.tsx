import type { Report, Take } from "../api/client";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { useOnward } from "./useOnward";

/** Whether the instrument, or the arms that hold it, hid part of this breath. */
export const wasHidden = ({ headline }: Take, { reasons }: Report) =>
  Boolean(headline?.hidden) || reasons.some(({ code }) => code === "chest_covered");

/** Where the instrument hid part of the breath: the same card once without it, one tap away. */
export function Uncovered({ take, report }: { take: Take; report: Report }) {
  const { again, filmWithout } = useOnward(take);
  const hidden = wasHidden(take, report) && filmWithout !== null;
  useKeys("Take, hidden", [{ key: "n", does: "film once more without the instrument", run: () => filmWithout?.(), off: !hidden }]);
  if (!hidden) return null;
  return (
    <Action letter="N" onPress={filmWithout}>
      {again?.withoutIt}
    </Action>
  );
}

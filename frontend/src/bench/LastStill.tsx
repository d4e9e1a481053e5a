import { Link } from "react-router";

import { useTakesOf } from "../api/bench";

/** Where mouth and hands are ticked: on the still of the student's newest clip of the hold. */
export function LastStill({ student }: { student: number }) {
  const takes = useTakesOf(student).data?.takes ?? [];
  const hold = takes.find((one) => one.check.kind === "hold" && one.state === "read");
  if (!hold) return <p>Mouth and hands are ticked on a still: film the hold once, from the front or the side.</p>;
  return (
    <p>
      <Link to={`/take/${hold.id}`}>Tick mouth and hands on the last still</Link>
    </p>
  );
}

import { Link } from "react-router";

import { useBench } from "../api/bench";

/** What instruments need today, on one line; nothing where nothing is due. */
export function CareDue() {
  const due = (useBench().data?.sections ?? []).filter((one) => one.due > 0);
  const chairs = due.reduce((sum, one) => sum + one.due, 0);
  if (!chairs) return null;
  return (
    <Link to={due.length === 1 ? `/bench/care/${due[0]!.card}` : "/bench"} title={due.map((one) => `${one.section} ${one.due}`).join(", ")}>
      care due for {chairs} {chairs === 1 ? "instrument" : "instruments"}
    </Link>
  );
}

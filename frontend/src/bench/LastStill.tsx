import { useState } from "react";
import styled from "styled-components";

import { useTakesOf } from "../api/bench";
import { useReport, useTake } from "../api/queries";
import { TickList } from "../take/TickList";
import { Plain } from "./Plain";

const Box = styled.section`
  grid-column: 1 / -1;
`;

/** Where mouth and hands are ticked: on the still of the student's newest clip of the hold, shown once it is asked for. */
export function LastStill({ student }: { student: number }) {
  const [open, setOpen] = useState(false);
  const takes = useTakesOf(student).data?.takes ?? [];
  const hold = takes.find((one) => one.check.kind === "hold" && one.state === "read");
  return (
    <Box aria-label="Mouth and hands on the last still">
      {!hold && <p>Mouth and hands are ticked on a still: film the hold once, from the front or the side.</p>}
      {hold && !open && <Plain onPress={() => setOpen(true)}>Tick mouth and hands on the last still</Plain>}
      {hold && open && <Ticks id={hold.id} />}
    </Box>
  );
}

function Ticks({ id }: { id: string }) {
  const take = useTake(id);
  const report = useReport(id, take.data?.headline?.report_version);
  const trouble = take.error ?? report.error;
  if (trouble) return <p role="alert">The still did not load: {trouble.message}</p>;
  if (!take.data || !report.data) return <p role="status">Loading the still</p>;
  return <TickList take={take.data} report={report.data} />;
}

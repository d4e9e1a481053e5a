import styled from "styled-components";

import type { Staff as StaffNote } from "../api/client";
import { colour } from "../design/tokens";
import { Ink } from "./Lines";

const Box = styled.figure`
  display: grid;
  grid-template-columns: 170px auto;
  align-items: center;
  gap: 16px;
  figcaption {
    color: ${colour("soft")};
    font-size: 16px;
    b {
      display: block;
      font-size: 26px;
      line-height: 1.1;
      font-weight: 750;
    }
  }
`;
const Drawn = styled(Ink)<{ $quiet: boolean }>`
  stroke: ${(p) => colour(p.$quiet ? "soft" : "ink")};
  .head {
    fill: ${(p) => colour(p.$quiet ? "soft" : "ink")};
  }
  .line {
    stroke: ${colour("soft")};
    stroke-width: 1.5;
  }
  .clef {
    stroke-width: 2.4;
  }
`;
const GAP = 12; // between two lines
const BOTTOM = 84; // the staff's lowest line
const NOTE_X = 118;
const TREBLE =
  "M27,77 C18,77 18,65 28,65 C42,65 43,86 27,87 C8,88 7,64 23,51 C38,39 38,22 31,18 C22,23 24,42 27,56 L34,100 C36,114 21,115 21,107";
const BASS = "M16,47 C19,34 42,33 42,51 C42,68 26,78 14,83";

/** A note on its staff with its clef, its name and where it stands. */
export function Staff({ note, does, quiet = false }: { note: StaffNote; does: string; quiet?: boolean }) {
  const y = (steps: number) => BOTTOM - (steps * GAP) / 2;
  return (
    <Box>
      <Drawn
        $quiet={quiet}
        viewBox="0 8 170 122"
        width="170"
        height="122"
        role="img"
        aria-label={`${does} ${note.name}, ${note.clef} clef, ${note.where}`}
      >
        {[0, 2, 4, 6, 8].map((line) => (
          <path key={line} className="line" d={`M4,${y(line)} H166`} />
        ))}
        <path className="clef" d={note.clef === "treble" ? TREBLE : BASS} />
        {note.clef === "bass" && (
          <g className="head">
            <circle cx="18" cy="49" r="3.4" className="head" />
            <circle cx="49" cy="42" r="2" className="head" />
            <circle cx="49" cy="54" r="2" className="head" />
          </g>
        )}
        {shortLines(note.steps).map((line) => (
          <path key={line} className="line" d={`M${NOTE_X - 17},${y(line)} h34`} />
        ))}
        <g transform={`translate(${NOTE_X},${y(note.steps)})`}>
          <ellipse className="head" rx="9.5" ry="6.2" />
          <ellipse className="ground" rx="3" ry="5.4" transform="rotate(-34)" stroke="none" />
          {note.alter < 0 && <path d="M-21,-21 V6 C-10,-1 -11,-10 -21,-5" />}
          {note.alter > 0 && <path d="M-23,-10 V11 M-17,-12 V9 M-27,-2 L-13,-5 M-27,5 L-13,2" />}
        </g>
      </Drawn>
      <figcaption>
        {does}
        <b>{note.name}</b>
        {note.where}
      </figcaption>
    </Box>
  );
}

/** Short lines beside the staff up to a note. */
export function shortLines(steps: number): number[] {
  const below = Array.from({ length: Math.max(0, Math.floor(-steps / 2)) }, (_, i) => -2 * (i + 1));
  const above = Array.from({ length: Math.max(0, Math.floor((steps - 8) / 2)) }, (_, i) => 10 + 2 * i);
  return [...below, ...above];
}

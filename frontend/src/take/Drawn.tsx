import { useImperativeHandle, useState, type FormEvent, type Ref, type RefObject } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Drawing, Report, Take } from "../api/client";
import { useDraw, useDrawings, useRubOut, type NewDrawing } from "../api/drawings";
import { useMe } from "../api/queries";
import { Action } from "../design/Action";
import { TextLine } from "../design/Fields";
import { colour, onClip } from "../design/tokens";
import { Aim, Ring, type Place } from "./Aim";
import { OverClip } from "./OverClip";

type Shape = Drawing["shape"];
const SHAPES: [Shape, string, string][] = [
  ["circle", "c", "Circle"],
  ["arrow", "a", "Arrow"],
  ["note", "n", "Note"],
];
const NOW_S = 0.3; // a drawing is shown this long before and after its moment
const STEP_S = 0.1; // how often it is asked whose moment it is
const ASKS: Record<Shape, [string, string]> = {
  circle: ["tap its middle", "now its rim"],
  arrow: ["tap where it comes from", "now where it points"],
  note: ["tap where it belongs", "write it, then enter"],
};

/** What is being drawn: its shape, and where it begins once that is set. */
export type Drawer = {
  shape: Shape;
  from: Place | null;
  choose: (shape: Shape) => void;
  place: (at: Place, to?: Place) => void;
  note: (words: string) => void;
  leave: () => void;
};

/** Circles, arrows and notes on the clip: drawn where it stands still, kept with the take, rubbed out. */
export function useDrawer(take: Take, video: RefObject<HTMLVideoElement | null>) {
  const kept = useDrawings(take.id).data?.drawings ?? [];
  const draw = useDraw(take.id);
  const may = useMe().data?.may.includes("tick") ?? false;
  const [shape, setShape] = useState<Shape | null>(null);
  const [from, setFrom] = useState<Place | null>(null);
  const turn = () => {
    video.current?.pause();
    if (shape === null) video.current?.closest("[data-clip]")?.scrollIntoView({ block: "nearest" }); // what is drawn on has to be seen
    setShape(shape === null ? "circle" : null);
    setFrom(null);
  };
  const choose = (next: Shape) => {
    setShape(next);
    setFrom(null);
  };
  const keep = (at: Place, to: Place, words = "") => {
    setFrom(null);
    draw.mutate({ shape: shape!, t_s: video.current?.currentTime ?? 0, at_px: at, to_px: to, words });
  };
  const place = (at: Place, to?: Place) => {
    if (shape === "note") return setFrom(to ?? at);
    if (from === null && !to) return setFrom(at);
    keep(from ?? at, to ?? at);
  };
  const drawer: Drawer | null =
    shape === null ? null : { shape, from, choose, place, note: (words) => from && words.trim() && keep(from, from, words), leave: turn };
  return { can: may && Boolean(take.clip?.url), kept, drawer, turn, trouble: draw.error?.message };
}

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding-top: 8px;
  > span {
    flex: 1 1 100%;
    font-weight: 650;
  }
  form {
    flex: 1 1 100%;
  }
`;

/** Under the picture while something is drawn: which shape, what to tap, a note's words. */
export function DrawTools({ drawer }: { drawer: Drawer }) {
  const [words, setWords] = useState("");
  const writes = drawer.shape === "note" && drawer.from !== null;
  const send = (event: FormEvent) => {
    event.preventDefault();
    drawer.note(words);
    setWords("");
  };
  return (
    <Tools role="group" aria-label="Draw">
      {SHAPES.map(([shape, key, word]) => (
        <Action key={shape} letter={key.toUpperCase()} pressed={drawer.shape === shape} onPress={() => drawer.choose(shape)}>
          {word}
        </Action>
      ))}
      <Action letter="M" onPress={drawer.leave}>
        Done
      </Action>
      <span role="status">
        {SHAPES.find(([one]) => one === drawer.shape)![2]}: {ASKS[drawer.shape][drawer.from ? 1 : 0]}
      </span>
      {writes && (
        <form onSubmit={send}>
          <TextLine label="The note" value={words} onChange={setWords} maxLength={160} autoFocus />
        </form>
      )}
    </Tools>
  );
}

/** Lies over the picture while something is drawn. */
export function DrawAim({ report, drawer }: { report: Report; drawer: Drawer }) {
  const { shape, from } = drawer;
  const word = SHAPES.find(([one]) => one === shape)![2];
  const onKey = (key: string) => {
    const other = SHAPES.find(([, letter]) => letter === key);
    if (other) drawer.choose(other[0]);
    else if (key === "Escape" || key === "m") drawer.leave();
    return other !== undefined || key === "Escape" || key === "m";
  };
  return (
    <Aim
      clip={report.clip}
      begins={report.hold?.hands?.stills.at(-1)?.mouth_px as Place | undefined}
      label={`${word}: ${ASKS[shape][from ? 1 : 0]}; arrows move, enter sets, C, A and N choose`}
      waits={shape === "note" && from ? null : shape}
      onPlace={drawer.place}
      onKey={onKey}
    >
      {(at, size) => (
        <>
          {from && shape !== "note" && <Figure shape={shape} from={from} to={at} size={size} words="" />}
          {from && shape === "note" && <Ring at={from} size={size * 0.6} />}
          {!from && <Ring at={at} size={size} />}
        </>
      )}
    </Aim>
  );
}

const InPencil = styled(OverClip)`
  text {
    fill: ${onClip.pencil};
  }
`;
const SIZES = 60; // of a drawing's line across the picture, as where it is aimed
const TIP = 2.2; // of an arrow's head, times the size
const LETTERS = 26; // of a note's line before it goes on below

/** One drawing, in pencil with a dark edge. */
type Drawn = { shape: Shape; from: Place; to: Place; size: number; words: string; leftward?: boolean };

function Figure({ shape, from, to, size, words, leftward = false }: Drawn) {
  if (shape === "note") return <Note at={from} words={words} size={size} leftward={leftward} />;
  const away = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const barb = (turn: number) => `M${to[0]},${to[1]} l${-TIP * size * Math.cos(away + turn)},${-TIP * size * Math.sin(away + turn)}`;
  const drawn = shape === "arrow" ? `M${from[0]},${from[1]} L${to[0]},${to[1]} ${barb(0.5)} ${barb(-0.5)}` : null;
  const radius = Math.max(Math.hypot(to[0] - from[0], to[1] - from[1]), size);
  return (
    <>
      {(
        [
          [onClip.dark, 0.7],
          [onClip.pencil, 0.35],
        ] as const
      ).map(([stroke, wide]) =>
        // prettier-ignore
        drawn ? (
          <path key={stroke} d={drawn} stroke={stroke} strokeWidth={size * wide} strokeLinecap="round" fill="none" />
        ) : (
          <circle key={stroke} cx={from[0]} cy={from[1]} r={radius} stroke={stroke} strokeWidth={size * wide} fill="none" />
        ),
      )}
    </>
  );
}

function Note({ at: [x, y], words, size, leftward }: { at: Place; words: string; size: number; leftward: boolean }) {
  const lines = words.split(" ").reduce<string[]>((kept, word) => {
    const last = kept.at(-1);
    if (last === undefined || last.length + word.length >= LETTERS) return [...kept, word];
    return [...kept.slice(0, -1), `${last} ${word}`];
  }, []);
  return (
    <>
      <circle cx={x} cy={y} r={size * 0.4} fill={onClip.pencil} stroke={onClip.dark} strokeWidth={size * 0.2} />
      <text fontSize={size * 1.7} textAnchor={leftward ? "end" : "start"}>
        {lines.map((line, i) => (
          <tspan key={line} x={x + (leftward ? -size : size)} y={y + size * (0.5 + 1.9 * i)}>
            {line}
          </tspan>
        ))}
      </text>
    </>
  );
}

export type DrawnHandle = { show: (t_s: number) => void };

/** What was drawn, while its moment is shown. middle: of what is shown of the clip; a note right of it is written leftward. */
export function DrawnOn({ report, kept, middle, handle }: { report: Report; kept: Drawing[]; middle: number; handle: Ref<DrawnHandle> }) {
  const [now_s, setNow] = useState(0);
  useImperativeHandle(handle, () => ({ show: (t_s) => setNow(Math.round(t_s / STEP_S) * STEP_S) }), []);
  return (
    <InPencil viewBox={`0 0 ${report.clip.width_px} ${report.clip.height_px}`} aria-hidden data-testid="drawn">
      {kept
        .filter(({ t_s }) => Math.abs(t_s - now_s) <= NOW_S)
        .map((one) => (
          <Figure
            key={one.id}
            shape={one.shape}
            from={one.at_px as Place}
            to={one.to_px as Place}
            size={report.clip.width_px / SIZES}
            words={one.words}
            leftward={(one.at_px[0] ?? 0) > middle}
          />
        ))}
    </InPencil>
  );
}

const Rows = styled.ul`
  list-style: none;
  max-height: 146px; /* four rows: more of them do not push the rest away */
  margin-top: 6px;
  overflow-y: auto;
  li {
    display: flex;
    align-items: center;
    gap: 10px;
    min-height: 34px;
    border-bottom: 1px solid ${colour("hair")};
  }
  button {
    padding: 4px 2px;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    text-align: left;
    cursor: pointer;
  }
  li > button:first-child {
    flex: 1 1 auto;
    font-weight: 650;
  }
  small {
    margin-right: 10px;
    color: ${colour("soft")};
    font-size: 15px;
    font-weight: 400;
  }
  li > button + button {
    color: ${colour("soft")};
    text-decoration: underline;
  }
  button[data-hovered] {
    text-decoration: underline;
  }
`;

/** What was drawn as a list: each a way to its moment, and rubbed out by one tap, which can be taken back. */
export function DrawnList({ takeId, kept, may, onSeek }: { takeId: string; kept: Drawing[]; may: boolean; onSeek: (t_s: number) => void }) {
  const rub = useRubOut(takeId);
  const again = useDraw(takeId);
  const [rubbed, setRubbed] = useState<NewDrawing | null>(null);
  if (!kept.length && !rubbed) return null;
  const words = ({ shape, words: said }: NewDrawing) => said || SHAPES.find(([one]) => one === shape)![2];
  return (
    <Rows aria-label="Drawn on the clip">
      {kept.map(({ id, ...one }) => (
        <li key={id}>
          <Button onPress={() => onSeek(one.t_s)}>
            <small>{one.t_s.toFixed(1)} s</small>
            {words(one)}
          </Button>
          {may && (
            <Button
              onPress={() => {
                setRubbed(one);
                rub.mutate(id);
              }}
              aria-label={`Rub out: ${words(one)}`}
            >
              rub out
            </Button>
          )}
        </li>
      ))}
      {rubbed && (
        <li>
          <span role="status">{words(rubbed)} rubbed out.</span>
          <Button
            onPress={() => {
              again.mutate(rubbed);
              setRubbed(null);
            }}
          >
            Put it back
          </Button>
        </li>
      )}
    </Rows>
  );
}

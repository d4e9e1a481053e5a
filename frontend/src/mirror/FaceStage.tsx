import { useEffect, useState, type PointerEvent, type RefObject } from "react";
import styled from "styled-components";

import type { FaceOut } from "../api/client";
import { onClip } from "../design/tokens";
import { useKeys } from "../design/keys";
import { useSize } from "../design/useSize";
import {
  BESIDE,
  faceDrawn,
  onFace,
  onMirror,
  placeOf,
  sideOf,
  WHOLE,
  zoomOn,
  type Box,
  type FaceDrawn,
  type OnFace,
  type Zoom,
} from "./place";

const Over = styled.div`
  position: absolute;
  left: 0;
  top: 0;
  width: 64%;
  height: 100%;
  touch-action: none;
  cursor: crosshair;
  svg {
    display: block;
    overflow: hidden;
  }
`;
const Told = styled.div`
  position: absolute;
  left: 67%;
  right: 0;
  top: 8%;
  display: grid;
  gap: 24px;
  font-size: clamp(16px, 2.4vw, 30px);
  line-height: 1.3;
  b {
    font-size: clamp(20px, 3.4vw, 44px);
    line-height: 1.1;
  }
`;
const NUDGE = 0.02; // of the eyes' distance
const ABOVE = -0.7;
const BELOW = 2.9; // of the middle line, eye distances from the eyes: from the forehead to under the chin
const SMALL = 0.05; // of the picture between the eyes: nearer, and the lines are surer
const EYES = 0.9;
/** Half width and half height of what lies on the lips, in eye distances (about 62 mm), by instrument. */
const CUP = { across: 0.21, down: 0.21 };
const PLATE = { across: 0.42, down: 0.14 };
const REED = { across: 0.13, down: 0.09 };
const SHAPES: Record<string, typeof CUP> = { flute: PLATE, oboe: REED, clarinet: REED, alto_sax: REED, tenor_sax: REED };
type FaceStageProps = { video: RefObject<HTMLVideoElement | null>; shown: FaceOut | null; instrument: string; wait: string };

/** Over the picture of a face: its middle line and the line of the eyes, and a ring set by a tap where the mouthpiece sits, which stays with the face. */
export function FaceStage({ video, shown, instrument, wait }: FaceStageProps) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const [ring, setRing] = useState<OnFace | null>(null);
  const [zoom, setZoom] = useState(WHOLE);
  const seen = shown?.state === "seen" ? shown : null;
  const near = seen ? zoomOn(video.current, seen, { left: 0, top: 0, width, height }, zoom) : zoom;
  if (near !== zoom) setZoom(near);
  useZoomed(video, near, width);
  const box = { left: near.left, top: near.top, width: width * near.times, height: height * near.times };
  const face = seen && drawnOf(video.current, seen, box);
  const nudge = (across: number, down: number) => setRing((at) => at && { across: at.across + across, down: at.down + down });
  useKeys("The ring on the mouthpiece", [
    { key: "ArrowLeft", shown: "\u2190", does: "the ring to the left", run: () => nudge(NUDGE, 0), off: !ring },
    { key: "ArrowRight", shown: "\u2192", does: "the ring to the right", run: () => nudge(-NUDGE, 0), off: !ring },
    { key: "ArrowUp", shown: "\u2191", does: "the ring up", run: () => nudge(0, -NUDGE), off: !ring },
    { key: "ArrowDown", shown: "\u2193", does: "the ring down", run: () => nudge(0, NUDGE), off: !ring },
    {
      key: "r",
      does: "a ring on the mouth; take it away",
      run: () => setRing(ring || !face ? null : onFace(face, onMirror(video.current, seen!.mouth, box)!)),
    },
  ]);
  const tapped = (event: PointerEvent<HTMLDivElement>) => {
    if (!face || (event.type === "pointermove" && event.buttons === 0)) return;
    const within = event.currentTarget.getBoundingClientRect();
    setRing(onFace(face, { x: event.clientX - within.left, y: event.clientY - within.top }));
  };
  return (
    <>
      <Over ref={ref} onPointerDown={tapped} onPointerMove={tapped}>
        {face && (
          <svg
            width={width}
            height={height}
            role="img"
            aria-label="The middle line of your face and the line of your eyes"
            data-testid="face"
          >
            <Line from={placeOf(face, { across: 0, down: ABOVE })} to={placeOf(face, { across: 0, down: BELOW })} />
            <Line from={placeOf(face, { across: -EYES, down: 0 })} to={placeOf(face, { across: EYES, down: 0 })} />
            {ring && <Ring face={face} at={ring} half={SHAPES[instrument] ?? CUP} />}
          </svg>
        )}
      </Over>
      <Told aria-live="polite">
        {!face && <span>{wait}</span>}
        {face && !ring && <span>Tap the picture where the mouthpiece sits. The ring stays with your face.</span>}
        {seen && Math.abs(seen.across[0]!) < SMALL && <span>Come closer to the camera.</span>}
        {face && ring && <b data-testid="beside">{BESIDE[sideOf(ring)]}</b>}
      </Told>
    </>
  );
}

type Point = { x: number; y: number };

function Line({ from, to }: { from: Point; to: Point }) {
  const path = `M${from.x},${from.y} L${to.x},${to.y}`;
  return (
    <g fill="none" strokeLinecap="round">
      <path d={path} stroke={onClip.dark} strokeWidth="7" opacity="0.55" />
      <path d={path} stroke={onClip.light} strokeWidth="3" strokeDasharray="2 9" />
    </g>
  );
}

/** The ring, and how far it lies beside the middle line. */
function Ring({ face, at, half }: { face: FaceDrawn; at: OnFace; half: typeof CUP }) {
  const middle = placeOf(face, at);
  const line = placeOf(face, { across: 0, down: at.down });
  const apart = Math.hypot(face.across.x, face.across.y);
  const turned = (Math.atan2(-face.across.y, -face.across.x) * 180) / Math.PI;
  const shape = {
    cx: middle.x,
    cy: middle.y,
    rx: half.across * apart,
    ry: half.down * apart,
    transform: `rotate(${turned} ${middle.x} ${middle.y})`,
  };
  return (
    <g fill="none" data-testid="ring">
      <ellipse {...shape} stroke={onClip.dark} strokeWidth="9" opacity="0.55" />
      <ellipse {...shape} stroke={onClip.light} strokeWidth="4" />
      <path d={`M${middle.x},${middle.y} L${line.x},${line.y}`} stroke={onClip.light} strokeWidth="4" />
      <circle cx={middle.x} cy={middle.y} r="6" fill={onClip.light} stroke={onClip.dark} />
    </g>
  );
}

/** Draws the camera's picture as near as that, flipped; whole again when the face mirror closes. */
function useZoomed(video: RefObject<HTMLVideoElement | null>, { times, left, top }: Zoom, width: number) {
  useEffect(() => {
    const picture = video.current;
    if (!picture) return;
    picture.style.setProperty("transform", `translate(${left + width * times}px, ${top}px) scale(${-times}, ${times})`);
    return () => {
      picture.style.removeProperty("transform");
    };
  }, [video, times, left, top, width]);
}

function drawnOf(video: HTMLVideoElement | null, { eyes, across, mouth }: FaceOut, box: Box): FaceDrawn | null {
  const between = onMirror(video, eyes, box);
  const left = onMirror(video, [eyes[0]! + across[0]! / 2, eyes[1]! + across[1]! / 2], box);
  const below = onMirror(video, mouth, box);
  return between && left && below && faceDrawn(between, left, below);
}

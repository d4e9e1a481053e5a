/** A box on the page, px. */
export type Box = { left: number; top: number; width: number; height: number };
type Place = { x: number; y: number };

/** How large the camera's picture is drawn: it covers its box and is cut at the sides. */
const scaleIn = (video: HTMLVideoElement, box: Box) => Math.max(box.width / video.videoWidth, box.height / video.videoHeight);

/** Where a place of the picture (shares of its width and height) stands on the page, flipped as in a mirror; null before there is a picture. */
export function onMirror(video: HTMLVideoElement | null, at: number[], box: Box): Place | null {
  if (!video?.videoWidth) return null;
  const scale = scaleIn(video, box);
  const x = box.width / 2 + (at[0]! - 0.5) * video.videoWidth * scale;
  const y = box.height / 2 + (at[1]! - 0.5) * video.videoHeight * scale;
  return { x: box.left + box.width - x, y: box.top + y };
}

/** How near the mirror goes: times as large, and where the picture's left top comes to lie in its box, px. */
export type Zoom = { times: number; left: number; top: number };
export const WHOLE: Zoom = { times: 1, left: 0, top: 0 };
const EYES_SHARE = 0.17; // of the box's width between the eyes: then lips and corners can be seen from two metres
const NEAREST = 5;
const LARGER = 1.25; // the picture stays where it is until the face is so much larger or smaller than wanted
const ASIDE = 0.12; // or so far from the middle, of the box

/** A picture zoomed onto its face; the zoom before stands as long as the face is still about in the middle and about so large. */
export function zoomOn(
  video: HTMLVideoElement | null,
  face: { eyes: number[]; across: number[]; mouth: number[] },
  box: Box,
  before: Zoom,
): Zoom {
  const whole = { left: 0, top: 0, width: box.width, height: box.height };
  const eyes = onMirror(video, face.eyes, whole);
  const mouth = onMirror(video, face.mouth, whole);
  if (!video || !eyes || !mouth) return before;
  const scale = scaleIn(video, whole);
  const apart = Math.hypot(face.across[0]! * video.videoWidth, face.across[1]! * video.videoHeight) * scale;
  const times = Math.min(Math.max((EYES_SHARE * box.width) / apart, 1), NEAREST);
  const middle = { x: (eyes.x + mouth.x) / 2, y: (eyes.y + mouth.y) / 2 };
  const within = (wanted: number, length: number) => Math.min(Math.max(wanted, length * (1 - times)), 0);
  const wanted = {
    times,
    left: within(box.width / 2 - times * middle.x, box.width),
    top: within(box.height / 2 - times * middle.y, box.height),
  };
  const large = Math.max(before.times / times, times / before.times) >= LARGER;
  const aside = Math.abs(wanted.left - before.left) > ASIDE * box.width || Math.abs(wanted.top - before.top) > ASIDE * box.height;
  return large || aside ? wanted : before;
}

/** The face as it is drawn: between the eyes, the way across them (one eye to the other) and down the middle line (one eye's distance). */
export type FaceDrawn = { eyes: Place; across: Place; down: Place };

/** The face's own directions on the page; the middle line runs from between the eyes through the middle of the mouth. */
export function faceDrawn(eyes: Place, left: Place, mouth: Place): FaceDrawn {
  const across = { x: 2 * (left.x - eyes.x), y: 2 * (left.y - eyes.y) };
  const apart = Math.hypot(across.x, across.y) || 1;
  const long = Math.hypot(mouth.x - eyes.x, mouth.y - eyes.y) || 1;
  return { eyes, across, down: { x: ((mouth.x - eyes.x) / long) * apart, y: ((mouth.y - eyes.y) / long) * apart } };
}

/** A place that goes with the face: eye distances across and down. */
export type OnFace = { across: number; down: number };

/** Where such a place stands on the page. */
export const placeOf = ({ eyes, across, down }: FaceDrawn, at: OnFace): Place => ({
  x: eyes.x + at.across * across.x + at.down * down.x,
  y: eyes.y + at.across * across.y + at.down * down.y,
});

/** The place on the face under a point of the page. */
export function onFace({ eyes, across, down }: FaceDrawn, point: Place): OnFace {
  const [x, y] = [point.x - eyes.x, point.y - eyes.y];
  const turned = across.x * down.y - across.y * down.x || 1;
  return { across: (x * down.y - y * down.x) / turned, down: (across.x * y - across.y * x) / turned };
}

const ON_LINE = 0.06; // eye distances, about 4 mm: as near as a tap sets it
/** Where the ring lies against the middle line, seen as in a mirror: the player's left is on the left. */
export const sideOf = ({ across }: OnFace): keyof typeof BESIDE => {
  if (Math.abs(across) <= ON_LINE) return "middle";
  return across > 0 ? "left" : "right";
};
export const BESIDE = {
  middle: "On the middle line.",
  left: "Left of the middle line.",
  right: "Right of the middle line.",
} as const;

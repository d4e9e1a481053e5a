import type { Place, Report } from "../api/client";
import { onClip } from "../design/tokens";
import { LANES, type Lane } from "../breathscore/layout";
import { onTrunk, type ToPx } from "./onBody";

/** Lanes that were looked for and could not be followed: no place of them was believed. */
export function unfollowed(report: Report): Lane[] {
  const looked = report.player?.looked ?? {};
  return LANES.filter((lane) => looked[lane] && !looked[lane].some(({ believed }) => believed));
}

/** Whether this reading says where it looked; one of an older release does not. */
export function saysWhere(report: Report): boolean {
  return LANES.some((lane) => report.player?.looked?.[lane]?.length);
}

/** What of the body's outline was looked at nearest to a moment, as a path; nothing where none was. */
export function outlineAt(report: Report, t_s: number): string {
  const outlines = report.player?.outlines ?? [];
  const near = outlines.reduce<(typeof outlines)[number] | null>(
    (best, one) => (best === null || Math.abs(one.t_s - t_s) < Math.abs(best.t_s - t_s) ? one : best),
    null,
  );
  return (near?.lines_px ?? []).map((line) => `M${line.map((place) => place.join(",")).join(" L")}`).join(" ");
}

/** Where on the trunk was looked: bars on the body's edge, dots on its surface, crosses where what moved there was not believed. */
export function Places({ report, size }: { report: Report; size: number }) {
  const looked = report.player?.looked ?? {};
  return (
    <g data-testid="places" fill="none" strokeLinecap="round">
      {LANES.map((lane) => (
        <g key={lane} data-lane={lane}>
          {(looked[lane] ?? []).map((place) => (
            <One key={`${place.x_px},${place.y_px}`} place={place} at={onTrunk(report, place.x_px, place.y_px)} size={size} />
          ))}
        </g>
      ))}
    </g>
  );
}

/** Takes the places along with the body. group: what Places has drawn them into. */
export function movePlaces(group: SVGGElement | null, toPx: ToPx) {
  for (const one of group?.querySelectorAll<SVGGElement>("[data-up]") ?? []) {
    const [x, y] = toPx(Number(one.dataset.up), Number(one.dataset.ahead));
    one.setAttribute("transform", `translate(${x.toFixed(1)},${y.toFixed(1)})`);
  }
}

function One({ place, at, size }: { place: Place; at: { up: number; ahead: number }; size: number }) {
  const drawn = formOf(place, size * 0.2);
  return (
    <g data-believed={place.believed} data-up={at.up} data-ahead={at.ahead}>
      <path d={drawn} stroke={onClip.dark} strokeWidth={size * 0.3} opacity="0.6" />
      <path d={drawn} stroke={onClip.light} strokeWidth={size * (place.believed ? 0.16 : 0.08)} />
    </g>
  );
}

/** A bar across the edge, a dot, or a cross, about where it stands; half: its half width. */
function formOf({ outline, believed }: Place, half: number): string {
  if (!believed) return `M${-half},${-half} l${2 * half},${2 * half} M${half},${-half} l${-2 * half},${2 * half}`;
  return outline ? `M${-2 * half},0 h${4 * half}` : "M0,0 h0.01";
}

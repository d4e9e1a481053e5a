const FILLED: Record<string, string> = {
  belly_then_ribs: "M2,38 C20,36 26,18 42,19 H52 V38 Z",
  belly_only: "M2,38 C20,36 24,14 42,15 Q50,16 52,20 V38 Z",
  slow_and_even: "M2,24 L20,11 V37 Z",
  let_fall: "M2,24 L20,11 V37 Z",
  small_pushes: "M2,24 L20,11 V37 Z",
  one_part: "M2,24 L16,13 V35 Z",
  whole: "M2,24 L20,11 V37 Z",
  air_first: "M2,24 L20,11 V37 Z",
  at_once: "M2,24 L20,11 V37 Z M23,11 H26 V37 H23 Z",
};
const LINED: Record<string, string> = {
  belly_then_ribs: "M2,17 H18 C32,17 34,6 42,6 H52",
  belly_only: "M2,8 H52",
  slow_and_even: "M23,11 L70,24 L23,37 Z",
  let_fall: "M23,11 C28,23 44,23 70,24 C44,25 28,25 23,37 Z",
  small_pushes: "M23,11 H32 V37 H23 Z M35,14 H43 V34 H35 Z M46,17 H54 V31 H46 Z M57,20 H70 V28 H57 Z",
  one_part: "M19,13 L34,24 L19,35 Z M40,8 V40",
  whole: "M23,11 L70,24 L23,37 Z",
  air_first: "M25,11 L70,24 L25,37 Q20,24 25,11 Z",
  at_once: "M29,11 L70,24 L29,37 Z",
};
const DAYS: Record<string, readonly number[]> = {
  every_day: [1, 1, 1, 1, 1, 1, 1],
  most_days: [1, 1, 1, 1, 0, 1, 0],
  now_and_then: [0, 1, 0, 0, 1, 0, 0],
};
const WHOLE_LATER = "M46,24 L57,13 V35 Z M60,13 L71,24 L60,35 Z";

/** A way to teach as a small breath: filled in, outlined out; for practice a week of days. The words stand beside it. */
export function SchoolGlyph({ school }: { school: string }) {
  const days = DAYS[school];
  const line = { stroke: "currentColor", strokeWidth: 1.8, fill: "none", strokeLinejoin: "round" as const };
  return (
    <svg width={78} height={48} viewBox="0 0 78 48" aria-hidden>
      {days?.map((done, i) => (
        <path key={i} d={`M${1 + i * 11},24 l4.7,-7.5 l4.7,7.5 l-4.7,7.5 Z`} {...line} fill={done ? "currentColor" : "none"} />
      ))}
      {FILLED[school] && <path d={FILLED[school]} fill="currentColor" />}
      {LINED[school] && <path d={LINED[school]} {...line} />}
      {school === "one_part" && <path d={WHOLE_LATER} {...line} strokeDasharray="3 3" />}
    </svg>
  );
}

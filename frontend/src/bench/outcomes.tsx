import type { Outcome } from "../api/client";

/** What came out, in the order of the keys. */
export const OUTCOMES: { key: Outcome; words: string; past: string }[] = [
  { key: "nothing", words: "nothing", past: "Nothing came out." },
  { key: "only_air", words: "only air", past: "Only air came out." },
  { key: "squeak", words: "a squeak", past: "It squeaked, or was too high." },
  { key: "thin", words: "thin", past: "It was thin." },
  { key: "gurgling", words: "gurgling", past: "It gurgled." },
  { key: "note", words: "the note", past: "The note." },
];

const AIR = [4, 9, 14, 19, 24, 29, 34, 39, 44, 49, 54].map((x, i) => `M${x},${17 - ((i * 7) % 9)} V${17 + ((i * 7) % 9)}`).join(" ");
const WOBBLE = "M2,17 Q6,4 10,17 Q14,30 18,17 Q22,4 26,17 Q30,30 34,17 Q38,4 42,17 Q46,30 50,17 Q54,8 58,17";

/** How loud it was over its time, as a small picture of its own. */
export function Trace({ outcome }: { outcome: Outcome }) {
  return (
    <svg viewBox="0 0 60 34" width="60" height="34" fill="none" stroke="currentColor" strokeWidth="2" aria-hidden>
      {outcome === "nothing" && <path d="M2,17 H58" />}
      {outcome === "only_air" && <path d={AIR} />}
      {outcome === "squeak" && (
        <>
          <path d="M2,17 H58" />
          <path d="M30,3 L35,17 L30,31 L25,17 Z" fill="currentColor" />
        </>
      )}
      {outcome === "thin" && <rect x="2" y="15" width="56" height="4" rx="2" fill="currentColor" />}
      {outcome === "gurgling" && <path d={WOBBLE} strokeWidth="3" />}
      {outcome === "note" && <rect x="3" y="6" width="54" height="22" rx="9" fill="currentColor" />}
    </svg>
  );
}

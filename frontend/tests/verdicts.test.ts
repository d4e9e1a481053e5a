import { expect, test } from "vitest";

import type { Verdict } from "../src/api/client";
import { cut, inFront, NAMED, named, restWords } from "../src/take/inFront";

const verdict = (criterion: string, state: Verdict["state"], outside = false, area = "breath") =>
  ({ criterion, state, outside, area }) as Verdict;
const names = (verdicts: Verdict[], held = false, most?: number) => inFront(verdicts, held, most).map((v) => v.criterion);

test("four rows stand in front, the faults first, then lead, shoulders, fullness and counts", () => {
  const all = [
    verdict("trunk_inclination", "steady"),
    verdict("real_breath", "steady"),
    verdict("abdomen_leads", "steady"),
    verdict("shoulders_still", "watch", true),
    verdict("not_full_early", "steady"),
    verdict("with_count", "work", true),
    verdict("inhale_counts", "steady"),
  ];
  expect(names(all)).toEqual(["with_count", "shoulders_still", "abdomen_leads", "not_full_early"]);
});

test("what is watched without lying outside its band is no fault, and what is not readable is no row", () => {
  const all = [verdict("even_intake", "watch"), verdict("abdomen_leads", "unreadable"), verdict("inhale_counts", "steady")];
  expect(names(all)).toEqual(["inhale_counts", "even_intake"]);
});

test("of the rest what is just about goes before what is steady", () => {
  const all = [
    verdict("keeps_tall", "steady"),
    verdict("axis_level", "watch"),
    verdict("raise_spread", "watch", true),
    verdict("elbow_left", "steady"),
  ];
  expect(names(all)).toEqual(["raise_spread", "axis_level", "keeps_tall", "elbow_left"]);
});

test("where the hold is looked at, its rows and those of posture stand in front, all that fit, and none of the breath", () => {
  const held = Array.from({ length: 10 }, (_, i) => verdict(`held-${i}`, "steady", false, "hold"));
  const all = [
    verdict("with_count", "work", true),
    ...held,
    verdict("trunk_inclination", "watch", true, "posture"),
    verdict("wrist_left", "unreadable", false, "hold"),
  ];
  expect(names(all, true, 9)).toEqual(["trunk_inclination", ...held.slice(0, 8).map((v) => v.criterion)]);
});

test("of what is not readable four rows are named and the others counted, never one alone, and then there is a way to them", () => {
  const withheld = (many: number) => Array.from({ length: many }, (_, i) => ({ title: `Row ${i}`, why: "Film from the side." }) as Verdict);
  expect(named(withheld(5), NAMED)).toBe("row 0, row 1, row 2, row 3, row 4");
  expect(named(withheld(7), NAMED)).toBe("row 0, row 1, row 2, row 3 and 3 more");
  expect(named(withheld(7), 7)).toContain("row 6");
  expect([4, 5, 6, 7].map((many) => cut(withheld(many)))).toEqual([false, false, true, true]);
  const apart = [...withheld(4), { title: "Left elbow", why: "An arm lies across." } as Verdict];
  expect(cut(apart)).toBe(false);
});

test("what stands behind the button is counted so that it adds up, a fault that another row tells as well", () => {
  const told = { ...verdict("inhale_counts", "unreadable"), reason: "said_once" } as Verdict;
  expect(restWords([verdict("a", "steady"), verdict("b", "watch"), verdict("c", "steady"), told])).toBe(
    "the other 4: 1 watch, 2 steady, 1 told by another row",
  );
  expect(restWords([verdict("a", "steady"), verdict("b", "steady")])).toBe("the other 2: all steady");
  expect(restWords([verdict("a", "unreadable"), told])).toBe("the other 2: 1 told by another row, 1 not readable");
});

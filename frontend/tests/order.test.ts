import { expect, test } from "vitest";

import { movedTo } from "../src/today/order";

test("a chair moves to its place, the others close up, and the ends hold", () => {
  expect(movedTo([1, 2, 3, 4], 1, 2)).toEqual([2, 3, 1, 4]);
  expect(movedTo([1, 2, 3, 4], 4, 0)).toEqual([4, 1, 2, 3]);
  expect(movedTo([1, 2, 3], 2, -5)).toEqual([2, 1, 3]);
  expect(movedTo([1, 2, 3], 1, 99)).toEqual([2, 3, 1]);
});

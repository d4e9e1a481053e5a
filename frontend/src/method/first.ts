import type { Method } from "../api/client";

type Importance = Method["order"][number];

/** What a fault belongs to, in the teacher's words. */
export const IMPORTANCE: Record<Importance, string> = { seat: "the seat", breath: "the breath", hold: "the hold", count: "the count" };

/** The order with one of them a place nearer to the front. */
export function forward(order: Importance[], one: Importance): Importance[] {
  const at = order.indexOf(one);
  if (at < 1) return order;
  return [...order.slice(0, at - 1), one, order[at - 1]!, ...order.slice(at + 1)];
}

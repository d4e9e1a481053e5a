import type { Lesson } from "../api/client";

/** What this browser knows of the chair in front of a lesson: one for all its pages, since a page that comes knows of the lesson only what was loaded
 * before the last page's own word was heard. */
export class ChairInFront {
  private seat: number | undefined;
  private number: number;
  private saying = 0;

  constructor(now: Lesson["seat_now"]) {
    this.seat = now?.seat_id;
    this.number = now?.number ?? 0;
  }

  /** A page has this chair in front: whether that is to be said. Each that was begun is ended by `said`. */
  begins(seatId: number): boolean {
    if (seatId === this.seat) return false;
    this.seat = seatId;
    this.saying += 1;
    return true;
  }

  /** It was said, as the lesson's so-many-eth word; null: it could not be, and this browser keeps its own chair. */
  said(number: number | null) {
    this.saying -= 1;
    this.number = Math.max(this.number, number ?? 0);
  }

  /** The chair that was chosen elsewhere since, and is not followed yet. What was chosen before this browser's own last word is no news. */
  elsewhere(now: Lesson["seat_now"]): number | null {
    return now && this.saying === 0 && now.number > this.number && now.seat_id !== this.seat ? now.seat_id : null;
  }

  /** The same, to be followed now: it is told once. */
  hears(now: Lesson["seat_now"]): number | null {
    const seat = this.elsewhere(now);
    if (this.saying === 0) this.number = Math.max(this.number, now?.number ?? 0);
    this.seat = seat ?? this.seat;
    return seat;
  }
}

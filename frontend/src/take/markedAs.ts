/** What the pencil says of something on the clip: its colour there. */
export type Marked = "watch" | "work";

/** The mark of a state; what is steady, or could not be read, has none. */
export const markOf = (state: string | undefined): Marked | null => (state === "watch" || state === "work" ? state : null);

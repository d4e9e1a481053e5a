/** Keys with one of them moved to a place: before whoever stands there now. */
export function movedTo(keys: number[], key: number, place: number): number[] {
  const others = keys.filter((one) => one !== key);
  const at = Math.min(Math.max(place, 0), others.length);
  return [...others.slice(0, at), key, ...others.slice(at)];
}

import { Action } from "../design/Action";
import { Said } from "../design/Fields";

/** A part of the page that did not load, and once more. */
export function Trouble({ words, onRetry }: { words: string; onRetry: () => void }) {
  return (
    <>
      <Said role="alert">{words}</Said>
      <Action onPress={onRetry}>Try again</Action>
    </>
  );
}

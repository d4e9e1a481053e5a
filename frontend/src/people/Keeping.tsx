import { useState } from "react";

import { useKeep, useKeeping } from "../api/queries";
import { Action } from "../design/Action";
import { ChoiceLine, Said } from "../design/Fields";
import { Question } from "../design/Question";
import { chosenDays, goneWords, goWords, wordsOf } from "./keeping";
import { Part } from "./Part";

/** How long clips and stills are kept: chosen from a few times, and said before anything goes. */
export function Keeping() {
  const found = useKeeping();
  const keep = useKeep();
  const [chosen, setChosen] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  if (!found.data) return found.error ? <Said role="alert">{found.error.message}</Said> : null;
  const { days, offered } = found.data;
  const now = String(days ?? "");
  const value = chosen ?? now;
  const goes = offered.find((one) => String(one.days) === value)?.older ?? 0;
  const choices = [...new Set([...offered.map((one) => one.days), ...(days === null ? [] : [days])])].sort((a, b) => a - b);
  const done = () => {
    setChosen(null);
    setAsking(false);
  };
  const take = () => keep.mutate(chosenDays(value), { onSuccess: done });
  return (
    <Part aria-labelledby="keeping">
      <h2 id="keeping">Clips and stills</h2>
      <p>
        They go after the time you set here, and the day after a family&apos;s word to keep them ends. Readings stay, and can be judged anew
        without them. Your school&apos;s own rule comes first.
      </p>
      <ChoiceLine
        label="Keep them"
        value={value}
        options={[{ value: "", words: wordsOf(null) }, ...choices.map((one) => ({ value: String(one), words: wordsOf(one) }))]}
        onChange={setChosen}
      />
      {value !== now && <p role="status">{goWords(goes, chosenDays(value))}</p>}
      {keep.error && !asking && <Said role="alert">{keep.error.message}</Said>}
      {keep.data !== undefined && value === now && <Said role="status">{goneWords(keep.data)}</Said>}
      <p>
        <Action large isDisabled={value === now || keep.isPending} onPress={() => (goes > 0 ? setAsking(true) : take())}>
          Keep them so
        </Action>
      </p>
      <Question
        isOpen={asking}
        onClose={() => setAsking(false)}
        title={goWords(goes, chosenDays(value))}
        text="They are deleted from this computer now, and cannot be taken back. Their readings stay."
        does="Delete them, and keep it so"
        keeps="Leave it as it is"
        onDo={take}
        trouble={keep.error?.message}
      />
    </Part>
  );
}

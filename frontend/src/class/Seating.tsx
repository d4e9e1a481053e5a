import { Action } from "../design/Action";
import { Said } from "../design/Fields";

type Props = { chosen: string | null; trouble: string | undefined; onDone: () => void };

/** How chairs are moved. chosen: who moves by the arrow keys. */
export function Seating({ chosen, trouble, onDone }: Props) {
  return (
    <>
      <h2>Change the seats</h2>
      <p>Drag a chair to where it belongs; above the last row it begins one of its own.</p>
      <p>
        {chosen
          ? `${chosen} moves by the arrow keys: up is the row behind.`
          : "Or choose one chair and move it by the arrow keys: up is the row behind."}
      </p>
      <Action main large letter="Esc" onPress={onDone}>
        Done
      </Action>
      {trouble && <Said role="alert">{trouble}</Said>}
    </>
  );
}

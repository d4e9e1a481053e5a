import { useNavigate } from "react-router";

import { useMethod } from "../api/queries";
import { Action } from "../design/Action";

/** Before anybody has said how this programme teaches: where it is said. */
export function AskedHow() {
  const go = useNavigate();
  const method = useMethod();
  if (!method.data || method.data.asked) return null;
  return (
    <>
      <h2>How do you teach?</h2>
      <p>Five questions, one tap each. Until then everything is judged as usual.</p>
      <Action large letter="Y" onPress={() => go("/teaching")}>
        Answer them
      </Action>
    </>
  );
}

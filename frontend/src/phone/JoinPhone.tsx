import { useCallback, useEffect, useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import { useNavigate } from "react-router";

import { useJoin } from "../api/queries";
import { Action } from "../design/Action";
import { Door } from "../design/Door";
import { Said, TextLine } from "../design/Fields";
import { useTitle } from "../design/title";

/** The phone's side of pairing: the code comes with the picture that was scanned, or is typed. */
export function JoinPhone() {
  const go = useNavigate();
  const join = useJoin();
  const [code, setCode] = useState(() => location.hash.slice(1));
  const [scanned] = useState(code);
  useTitle("This phone films");
  const { mutate } = join;
  const enter = useCallback((with_: string) => mutate(with_, { onSuccess: () => go("/", { replace: true }) }), [mutate, go]);
  useEffect(() => {
    if (scanned) enter(scanned);
  }, [scanned, enter]);
  const send = (event: FormEvent) => {
    event.preventDefault();
    enter(code);
  };
  return (
    <Door>
      <h1>This phone films for the teacher</h1>
      <Form onSubmit={send}>
        <TextLine label="Code from the teacher's screen" value={code} onChange={setCode} isRequired autoFocus />
        {join.error && <Said role="alert">{join.error.message}</Said>}
        <Action main large type="submit" isDisabled={join.isPending || !code.trim()}>
          Film with this phone
        </Action>
      </Form>
    </Door>
  );
}

import { useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import { useNavigate } from "react-router";

import { useJoin } from "../api/programmes";
import { useAcceptInvitation, useMe } from "../api/queries";
import { Action } from "../design/Action";
import { Door } from "../design/Door";
import { Said, TextLine } from "../design/Fields";
import { useTitle } from "../design/title";

/** Somebody who was invited chooses a name and a password of their own; the link opens once. */
export function Invited() {
  const go = useNavigate();
  const accept = useAcceptInvitation();
  const me = useMe();
  const [code] = useState(() => location.hash.slice(1));
  const [asked, setAsked] = useState({ name: "", login: "", password: "" });
  useTitle("Invited");
  const put = (key: keyof typeof asked) => (value: string) => setAsked({ ...asked, [key]: value });
  const send = (event: FormEvent) => {
    event.preventDefault();
    accept.mutate({ ...asked, code }, { onSuccess: () => go("/", { replace: true }) });
  };
  return (
    <Door>
      <h1>You are invited</h1>
      {me.data?.name ? (
        <ComeInAs name={me.data.name} code={code} />
      ) : (
        <p>Do you sign in here already? Then sign in first, and open this link again.</p>
      )}
      <Form onSubmit={send}>
        <TextLine label="Your name" hint="Leave it empty to keep the name you were invited by." value={asked.name} onChange={put("name")} />
        <TextLine label="Name to sign in with" complete="username" value={asked.login} onChange={put("login")} isRequired />
        <TextLine
          label="Password"
          type="password"
          complete="new-password"
          minLength={10}
          hint="10 letters at least"
          value={asked.password}
          onChange={put("password")}
          isRequired
        />
        {accept.error && <Said role="alert">{accept.error.message}</Said>}
        <Action main large type="submit" isDisabled={accept.isPending}>
          Come in
        </Action>
      </Form>
    </Door>
  );
}

/** Who is signed in needs no second account. */
function ComeInAs({ name, code }: { name: string; code: string }) {
  const join = useJoin();
  return (
    <>
      {join.error && <Said role="alert">{join.error.message}</Said>}
      <Action main large onPress={() => join.mutate(code)} isDisabled={join.isPending}>
        Come in as {name}
      </Action>
      <p>Or with an account of its own:</p>
    </>
  );
}

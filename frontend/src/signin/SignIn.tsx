import { useState, type FormEvent } from "react";
import { Form, Input, Label, TextField } from "react-aria-components";
import styled from "styled-components";

import { useSignIn } from "../api/queries";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";

const Page = styled.main`
  min-height: 100%;
  display: grid;
  place-content: center;
  gap: 30px;
  padding: 24px;
`;
const Title = styled.h1`
  font-size: 54px;
  font-weight: 800;
  line-height: 1;
`;
const Sub = styled.p`
  color: ${colour("soft")};
  font-size: 18px;
  margin-top: 8px;
`;
const Fields = styled(Form)`
  display: grid;
  gap: 18px;
  width: min(360px, 86vw);
`;
const Field = styled(TextField)`
  display: grid;
  gap: 6px;
  font-weight: 650;
`;
const Line = styled(Input)`
  font: inherit;
  font-weight: 400;
  color: inherit;
  background: ${colour("sheet")};
  border: 1.5px solid ${colour("soft")};
  border-radius: 6px;
  min-height: 48px;
  padding: 0 12px;
`;
const Said = styled.p`
  color: ${colour("ink")};
  border-left: 4px solid ${colour("ink")};
  padding-left: 12px;
  max-width: 360px;
`;

/** The door. */
export function SignIn() {
  const [login, setLogin] = useState("");
  const [password, setPassword] = useState("");
  const signIn = useSignIn();
  const send = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate({ login, password });
  };
  return (
    <Page>
      <div>
        <Title>brevin</Title>
        <Sub>Half a minute of film. What the breath did, on the beat.</Sub>
      </div>
      <Fields onSubmit={send}>
        <Field value={login} onChange={setLogin} isRequired autoFocus name="login">
          <Label>Name</Label>
          <Line autoComplete="username" />
        </Field>
        <Field value={password} onChange={setPassword} isRequired type="password" name="password">
          <Label>Password</Label>
          <Line autoComplete="current-password" />
        </Field>
        {signIn.error && <Said role="alert">{signIn.error.message}</Said>}
        <Action main large type="submit" isDisabled={signIn.isPending}>
          Sign in
        </Action>
      </Fields>
    </Page>
  );
}

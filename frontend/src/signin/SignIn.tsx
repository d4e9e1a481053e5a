import { useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";

import { useSignIn } from "../api/queries";
import { Action } from "../design/Action";
import { Said, TextLine } from "../design/Fields";
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
        <TextLine label="Name" complete="username" value={login} onChange={setLogin} isRequired autoFocus name="login" />
        <TextLine
          label="Password"
          complete="current-password"
          value={password}
          onChange={setPassword}
          isRequired
          type="password"
          name="password"
        />
        {signIn.error && <Said role="alert">{signIn.error.message}</Said>}
        <Action main large type="submit" isDisabled={signIn.isPending}>
          Sign in
        </Action>
      </Fields>
    </Page>
  );
}

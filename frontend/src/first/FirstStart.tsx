import { useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";

import { useBegin } from "../api/queries";
import { Action } from "../design/Action";
import { Said, TextLine } from "../design/Fields";
import { colour } from "../design/tokens";
import { ownZone } from "../shared/zones";
import { Ruler } from "./Ruler";
import { useRunBefore } from "./useRun";

const Page = styled.main`
  max-width: 1080px;
  margin: 0 auto;
  padding: 40px 24px;
  h1 {
    font-size: 34px;
    font-weight: 800;
    line-height: 1.1;
  }
`;
const Lead = styled.p`
  color: ${colour("soft")};
  font-size: 18px;
  margin-top: 8px;
`;
const Columns = styled(Form)`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(300px, 100%), 1fr));
  gap: 26px 40px;
  margin-top: 34px;
  align-items: start;
`;
const Step = styled.section<{ $done: boolean }>`
  display: grid;
  gap: 16px;
  border-top: 2px solid ${(p) => colour(p.$done ? "ink" : "hair")};
  padding-top: 14px;
  h2 {
    font-size: 20px;
    font-weight: 800;
  }
  ol {
    display: grid;
    gap: 10px;
    color: ${colour("soft")};
    font-size: 17px;
  }
`;
const STILL = ["Two things are asked, then the class list.", "One thing more, then the class list.", "That is all: now the class list."];
const LEAST_PASSWORD = 10;

/** A new teacher, led by the hand: what the programme is called and who runs it. What is to come is soft, what is done is ink. */
export function FirstStart() {
  const go = useNavigate();
  const begin = useBegin();
  const [asked, setAsked] = useState({ programme: "", name: "", login: "", password: "" });
  const put = (key: keyof typeof asked) => (value: string) => setAsked({ ...asked, [key]: value });
  const named = asked.programme.trim() !== "";
  const known = asked.name.trim() !== "" && asked.login.trim() !== "" && asked.password.length >= LEAST_PASSWORD;
  const going = useRunBefore({ name: named, account: known });
  const send = (event: FormEvent) => {
    event.preventDefault();
    begin.mutate({ ...asked, time_zone: ownZone() }, { onSuccess: () => go("/class") });
  };
  return (
    <Page>
      <h1>{STILL[Number(named) + Number(known)]}</h1>
      <Lead>Brevin is empty. Everything stays on this computer; nothing here asks for a network.</Lead>
      <Ruler going={going} />
      <Columns onSubmit={send}>
        <Step $done={named}>
          <h2>Your programme</h2>
          <TextLine
            label="What it is called"
            value={asked.programme}
            onChange={put("programme")}
            isRequired
            autoFocus
            name="programme"
            hint="A school, a band, a year: as you say it."
          />
        </Step>
        <Step $done={known}>
          <h2>First account</h2>
          <TextLine label="Your name" complete="name" value={asked.name} onChange={put("name")} isRequired name="name" />
          <TextLine label="Name to sign in with" complete="username" value={asked.login} onChange={put("login")} isRequired name="login" />
          <TextLine
            label="Password"
            complete="new-password"
            type="password"
            value={asked.password}
            onChange={put("password")}
            isRequired
            minLength={LEAST_PASSWORD}
            name="password"
            hint={`${LEAST_PASSWORD} letters at least. Nobody can look it up: write it down.`}
          />
          {begin.error && <Said role="alert">{begin.error.message}</Said>}
          <Action main large type="submit" isDisabled={begin.isPending || !named || !known}>
            Go on to the class list
          </Action>
        </Step>
        <Step $done={false}>
          <h2>Then</h2>
          <ol>
            <li>Drop the class list as a CSV file.</li>
            <li>Say whose letter about filming is back.</li>
            <li>Answer five questions on how you teach.</li>
            <li>Plan the first lesson: who needs a look comes first.</li>
            <li>Film half a minute, and say one sentence.</li>
          </ol>
        </Step>
      </Columns>
    </Page>
  );
}

import { useState, type ReactNode } from "react";
import { Button, Dialog, DialogTrigger, Popover } from "react-aria-components";
import { NavLink, useLocation } from "react-router";
import styled from "styled-components";

import { PHONE } from "./sizes";
import { colour } from "./tokens";
import { usePhone } from "./usePhone";

const Bar = styled.header`
  display: flex;
  align-items: stretch;
  gap: 26px;
  height: 44px;
  padding: 0 24px;
  border-bottom: 1px solid ${colour("ink")};
  @media print {
    display: none;
  }
  @media (max-width: 1100px) {
    gap: 2px;
    padding: 0 12px;
  }
  @media ${PHONE} {
    flex-wrap: wrap; /* nothing of it is out of reach where letters are larger still */
    height: auto;
    > a {
      height: 44px;
      padding: 0 8px;
    }
  }
`;
const Name = styled.span`
  align-self: center;
  font-weight: 800;
  font-size: 18px;
  margin-right: 8px;
`;
const Tab = styled(NavLink)`
  display: flex;
  align-items: center;
  padding: 0 12px;
  text-decoration: none;
  font-weight: 650;
  color: ${colour("soft")};
  border-bottom: 5px solid transparent;
  border-top: 5px solid transparent;
  &[aria-current="page"],
  &[data-within="true"] {
    color: ${colour("ink")};
    border-bottom-color: ${colour("ink")};
  }
`;
const Right = styled.div`
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 18px;
  color: ${colour("soft")};
  font-size: 15px;
  white-space: nowrap;
  @media (max-width: 1100px) {
    .desk {
      display: none;
    }
  }
`;
/** A word of the bar that does something. */
export const Quiet = styled(Button)`
  border: 0;
  background: none;
  font: inherit;
  color: ${colour("soft")};
  padding: 6px 2px;
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 3px;
`;
/** What has no room beside the rest on a phone, one below the other. */
const Rest = styled(Popover)`
  background: ${colour("sheet")};
  color: ${colour("ink")};
  border: 1px solid ${colour("ink")};
  border-radius: 6px;
  min-width: 220px;
  max-width: 92vw;
  section {
    display: grid;
    padding: 6px 0;
  }
  section > * {
    min-height: 48px;
    padding: 0 18px;
    border: 0;
    text-align: start;
    overflow-wrap: anywhere;
  }
`;
const More = styled(Quiet)<{ $within: boolean }>`
  margin-left: auto;
  min-width: 48px;
  color: ${(p) => p.$within && colour("ink")};
  font-weight: ${(p) => p.$within && 650};
`;
const Main = styled.main`
  padding: 0 24px 20px;
  min-width: 0;
`;

type Props = { children: ReactNode; group: ReactNode; who: string; people: boolean; onSignOut: () => void; onScheme: () => void };

/** The frame of every screen. */
export function Shell({ children, ...rest }: Props) {
  const { pathname } = useLocation();
  const phone = usePhone();
  return (
    <>
      <Bar>
        <Name>brevin</Name>
        <Tab to="/" end data-within={pathname.startsWith("/take/")}>
          Today
        </Tab>
        <Tab to="/class" data-within={pathname.startsWith("/student/")}>
          Class
        </Tab>
        <Tab to="/bench">Bench</Tab>
        <Tab to="/cards">Cards</Tab>
        {phone ? (
          <Folded {...rest} />
        ) : (
          <>
            <Seldom people={rest.people} />
            <Right>
              {rest.group}
              <Quiet onPress={rest.onScheme}>light or dark</Quiet>
              <span className="desk">? keys</span>
              <SignOut {...rest} />
            </Right>
          </>
        )}
      </Bar>
      <Main>{children}</Main>
    </>
  );
}

const SELDOM = ["/teaching", "/people"];

function Seldom({ people, onGo }: Pick<Props, "people"> & { onGo?: () => void }) {
  return (
    <>
      <Tab to="/teaching" onClick={onGo}>
        Teaching
      </Tab>
      {people && (
        <Tab to="/people" onClick={onGo}>
          People
        </Tab>
      )}
    </>
  );
}

function SignOut({ who, onSignOut }: Pick<Props, "who" | "onSignOut">) {
  return (
    <Quiet onPress={onSignOut} aria-label={`Sign out ${who}`}>
      sign out
    </Quiet>
  );
}

/** On a phone the bar is one line, so that the page begins higher: what is wanted seldom is folded away. */
function Folded(rest: Omit<Props, "children">) {
  const { pathname } = useLocation();
  const [open, setOpen] = useState(false);
  const close = () => setOpen(false);
  const andClose = (does: () => void) => () => {
    close();
    does();
  };
  return (
    <DialogTrigger isOpen={open} onOpenChange={setOpen}>
      <More $within={SELDOM.includes(pathname)} aria-label="More pages">
        more
      </More>
      <Rest placement="bottom end">
        <Dialog aria-label="More">
          <Seldom people={rest.people} onGo={close} />
          {rest.group}
          <Quiet onPress={andClose(rest.onScheme)}>light or dark</Quiet>
          <SignOut who={rest.who} onSignOut={andClose(rest.onSignOut)} />
        </Dialog>
      </Rest>
    </DialogTrigger>
  );
}

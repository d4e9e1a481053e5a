import type { ReactNode } from "react";
import { Button } from "react-aria-components";
import { NavLink, useLocation } from "react-router";
import styled from "styled-components";

import { PHONE } from "./sizes";
import { colour } from "./tokens";

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
    flex-wrap: wrap; /* nothing of it is out of reach on a phone, or zoomed */
    height: auto;
    > a {
      height: 40px;
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
const Main = styled.main`
  padding: 0 24px 20px;
  min-width: 0;
`;

type Props = { children: ReactNode; group: ReactNode; who: string; people: boolean; onSignOut: () => void; onScheme: () => void };

/** The frame of every screen. */
export function Shell({ children, group, who, people, onSignOut, onScheme }: Props) {
  const { pathname } = useLocation();
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
        <Tab to="/teaching">Teaching</Tab>
        {people && <Tab to="/people">People</Tab>}
        <Right>
          {group}
          <Quiet onPress={onScheme}>light or dark</Quiet>
          <span className="desk">? keys</span>
          <Quiet onPress={onSignOut} aria-label={`Sign out ${who}`}>
            sign out
          </Quiet>
        </Right>
      </Bar>
      <Main>{children}</Main>
    </>
  );
}

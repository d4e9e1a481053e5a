import type { ReactNode } from "react";
import { Button, type ButtonProps } from "react-aria-components";
import styled from "styled-components";

import { PHONE } from "./sizes";
import { colour } from "./tokens";

const Shape = styled(Button)<{ $main: boolean; $large: boolean; $pressed: boolean }>`
  display: inline-flex;
  align-items: center;
  gap: 12px;
  cursor: pointer;
  white-space: nowrap;
  min-height: ${(p) => (p.$large ? 60 : 40)}px;
  padding: 0 ${(p) => (p.$large ? 20 : 14)}px;
  border: 1.5px solid ${colour("ink")};
  border-radius: 6px;
  box-shadow: ${(p) => (p.$pressed ? `inset 0 0 0 1.5px ${colour("ink")}` : "none")};
  background: ${(p) => (p.$main ? colour("ink") : "transparent")};
  color: ${(p) => (p.$main ? colour("ground") : colour("ink"))};
  font: inherit;
  font-weight: 650;
  font-size: ${(p) => (p.$large ? 18 : 16)}px;
  @media ${PHONE} {
    kbd {
      display: none; /* a phone has no keys */
    }
  }
  &[data-hovered] {
    background: ${(p) => (p.$main ? colour("ink") : colour("wash"))};
  }
  &[data-pressed] {
    transform: translateY(1px);
  }
  &[data-disabled] {
    border-color: ${colour("hair")};
    background: transparent;
    color: ${colour("soft")};
    cursor: default;
  }
`;

export const KeyCap = styled.kbd`
  display: inline-block;
  min-width: 20px;
  padding: 0 5px;
  text-align: center;
  font: inherit;
  font-size: 12px;
  line-height: 18px;
  font-weight: 650;
  border: 1px solid currentColor;
  border-radius: 4px;
  opacity: 0.85;
`;

type Props = ButtonProps & { children: ReactNode; letter?: string; main?: boolean; large?: boolean; pressed?: boolean };

/** A button with its key printed on it; pressed: it stays on until it is pressed again. */
export function Action({ children, letter, main = false, large = false, pressed, ...rest }: Props) {
  return (
    <Shape $main={main} $large={large} $pressed={pressed ?? false} aria-pressed={pressed} {...rest}>
      {children}
      {letter && <KeyCap aria-hidden>{letter}</KeyCap>}
    </Shape>
  );
}

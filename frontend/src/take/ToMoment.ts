import { Button } from "react-aria-components";
import styled from "styled-components";

import { colour } from "../design/tokens";

/** A number that leads to its moment of the clip: what it is, underlined, and how much. */
export const ToMoment = styled(Button)`
  display: grid;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  line-height: 1.2;
  text-align: start;
  color: ${colour("soft")};
  cursor: pointer;
  span:first-child {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  b {
    font-weight: 650;
    color: ${colour("ink")};
  }
`;

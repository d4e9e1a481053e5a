import { Button } from "react-aria-components";
import styled from "styled-components";

import { colour } from "../design/tokens";

/** A button that looks like a link: what is seldom pressed. */
export const Plain = styled(Button)`
  border: 0;
  background: none;
  font: inherit;
  color: ${colour("soft")};
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  padding: 0;
`;

import { css } from "styled-components";

import { colour } from "./tokens";

/** What is to be done next stays at a phone's lower edge, under the thumb, whatever is read above it; as wide as the page with its padding of 24 px. */
export const underThumb = css`
  position: sticky;
  bottom: 0;
  z-index: 1;
  margin: 0 -24px;
  padding: 10px 24px;
  background: ${colour("ground")};
  border-top: 1px solid ${colour("ink")};
  > button {
    flex: 1 1 auto;
    justify-content: center;
  }
`;

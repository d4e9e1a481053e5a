import styled from "styled-components";

import { colour } from "../design/tokens";

/** A part of the open card: its name, and softly what it is for. */
export const Panel = styled.section`
  h2 {
    font-size: 17px;
    font-weight: 650;
    span {
      font-weight: 400;
      color: ${colour("soft")};
    }
  }
`;

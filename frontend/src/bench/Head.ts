import styled from "styled-components";

import { colour } from "../design/tokens";

/** The first line of a page of the bench: what it is about, and quietly where it stands. */
export const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px 14px;
  padding: 12px 0 8px;
  h1 {
    font-size: 25px;
    font-weight: 800;
  }
  p {
    color: ${colour("soft")};
    font-size: 17px;
  }
`;

import styled from "styled-components";

import { colour } from "../design/tokens";

/** One part of what an owner sets for the programme, below the people. */
export const Part = styled.section`
  display: grid;
  gap: 12px;
  align-content: start;
  margin-top: 34px;
  max-width: 460px;
  p {
    color: ${colour("soft")};
  }
`;

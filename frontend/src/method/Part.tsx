import styled from "styled-components";

import { colour } from "../design/tokens";

/** A line under the questions: what it is about, its buttons, what they mean. */
export const Part = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
  padding-top: 14px;
  p {
    color: ${colour("soft")};
  }
  p:first-child {
    min-width: 130px;
  }
  small {
    font-size: 14px;
    color: ${colour("soft")};
  }
`;

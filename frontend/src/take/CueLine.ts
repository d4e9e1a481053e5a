import styled from "styled-components";

import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";

/** What stands in a row under the cue: words, and buttons no higher than they; on a phone all of them are one row. */
export const CueLine = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  color: ${colour("soft")};
  font-size: 15px;
  b {
    color: ${colour("ink")};
    font-weight: 650;
  }
  @media ${PHONE} {
    display: contents;
    > span {
      flex-basis: 100%;
      font-size: 15px;
      color: ${colour("soft")};
    }
  }
  button {
    min-height: 28px;
    margin-block: -4px; /* the row stays as high as its words */
    padding: 0 10px;
    font-size: 15px;
    @media ${PHONE} {
      margin-block: 0;
      min-height: 48px;
    }
  }
`;

import styled from "styled-components";

/** Buttons of which one holds. */
export const Joined = styled.div`
  display: flex;
  flex-wrap: wrap;
  button + button {
    margin-left: -1px;
  }
`;

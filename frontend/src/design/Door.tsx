import styled from "styled-components";

/** A page for somebody who is not in yet: one heading, one form, in the middle. */
export const Door = styled.main`
  min-height: 100dvh;
  display: grid;
  place-content: center;
  gap: 22px;
  padding: 24px;
  h1 {
    font-size: 30px;
    font-weight: 800;
  }
  form {
    display: grid;
    gap: 16px;
    width: min(380px, 86vw);
  }
`;

import styled from "styled-components";

/** What is on the screen and not on paper. */
export const OnThePage = styled.div`
  @media print {
    display: none;
  }
`;

/** What is on paper and not on the screen. */
export const OnPaper = styled.article`
  display: none;
  @media print {
    display: block;
  }
`;

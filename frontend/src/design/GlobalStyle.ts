import { createGlobalStyle } from "styled-components";

import { asVariables, chalk, colour, paper } from "./tokens";

export const GlobalStyle = createGlobalStyle`
  :root {
    ${asVariables(paper)}
    color-scheme: light;
  }
  :root[data-scheme="chalk"] {
    ${asVariables(chalk)}
    color-scheme: dark;
  }
  *,
  *::before,
  *::after {
    box-sizing: border-box;
  }
  html,
  body,
  #page {
    height: 100%;
  }
  body {
    margin: 0;
    background: ${colour("ground")};
    color: ${colour("ink")};
    font-family: "Source Sans 3", system-ui, sans-serif;
    font-size: 16px;
    line-height: 1.35;
    font-variant-numeric: tabular-nums;
    -webkit-font-smoothing: antialiased;
  }
  h1,
  h2,
  h3,
  p,
  ol,
  ul,
  dl,
  dd,
  figure {
    margin: 0;
    padding: 0;
  }
  ol,
  ul {
    list-style: none;
  }
  a {
    color: inherit;
    text-underline-offset: 3px;
  }
  :focus {
    outline: none;
  }
  :focus-visible,
  [data-focus-visible] {
    outline: 3px solid ${colour("ink")};
    outline-offset: 2px;
  }
  svg text {
    font-family: inherit;
    font-variant-numeric: tabular-nums;
  }
  .unseen {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
    white-space: nowrap;
  }
`;

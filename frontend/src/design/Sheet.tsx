import { Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";

import { colour } from "./tokens";

/** What lies over the page while a sheet asks or explains. */
export const Shade = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  display: grid;
  place-items: center;
  background: color-mix(in srgb, ${colour("ink")} 40%, transparent);
  z-index: 10;
`;

/** A sheet of paper over the page. */
export const Sheet = styled(Modal)`
  background: ${colour("sheet")};
  color: ${colour("ink")};
  border-radius: 6px;
  padding: 24px 28px;
  max-width: 92vw;
  max-height: 86vh;
  overflow: auto;
`;

import styled from "styled-components";

import { onClip } from "../design/tokens";

/** What is drawn over the whole of a clip, and takes no taps. Its text is light with a dark edge, or pencil. */
export const OverClip = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  text {
    fill: ${onClip.light};
    stroke: ${onClip.dark};
    stroke-width: 4px;
    paint-order: stroke;
    font-weight: 700;
  }
  .watch {
    fill: ${onClip.watch};
  }
  .work {
    fill: ${onClip.work};
  }
`;

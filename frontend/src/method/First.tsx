import styled from "styled-components";

import type { Method } from "../api/client";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import { forward, IMPORTANCE } from "./first";
import { Part } from "./Part";

const Row = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
  li {
    position: relative;
  }
  li + li::before {
    content: "";
    position: absolute;
    left: -17px;
    top: 50%;
    width: 12px;
    border-top: 1.5px solid ${colour("ink")};
  }
`;

type Props = { order: Method["order"]; may: boolean; onOrder: (order: Method["order"]) => void };

/** Which fault is spoken of first: pressing one moves it one place to the front. */
export function First({ order, may, onOrder }: Props) {
  return (
    <Part aria-labelledby="first">
      <p id="first">spoken of first</p>
      <Row>
        {order.map((one, i) => (
          <li key={one}>
            <Action
              main={i === 0}
              isDisabled={!may}
              aria-label={`${IMPORTANCE[one]}, ${i + 1} of ${order.length}${i > 0 ? ": move forward" : ""}`}
              onPress={() => i > 0 && onOrder(forward(order, one))}
            >
              {IMPORTANCE[one]}
            </Action>
          </li>
        ))}
      </Row>
      <p>Of several faults this decides the cue. Press one to move it forward.</p>
    </Part>
  );
}

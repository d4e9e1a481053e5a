import styled from "styled-components";

import type { BenchCard, CareTask } from "../api/client";
import { colour } from "../design/tokens";
import { Lines } from "./Lines";

const List = styled.section`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(380px, 1fr));
  gap: 18px 30px;
  margin-top: 22px;
  svg {
    height: 200px;
  }
  figcaption {
    color: ${colour("soft")};
  }
  figcaption b {
    display: block;
    color: ${colour("ink")};
  }
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** How it is done, drawn where a drawing says more than a sentence. */
export function How({ card, tasks }: { card: BenchCard; tasks: CareTask[] }) {
  return (
    <List aria-label="How it is done">
      {tasks.map((task) => {
        const drawing = card.drawings[task.drawing];
        return (
          drawing && (
            <figure key={task.key}>
              <Lines drawing={drawing} />
              <figcaption>
                <b>{task.title}</b>
                {task.say}
              </figcaption>
            </figure>
          )
        );
      })}
    </List>
  );
}

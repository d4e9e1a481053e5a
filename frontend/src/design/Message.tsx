import styled from "styled-components";

import { Action } from "./Action";
import { colour } from "./tokens";

const Box = styled.section`
  display: grid;
  gap: 14px;
  max-width: 620px;
  padding: 60px 24px;
  justify-items: start;
`;
const Title = styled.h1`
  font-size: 30px;
  font-weight: 800;
  line-height: 1.15;
`;
const Text = styled.p`
  font-size: 18px;
  color: ${colour("soft")};
`;

const Ways = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
`;

type Props = { title: string; text: string; onRetry?: () => void; quiet?: boolean; onGo?: () => void; goes?: string };

/** A page that has only one thing to say: what is wrong and what to do; quiet where nothing is wrong. */
export function Message({ title, text, onRetry, quiet = false, onGo, goes }: Props) {
  return (
    <Box role={quiet ? "status" : "alert"}>
      <Title>{title}</Title>
      <Text>{text}</Text>
      <Ways>
        {onRetry && (
          <Action main large onPress={onRetry}>
            Try again
          </Action>
        )}
        {onGo && (
          <Action main={!onRetry} large onPress={onGo}>
            {goes}
          </Action>
        )}
      </Ways>
    </Box>
  );
}

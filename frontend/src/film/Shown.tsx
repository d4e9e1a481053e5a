import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { colour, onClip } from "../design/tokens";

const Whole = styled.section`
  position: fixed;
  inset: 0;
  z-index: 2;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 16px;
  padding: 24px;
  background: ${colour("ground")};
  h1 {
    font-size: 40px;
    font-weight: 800;
    text-align: center;
  }
  video {
    width: 100%;
    height: 100%;
    object-fit: contain;
    background: ${onClip.dark};
    border-radius: 6px;
  }
  p {
    display: flex;
    justify-content: center;
  }
`;

/** Me, then you: the teacher's own demonstration, over everything else; then it is the student's turn. A demonstration that does not play is passed over. */
export function Shown({ address, onEnd }: { address: string; onEnd: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const [soundAlone, setSoundAlone] = useState(false);
  const ended = useRef(onEnd);
  useEffect(() => {
    ended.current = onEnd;
  });
  useEffect(() => {
    video.current?.play().catch(() => ended.current());
  }, []);
  useKeys("Demonstration", [
    { key: " ", shown: "space", does: "your turn: on to the count-in", run: onEnd },
    { key: "Escape", shown: "Esc", does: "the same", run: onEnd },
  ]);
  return (
    <Whole aria-label="Demonstration">
      <h1>{soundAlone ? "First listen, then you" : "First me, then you"}</h1>
      <video
        ref={video}
        src={address}
        playsInline
        onLoadedMetadata={({ currentTarget }) => setSoundAlone(currentTarget.videoWidth === 0)}
        onEnded={onEnd}
        onError={onEnd}
      />
      <p>
        <Action large main letter="space" onPress={onEnd}>
          Your turn
        </Action>
      </p>
    </Whole>
  );
}

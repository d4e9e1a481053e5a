import { useEffect, useState, type RefObject } from "react";
import styled from "styled-components";

import { PHONE } from "../design/sizes";
import { colour, onClip } from "../design/tokens";
import type { Camera } from "./useCamera";

const Picture = styled.div`
  position: relative;
  border-radius: 6px;
  overflow: hidden;
  background: ${colour("sheet")};
  video {
    width: 100%;
    height: 100%;
    object-fit: contain;
    display: block;
  }
  @media ${PHONE} {
    margin: 0 -16px;
    border-radius: 0;
  }
`;
const Guide = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
`;
const OnPicture = styled.p`
  position: absolute;
  left: 16px;
  bottom: 12px;
  @media ${PHONE} {
    bottom: auto;
    top: 6px;
  }
  color: ${onClip.light};
  font-size: 18px;
  font-weight: 650;
  text-shadow:
    0 0 4px ${onClip.dark},
    0 0 2px ${onClip.dark};
`;
const WIDE: [number, number] = [16, 9]; // until the camera says its own shape
/** The corners to stand between, hundredths of the picture's width and height: each as its two ends about the bend. */
const CORNERS = [
  [22, 16, 22, 8, 27, 8],
  [73, 8, 78, 8, 78, 16],
  [22, 84, 22, 92, 27, 92],
  [73, 92, 78, 92, 78, 84],
];

type PreviewProps = {
  camera: Camera;
  videoRef: RefObject<HTMLVideoElement | null>;
  running: boolean;
  beat_s: number;
  beats: number | null;
  beat: () => number | null;
};

/** What the camera sees, with corners to stand between. */
export function Preview({ camera, videoRef, running, beat_s, beats, beat }: PreviewProps) {
  const [gone_s, setGone] = useState(0);
  const [[width, height], setShape] = useState(WIDE);
  useEffect(() => {
    if (videoRef.current) videoRef.current.srcObject = camera.stream;
  }, [videoRef, camera.stream]);
  useEffect(() => {
    if (!running) return;
    const ticking = setInterval(() => setGone(Math.max((beat() ?? 0) * beat_s, 0)), 500);
    return () => clearInterval(ticking);
  }, [running, beat, beat_s]);
  return (
    <Picture>
      <video
        ref={videoRef}
        autoPlay
        muted
        playsInline
        aria-label="What the camera sees"
        onResize={({ currentTarget: { videoWidth, videoHeight } }) => videoWidth && setShape([videoWidth, videoHeight])}
      />
      <Guide viewBox={`0 0 ${width} ${height}`} aria-hidden>
        {CORNERS.map((ends) => (
          <polyline
            key={ends.join()}
            points={ends.map((hundredths, i) => (hundredths * (i % 2 ? height : width)) / 100).join(" ")}
            fill="none"
            stroke={onClip.light}
            strokeWidth="3"
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </Guide>
      <OnPicture>
        {running
          ? `filming ${gone_s.toFixed(0)} s${beats ? ` of ${(beats * beat_s).toFixed(0)}` : ""}`
          : "head to knees inside the corners"}
      </OnPicture>
    </Picture>
  );
}

import { useMemo, type Ref } from "react";
import styled from "styled-components";

import type { Drawing, Report, Take } from "../api/client";
import { colour, onClip } from "../design/tokens";
import { GROWS } from "./bodyLine";
import { cropOf } from "./crop";
import { Overlay, type OverlayHandle } from "./Overlay";
import { DrawAim, DrawnOn, type Drawer, type DrawnHandle } from "./Drawn";
import { LineAim, LineAsks, type LineSetting } from "./SetLine";

const SHAPE = 1.5;

const Picture = styled.div`
  position: relative;
  background: ${colour("ink")};
  border-radius: 4px;
  overflow: hidden;
  aspect-ratio: ${SHAPE};
  cursor: pointer;
  video {
    width: 100%;
    height: 100%;
    display: block;
  }
`;
const Frame = styled.div.attrs<{ $at: [number, number, number, number] }>((p) => ({
  style: { left: `${p.$at[0]}%`, top: `${p.$at[1]}%`, width: `${p.$at[2]}%`, height: `${p.$at[3]}%` },
}))`
  position: absolute;
`;
const Moment = styled.p`
  position: absolute;
  left: 12px;
  bottom: 8px;
  color: ${onClip.light};
  font-weight: 650;
  font-size: 16px;
  text-shadow:
    0 0 4px ${onClip.dark},
    0 0 2px ${onClip.dark};
  pointer-events: none;
`;

const Legend = styled(Moment)`
  bottom: auto;
  top: 8px;
  font-size: 15px;
`;
const Gone = styled(Legend)`
  right: 12px;
`;

const Blurred = styled(Moment)`
  left: auto;
  right: 12px;
  font-size: 13px;
`;

type Props = {
  take: Take;
  report: Report;
  video: Ref<HTMLVideoElement>;
  overlay: Ref<OverlayHandle>;
  moment: Ref<HTMLParagraphElement>;
  bands: boolean;
  places: boolean;
  line: LineSetting | null;
  drawn: { kept: Drawing[]; drawer: Drawer | null };
  onDrawn: Ref<DrawnHandle>;
  onTurn: () => void;
};

const lineWords = ({ view, player, hold }: Report) => {
  if (!player?.outlines?.length) return "";
  const hands = Object.values(hold?.wrist_deg ?? {}).some(Boolean) ? ", hands" : "";
  const rings = player.stickers?.length ? " · ring: sticker" : "";
  return ` · line: ${view === "front" ? "shoulders, face" : "back"}${hands}${rings}`;
};

/** Why there is no clip to be seen. */
function unseenWords(clip: Take["clip"]): string {
  if (!clip) return "The clip has gone, its time to be kept is over. What was read of it stays.";
  if (clip.coming) return "Somebody else is in the picture and is being blurred. The clip comes in a moment.";
  return "Somebody else is in the picture and could not be blurred, so the clip is not shown. What was read of it stays; read it again, or film again.";
}

/** The clip, cut to the player, with what was followed drawn on it. bands: those of the breath as well; places: where on the trunk was looked; line: while the
 *  instrument's is set by hand; drawn: what the teacher drew and draws. */
export function ClipPicture({ take, report, video, overlay, moment, bands, places, line, drawn, onDrawn, onTurn }: Props) {
  const crop = useMemo(() => cropOf(report, SHAPE), [report]);
  const { width_px: width, height_px: height } = report.clip;
  const at: [number, number, number, number] = [
    (-100 * crop.left) / crop.width,
    (-100 * crop.top) / crop.height,
    (100 * width) / crop.width,
    (100 * height) / crop.height,
  ];
  return (
    <Picture data-clip onClick={onTurn}>
      <Frame $at={at}>
        {take.clip?.url && (
          <video ref={video} src={take.clip.url} preload="auto" playsInline tabIndex={-1} aria-label={`Clip of ${take.student.name}`} />
        )}
        <Overlay report={report} handle={overlay} shownHeight={crop.height} bands={bands} places={places} />
        <DrawnOn report={report} kept={drawn.kept} middle={crop.left + crop.width / 2} handle={onDrawn} />
        {line && <LineAim report={report} setting={line} />}
        {drawn.drawer && <DrawAim report={report} drawer={drawn.drawer} />}
      </Frame>
      {line && <LineAsks setting={line} />}
      {places && (
        <Legend>
          bar: edge · dot: surface · cross: set aside{lineWords(report)}
          {bands && ` · movement ×${GROWS}`}
        </Legend>
      )}
      {!take.clip?.url && <Gone role="status">{unseenWords(take.clip)}</Gone>}
      {take.clip?.others_blurred && <Blurred>others are blurred</Blurred>}
      <Moment ref={moment} />
    </Picture>
  );
}

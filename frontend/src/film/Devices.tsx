import styled from "styled-components";

import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import type { Camera, Device } from "./useCamera";

const Pick = styled.select`
  font: inherit;
  color: inherit;
  background: transparent;
  border: 1.5px solid ${colour("hair")};
  border-radius: 6px;
  min-height: 44px;
  min-width: 0;
  flex: 1 1 120px;
  @media ${PHONE} {
    flex-basis: 28%;
  }
`;
const Both = styled.div`
  display: flex;
  gap: 8px;
  margin-top: 10px;
  @media ${PHONE} {
    display: contents;
  }
`;

/** Which camera and which microphone, where there is a choice; the next time they are the same. */
export function Devices({ camera }: { camera: Camera }) {
  const offered = (["camera", "microphone"] as const).filter((device) => camera.devices[device].length > 1);
  if (!offered.length) return null;
  return (
    <Both>
      {offered.map((device) => (
        <Pick
          key={device}
          aria-label={device}
          value={inUse(camera, device)}
          onChange={(event) => camera.choose(device, event.target.value)}
        >
          {camera.devices[device].map((one, i) => (
            <option key={one.deviceId} value={one.deviceId}>
              {one.label || `${device} ${i + 1}`}
            </option>
          ))}
        </Pick>
      ))}
    </Both>
  );
}

/** The one that films or hears now; the browser's usual one goes by a name of its own. */
function inUse({ stream, devices }: Camera, device: Device): string | undefined {
  const [track] = (device === "camera" ? stream?.getVideoTracks() : stream?.getAudioTracks()) ?? [];
  const { deviceId, groupId } = track?.getSettings() ?? {};
  const known = devices[device];
  return (known.find((one) => one.deviceId === deviceId) ?? known.find((one) => one.groupId === groupId))?.deviceId;
}

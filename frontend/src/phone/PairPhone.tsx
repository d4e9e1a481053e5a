import { useEffect } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";

import { usePair } from "../api/queries";
import { Action } from "../design/Action";
import { Said } from "../design/Fields";
import { Shade, Sheet } from "../design/Sheet";
import { colour } from "../design/tokens";

const Pairing = styled(Sheet)`
  max-width: 520px;
  img {
    width: 230px;
    height: 230px;
    background: white;
    border-radius: 6px;
  }
  .code {
    font-size: 40px;
    font-weight: 800;
    letter-spacing: 0.06em;
  }
  p {
    margin: 8px 0;
  }
  .soft {
    color: ${colour("soft")};
    overflow-wrap: anywhere;
  }
`;

/** How a phone comes to film: a picture to scan, or an address and a code. */
export function PairPhone({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Shade isOpen={isOpen} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Pairing>
        <Dialog>
          <Heading slot="title">A phone films</Heading>
          <Code />
          <Action main autoFocus onPress={onClose}>
            Close
          </Action>
        </Dialog>
      </Pairing>
    </Shade>
  );
}

function Code() {
  const { mutate, data, error } = usePair();
  useEffect(() => mutate(), [mutate]);
  if (error) return <Said role="alert">{error.message}</Said>;
  if (!data) return <p role="status">Making a code</p>;
  if (!data.lan)
    return (
      <p>
        This Brevin is open to this computer alone. Stop it and start it with <b>./start --lan</b>: then a phone in the same network finds
        it here.
      </p>
    );
  return (
    <>
      <img src={data.qr} alt={`Square to scan: it opens ${data.addresses[0]}`} />
      <p className="soft">or open {data.addresses[0]?.split("#")[0]} and type</p>
      <p className="code">{data.code}</p>
      <p className="soft">
        It opens once, for five minutes. The phone asks whether to trust this computer: its certificate is Brevin&apos;s own. It films and
        does nothing else, until you sign out.
      </p>
    </>
  );
}

import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";

import { Action } from "./Action";
import { Shade, Sheet } from "./Sheet";

const Asked = styled(Sheet)`
  max-width: min(460px, 92vw);
  p {
    margin: 10px 0 18px;
  }
  div {
    display: flex;
    gap: 12px;
  }
`;

type Props = {
  isOpen: boolean;
  onClose: () => void;
  title: string;
  text: string;
  does: string;
  keeps: string;
  onDo: () => void;
  trouble?: string;
};

/** Asks before something is lost. What keeps everything stands first and under Enter. */
export function Question({ isOpen, onClose, title, text, does, keeps, onDo, trouble }: Props) {
  return (
    <Shade isOpen={isOpen} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Asked>
        <Dialog role="alertdialog">
          <Heading slot="title">{title}</Heading>
          <p>{text}</p>
          {trouble && <p role="alert">{trouble}</p>}
          <div>
            <Action main autoFocus onPress={onClose}>
              {keeps}
            </Action>
            <Action onPress={onDo}>{does}</Action>
          </div>
        </Dialog>
      </Asked>
    </Shade>
  );
}

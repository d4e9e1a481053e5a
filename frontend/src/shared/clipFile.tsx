import { useRef, type ChangeEvent, type ReactNode } from "react";

const CLIPS = "video/*,.mkv,.mjpeg,.avi";

/** Why what was dropped on a chair is not taken; nothing where it is one file. */
export function notOneFile(count: number): string | null {
  if (count > 1) return `${count} files were dropped, and none was taken: a chair takes one clip at a time. Drop each on its own.`;
  return count === 1 ? null : "What was dropped is not a file. Drop a video file from the phone or the camera.";
}

/** Asks for a clip's file. It belongs to whom it was asked for, whatever the page shows by the time it is chosen. */
export function useClipChooser<Whose>(onFile: (file: File, of: Whose) => void): { ask: (of: Whose) => void; input: ReactNode } {
  const chooser = useRef<HTMLInputElement>(null);
  const askedFor = useRef<Whose | null>(null);
  const chosen = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = ""; // the same file may be chosen again
    if (file && askedFor.current !== null) onFile(file, askedFor.current);
  };
  const ask = (of: Whose) => {
    askedFor.current = of;
    chooser.current?.click();
  };
  return { ask, input: <input ref={chooser} type="file" accept={CLIPS} hidden aria-hidden tabIndex={-1} onChange={chosen} /> };
}

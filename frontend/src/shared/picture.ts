const SIDE_PX = 640; // of the longer side that is sent: enough to follow a player by
const SOFT = 0.7;

/** What a camera shows now as a small picture to send; null before it shows anything. */
export async function pictureOf(video: HTMLVideoElement | null, canvas: HTMLCanvasElement): Promise<Blob | null> {
  if (!video?.videoWidth) return null;
  const scale = SIDE_PX / Math.max(video.videoWidth, video.videoHeight);
  canvas.width = Math.round(video.videoWidth * scale);
  canvas.height = Math.round(video.videoHeight * scale);
  canvas.getContext("2d")?.drawImage(video, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve) => canvas.toBlob(resolve, "image/jpeg", SOFT));
}

const BEFORE_S = 0.5; // of the room, before it began
const QUIET_S = 0.45; // after which it was all
const LONGEST_S = 14; // a long even tone of the mouthpiece is measured to its end
const LOUDER = 4; // than the room, for a sound to begin
const PIECE_S = 0.04;

/** Cuts what is heard into tries: from half a second before a sound begins until it has been quiet for a while. */
export class Tries {
  private pieces: Float32Array[] = [];
  private kept = 0;
  private room = Infinity;
  private loudAt: number | null = null;
  private quiet_s = 0;
  private block: number[] = [];

  constructor(
    private readonly rate_hz: number,
    private readonly onTry: (samples: Float32Array) => void,
  ) {}

  /** The next samples. */
  hear(samples: Float32Array) {
    this.pieces.push(samples);
    this.kept += samples.length;
    for (const one of samples) {
      this.block.push(one * one);
      if (this.block.length >= PIECE_S * this.rate_hz) this.look();
    }
    const most = (this.loudAt === null ? BEFORE_S : LONGEST_S) * this.rate_hz;
    while (this.pieces[0] && this.kept - this.pieces[0].length > most) this.kept -= this.pieces.shift()!.length;
  }

  private look() {
    const level = Math.sqrt(this.block.reduce((sum, one) => sum + one, 0) / this.block.length);
    this.block = [];
    this.room = Math.min(level, this.room * 1.02 + 1e-6); // rises slowly, so that a room that became louder is found again
    const loud = level > LOUDER * this.room + 1e-3;
    if (loud && this.loudAt === null) this.loudAt = this.kept;
    this.quiet_s = loud ? 0 : this.quiet_s + PIECE_S;
    if (this.loudAt !== null && (this.quiet_s > QUIET_S || this.kept > (LONGEST_S - 0.2) * this.rate_hz)) this.end();
  }

  private end() {
    const whole = new Float32Array(this.kept);
    let at = 0;
    for (const piece of this.pieces) {
      whole.set(piece, at);
      at += piece.length;
    }
    this.loudAt = null;
    this.pieces = [];
    this.kept = 0;
    this.onTry(whole);
  }
}

/** Samples as 16 bit, little end first. */
export function asBytes(samples: Float32Array): ArrayBuffer {
  const view = new DataView(new ArrayBuffer(2 * samples.length));
  samples.forEach((one, i) => view.setInt16(2 * i, Math.max(-1, Math.min(1, one)) * 32767, true));
  return view.buffer;
}

const CLICK_HZ = { first: 1900, other: 1400 };
const CLICK_S = 0.03;
const LOUD = 0.5;
const AHEAD_S = 0.35; // from being asked to the first click: time to get ready

/** Clicks on the audio clock: their times are exact whatever the page is doing. */
export class Clicker {
  readonly context = new AudioContext();
  private readonly volume = this.context.createGain();
  private playing: AudioScheduledSourceNode[] = [];

  constructor(silent: boolean) {
    this.volume.connect(this.context.destination);
    this.silent = silent;
  }

  set silent(silent: boolean) {
    this.volume.gain.value = silent ? 0 : LOUD;
  }

  /** Seconds of the audio clock. */
  get now_s() {
    return this.context.currentTime;
  }

  /** Lays out one click a beat; returns when the first is due, on the audio clock. metre: every so many a higher one. */
  start(beat_s: number, beats: number, metre: number): number {
    this.stop();
    const first_s = this.now_s + AHEAD_S;
    this.playing = Array.from({ length: beats }, (_, i) => this.click(first_s + i * beat_s, i % metre === 0));
    return first_s;
  }

  /** Calls once the audio clock is there, unless stopped before: also from a page that is not drawn, behind another tab. */
  at(when_s: number, run: () => void) {
    const silence = this.context.createConstantSource();
    silence.offset.value = 0;
    silence.onended = run;
    silence.connect(this.volume);
    silence.start();
    silence.stop(when_s);
    this.playing.push(silence);
  }

  stop() {
    for (const one of this.playing) {
      one.onended = null;
      one.disconnect();
    }
    this.playing = [];
  }

  close() {
    this.stop();
    void this.context.close();
  }

  private click(at_s: number, high: boolean): OscillatorNode {
    const tone = this.context.createOscillator();
    const shape = this.context.createGain();
    tone.frequency.value = high ? CLICK_HZ.first : CLICK_HZ.other;
    shape.gain.setValueAtTime(1, at_s);
    shape.gain.exponentialRampToValueAtTime(0.001, at_s + CLICK_S);
    tone.connect(shape).connect(this.volume);
    tone.start(at_s);
    tone.stop(at_s + CLICK_S);
    return tone;
  }
}

/** The playhead: one frame of the shoot that everything on the sheet looks at. */
export class Playhead {
  frame = $state(0);
  playing = $state(false);
  /** Whether it begins again when it comes to the end. */
  loops = $state(false);
  #handle = 0;
  readonly frames: () => number;
  readonly rate: () => number;

  /** Whether the footage is played in reverse, from the last frame to the first. */
  readonly backwards: () => boolean;

  constructor(frames: () => number, rate: () => number, backwards: () => boolean = () => false) {
    this.frames = frames;
    this.rate = rate;
    this.backwards = backwards;
  }

  /** The frame that is shown; never past the end, however the shoot has changed. */
  get at(): number {
    return Math.max(0, Math.min(Math.round(this.frame), this.frames() - 1));
  }

  to(frame: number): void {
    this.frame = Math.max(0, Math.min(frame, this.frames() - 1));
  }

  by(frames: number): void {
    this.stop();
    this.to(this.at + frames);
  }

  /** Play at the clip's real rate; from its beginning again when it stands at its end. */
  play(): void {
    if (this.playing) return this.stop();
    const last = this.frames() - 1;
    const [first, end] = this.backwards() ? [last, 0] : [0, last];
    if (this.at === end) this.frame = first;
    this.playing = true;
    let before = performance.now();
    const step = (now: number) => {
      if (!this.playing) return;
      const way = Math.sign(end - first) * ((now - before) / 1000) * this.rate();
      this.frame = Math.max(0, Math.min(last, this.frame + way));
      before = now;
      if (this.frame === end && this.loops) this.frame = first;
      if (this.frame === end) this.stop();
      else this.#handle = requestAnimationFrame(step);
    };
    this.#handle = requestAnimationFrame(step);
  }

  stop(): void {
    this.playing = false;
    cancelAnimationFrame(this.#handle);
  }
}

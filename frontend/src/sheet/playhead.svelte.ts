/** The playhead: one frame of the shoot that everything on the sheet looks at. */
export class Playhead {
  frame = $state(0);
  playing = $state(false);
  /** Whether it begins again when it comes to the end. */
  loops = $state(false);
  #handle = 0;
  readonly frames: () => number;
  readonly rate: () => number;

  constructor(frames: () => number, rate: () => number) {
    this.frames = frames;
    this.rate = rate;
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

  /** Play at the clip's real rate; from the start again when it stands at the end. */
  play(): void {
    if (this.playing) return this.stop();
    if (this.at >= this.frames() - 1) this.frame = 0;
    this.playing = true;
    let last = performance.now();
    const step = (now: number) => {
      if (!this.playing) return;
      this.frame = Math.min(this.frames() - 1, this.frame + ((now - last) / 1000) * this.rate());
      last = now;
      if (this.frame >= this.frames() - 1 && this.loops) this.frame = 0;
      if (this.frame >= this.frames() - 1) this.stop();
      else this.#handle = requestAnimationFrame(step);
    };
    this.#handle = requestAnimationFrame(step);
  }

  stop(): void {
    this.playing = false;
    cancelAnimationFrame(this.#handle);
  }
}

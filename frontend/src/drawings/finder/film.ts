/** The finder's picture as it is put together: the model, smear, crop, onion skins, and the lines over it. */
import type { Evaluation, Plan } from '../../api/client';
import { brightAt, cropAt, moonAt, openShare, poseAt, skyAt, sunAt, type Crop } from './pose';
import type { Model } from './scene';

export interface Shown {
  thirds: boolean;
  level: boolean;
  safe: boolean;
  onion: boolean;
}

const SMEAR_STEPS = 6;

/** Draw one frame of the clip onto a canvas of the clip's own shape. */
export function paint(
  onto: CanvasRenderingContext2D,
  model: Model,
  plan: Plan,
  evaluation: Evaluation,
  frame: number
): void {
  const view = evaluation.view;
  if (!view) return;
  const { width, height } = onto.canvas;
  model.light(sunAt(evaluation, frame));
  model.moon(moonAt(evaluation, frame));
  for (const { index } of view.skies ?? []) model.star(index, skyAt(evaluation, index, frame));
  model.expose(brightAt(evaluation, frame));
  const open = openShare(plan, evaluation, frame);
  const steps = open > 0.02 ? SMEAR_STEPS : 1;
  for (let n = 0; n < steps; n++) {
    const pose = poseAt(evaluation, frame + (open * n) / Math.max(1, steps - 1));
    if (!pose) return;
    model.draw(pose, view.kept_mm as [number, number]);
    // The mean of all the moments for which the shutter is open.
    onto.globalAlpha = 1 / (n + 1);
    place(onto, model.canvas, cropAt(evaluation, frame), width, height);
  }
  onto.globalAlpha = 1;
}

function place(
  onto: CanvasRenderingContext2D,
  from: HTMLCanvasElement,
  crop: Crop,
  width: number,
  height: number
) {
  const [left, top, wide, high] = crop;
  onto.drawImage(
    from,
    left * from.width,
    top * from.height,
    wide * from.width,
    high * from.height,
    0,
    0,
    width,
    height
  );
}

/** First and last frame, faintly over the one that is shown. */
export function skins(
  onto: CanvasRenderingContext2D,
  model: Model,
  evaluation: Evaluation,
  frames: number
): void {
  const view = evaluation.view;
  if (!view) return;
  const { width, height } = onto.canvas;
  for (const frame of [0, frames - 1]) {
    const pose = poseAt(evaluation, frame);
    if (!pose) continue;
    model.draw(pose, view.kept_mm as [number, number]);
    onto.globalAlpha = 0.28;
    place(onto, model.canvas, cropAt(evaluation, frame), width, height);
  }
  onto.globalAlpha = 1;
}

/** Thirds, level and safe area, as hairlines. */
export function lines(onto: CanvasRenderingContext2D, shown: Shown, ink: string, tiltDeg: number): void {
  const { width: w, height: h } = onto.canvas;
  const hair = Math.max(1, w / 640);
  onto.strokeStyle = ink;
  onto.lineWidth = hair;
  if (shown.thirds) {
    onto.setLineDash([hair * 2, hair * 4]);
    for (const share of [1 / 3, 2 / 3]) {
      stroke(onto, share * w, 0, share * w, h);
      stroke(onto, 0, share * h, w, share * h);
    }
  }
  onto.setLineDash([]);
  if (shown.safe) onto.strokeRect(w * 0.05, h * 0.05, w * 0.9, h * 0.9);
  if (shown.level) {
    onto.lineWidth = hair * 1.5;
    stroke(onto, w * 0.42, h / 2, w * 0.58, h / 2);
    onto.setLineDash([hair * 6, hair * 4]);
    // An unlevel base lets the horizon lean by as much, one way at one end of the pan and the other at the other.
    for (const way of tiltDeg ? [-1, 1] : []) {
      const rise = (Math.tan((tiltDeg * Math.PI) / 180) * w * way) / 2;
      stroke(onto, 0, h / 2 + rise, w, h / 2 - rise);
    }
    onto.setLineDash([]);
  }
}

function stroke(onto: CanvasRenderingContext2D, x1: number, y1: number, x2: number, y2: number) {
  onto.beginPath();
  onto.moveTo(x1, y1);
  onto.lineTo(x2, y2);
  onto.stroke();
}

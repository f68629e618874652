/** Sheets opened on real plans with their real evaluations, as the server tells them; what is asked of them is kept. */
import { readFileSync } from 'node:fs';
import type { Change, Evaluation, Plan } from '../../frontend/src/api/client';
import type { Grip, Size } from '../../frontend/src/parts/grasp';
import type { Sheet } from '../../frontend/src/sheet/sheet.svelte';

interface Told {
  plan: Plan;
  evaluation: Evaluation;
}
const { shoots } = JSON.parse(readFileSync(process.env.BRIDLE_EXPECTED!, 'utf-8')) as {
  shoots: Record<string, Told>;
};

export interface Asked {
  path: string;
  value: unknown;
  merge: string | undefined;
}

export function open(name: string) {
  const { plan, evaluation } = structuredClone(shoots[name]!);
  const asked: Asked[] = [];
  const changes: Change[] = [];
  const put = (path: string, value: unknown, merge?: string) => asked.push({ path, value, merge });
  const sheet = {
    answered: () => Promise.resolve(),
    plan,
    evaluation,
    zone: plan.shoot.place.zone,
    start: evaluation.figures['time.first']!.value,
    playhead: {
      frame: 0,
      at: 0,
      stop: () => {},
      to(frame: number) {
        this.frame = frame;
      },
      by(frames: number) {
        this.frame += frames;
      }
    },
    figure: (key: string) => evaluation.figures[key],
    quantity: (name: string) => evaluation.clip.quantities.find((one) => one.quantity === name),
    set: put,
    change(all: Change[], merge?: string) {
      changes.push(...all);
      for (const each of all) {
        if (each.do === 'set') put(each.path, each.value, merge);
        if (each.do === 'edits') for (const edit of each.edits) put(edit.path, edit.value, merge);
      }
    }
  };
  return { sheet: sheet as unknown as Sheet, plan, evaluation, asked, changes, playhead: sheet.playhead };
}

/** Take hold of something at a point and pull it to another one. */
export function pull(grip: Grip, from: [number, number], to: [number, number], size: Size = 'usual'): void {
  const at = { x: to[0], y: to[1] };
  const took = grip.take?.({ x: from[0], y: from[1] }, { pointerType: 'mouse' } as PointerEvent);
  if (took === false) return;
  grip.drag?.({ at, by: { x: to[0] - from[0], y: to[1] - from[1] }, size, merge: 'drag' });
  grip.release?.();
}

const KEYS = {
  right: { right: 1, up: 0, way: 1 },
  left: { right: -1, up: 0, way: -1 },
  up: { right: 0, up: 1, way: 1 },
  down: { right: 0, up: -1, way: -1 }
} as const;

export function press(grip: Grip, key: keyof typeof KEYS, size: Size = 'usual'): void {
  grip.nudge?.({ ...KEYS[key], size, merge: 'key' });
}

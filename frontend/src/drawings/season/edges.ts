/** The edges of work windows that stand on the clock, and what a hand on one does: the rule opens or closes then. */
import { sized, within, type Grip } from '../../parts/grasp';
import type { Sheet } from '../../sheet/sheet.svelte';

export interface WindowEdge {
  path: string;
  rule: number;
  end: 'opens' | 'closes';
  minutes: number;
  said: string;
}

const DAY_MIN = 1440;
const SNAP_MIN = 5;

/** Those of every rule; what goes by the sun is typed and not dragged. */
export function edgesOf(sheet: Sheet): WindowEdge[] {
  const { frames } = sheet.plan;
  if (frames?.source !== 'windows') return [];
  const told = sheet.evaluation.season.rules ?? [];
  return (frames.rules ?? []).flatMap((rule, n) =>
    (['opens', 'closes'] as const)
      .filter((end) => (rule[end]?.by ?? 'clock') === 'clock')
      .map((end) => ({
        path: `frames.rules.${n}.${end}`,
        rule: n,
        end,
        minutes: rule[end]?.minutes ?? (end === 'opens' ? 0 : DAY_MIN),
        said: told[n]?.[end] ?? ''
      }))
  );
}

/** `scale` is how many minutes of the clock a unit of the drawing is. */
export function edgeGrip(sheet: Sheet, path: string, scale: number): Grip {
  const standing = () => edgesOf(sheet).find((edge) => edge.path === path)?.minutes ?? 0;
  let taken = 0;
  function put(minutes: number, step: number, merge: string) {
    const snapped = within(Math.round(minutes / step) * step, 0, DAY_MIN);
    const value = { by: 'clock', minutes: snapped };
    void sheet.change([{ do: 'edits', edits: [{ path, value }] }], merge);
  }
  return {
    name: path,
    take: () => {
      taken = standing();
    },
    drag: ({ by, size, merge }) => put(taken + by.y * scale, sized(size, SNAP_MIN, 30, 1), merge),
    nudge: ({ way, size, merge }) => {
      const step = sized(size, SNAP_MIN, 60, 1);
      // Down the drawing is later.
      put(standing() - way * step, 1, merge);
    }
  };
}

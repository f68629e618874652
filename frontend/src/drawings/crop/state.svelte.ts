/** The frame as shot, what is kept of it and the crops of a move made afterwards, and what a hand on a crop changes. */
import { sized, type Grip } from '../../parts/grasp';
import type { Sheet } from '../../sheet/sheet.svelte';
import { cropAt } from '../finder/pose';
import { boxOf, boxOfCrop, keptOf, type Box, type Crop } from './geometry';

const TALLEST = 400;
/** Around the frame, so that its line is whole. */
export const EDGE = 4;
export type End = 'start' | 'end';

const rounded = (value: number) => Math.round(value * 1000) / 1000;

export class CropState {
  width = $state(500);
  readonly #sheet: Sheet;

  constructor(sheet: Sheet) {
    this.#sheet = sheet;
  }

  readonly #post = $derived.by(() => this.#sheet.plan.move.post);
  readonly level = $derived.by(() => this.#sheet.plan.picture?.level_deg ?? 0);
  readonly shape = $derived.by(() => this.#sheet.plan.picture?.shape ?? 'as shot');
  /** Width and height of what is drawn, in pixels. */
  readonly frame = $derived.by((): [number, number] => {
    const { upright, picture_width_px: wide, picture_height_px: high } = this.#sheet.plan.camera;
    const tall = upright ? wide / high : high / wide;
    const width = Math.min(Math.max(1, this.width - 2 * EDGE), TALLEST / tall);
    return [width, width * tall];
  });
  readonly kept = $derived.by((): Box => {
    const { upright, sensor_width_mm: wide, sensor_height_mm: high } = this.#sheet.plan.camera;
    const sensor: [number, number] = upright ? [high, wide] : [wide, high];
    return keptOf(this.frame, sensor, this.#sheet.evaluation.view?.kept_mm ?? []);
  });
  readonly now = $derived.by(() =>
    this.#post ? boxOf(this.kept, cropAt(this.#sheet.evaluation, this.#sheet.playhead.frame)) : null
  );
  readonly ends = $derived(
    this.#post
      ? (['start', 'end'] as const).map((end) => {
          const crop = this.#post![end] as Crop;
          return { end, crop, box: boxOfCrop(this.kept, crop) };
        })
      : []
  );

  /** The crop as a whole is moved. */
  place(end: End): Grip {
    return {
      name: `crop ${end}`,
      take: () => {
        this.#taken = this.#crop(end);
      },
      drag: ({ by, merge }) => {
        const { across, down } = this.#taken;
        // What the hand has not moved stays as it was typed, to its last digit.
        this.#put(
          end,
          {
            across: by.x ? rounded(across + by.x / this.kept.w) : across,
            down: by.y ? rounded(down + by.y / this.kept.h) : down
          },
          merge
        );
      },
      nudge: ({ right, up, size, merge }) => {
        const { across, down } = this.#crop(end);
        const step = sized(size, 0.01, 0.05, 0.001);
        this.#put(
          end,
          right ? { across: rounded(across + right * step) } : { down: rounded(down - up * step) },
          merge
        );
      }
    };
  }

  /** Its lower right corner makes it wider or narrower around its middle. */
  corner(end: End): Grip {
    return {
      name: `width of the crop ${end}`,
      drag: ({ at, merge }) => {
        const x = (at.x - EDGE - this.kept.x) / this.kept.w;
        this.#put(end, { width: rounded(2 * Math.abs(x - this.#crop(end).across)) }, merge);
      },
      nudge: ({ way, size, merge }) =>
        this.#put(
          end,
          { width: rounded(this.#crop(end).width + way * sized(size, 0.01, 0.05, 0.001)) },
          merge
        )
    };
  }

  #taken: Crop = { across: 0.5, down: 0.5, width: 1 };

  #crop(end: End): Crop {
    return this.#post![end] as Crop;
  }

  #put(end: End, part: Partial<Crop>, merge: string): void {
    const changes = (Object.entries(part) as [keyof Crop, number][]).map(([field, value]) => ({
      do: 'set' as const,
      path: `move.post.${end}.${field}`,
      value: Math.min(1, Math.max(field === 'width' ? 0.05 : 0, value))
    }));
    void this.#sheet.change(changes, merge);
  }
}

<script lang="ts">
  /** The clip as the camera would see it, drawn from the file's own paths: with the stop, and without it. */
  import { onMount } from 'svelte';
  import type { Paths } from '../../bench/paths.svelte';
  import { number } from '../../format';
  import { drawn, seen, type View } from '../../bench/view';
  import Choice from '../../parts/Choice.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import InThePicture from './InThePicture.svelte';

  interface Props {
    paths: Paths | undefined;
  }
  let { paths }: Props = $props();
  const sheet = theSheet();
  const printing = $derived(sheet.evaluation.printing);
  const chosen = $derived(printing.chosen ?? []);
  const frames = $derived(sheet.plan.frames?.source === 'layers' ? sheet.plan.frames : null);
  const z = $derived(frames?.z_mm ?? []);
  const extents = $derived(sheet.plan.printing?.file?.extents_mm);
  const bed = $derived(printing.bed);
  let how = $state<'with' | 'without'>('with');
  const HOWS = [
    { value: 'with', label: 'with the stop' },
    { value: 'without', label: 'without it' }
  ] as const;
  const side = $derived(sheet.plan.printing?.seen_from ?? 'front');
  const framed = $derived(printing.framed ?? null);
  /** As the camera sees it where it is known where that stands; else drawn so that it fits. */
  const view = $derived.by(() => {
    if (!extents || !z.length) return null;
    return framed ? seen(framed, extents, side) : drawn(extents, z.at(-1)!, side);
  });
  let canvas = $state<HTMLCanvasElement>();
  let layer: HTMLCanvasElement | undefined;
  let drawnTo = 0;
  let drawnOf: unknown;

  const ink = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

  /** Draw one layer onto what has grown so far: what is farther away is fainter, so that it stands out in the round. */
  function grow(on: CanvasRenderingContext2D, n: number, at: View) {
    const { points, begins, unit } = paths!;
    const up = z[n - 1] ?? n;
    const [x0, x1, y0, y1] = extents!;
    const [far, of] = {
      front: [(_x: number, y: number) => y - y0!, y1! - y0!],
      back: [(_x: number, y: number) => y1! - y, y1! - y0!],
      left: [(x: number) => x - x0!, x1! - x0!],
      right: [(x: number) => x1! - x, x1! - x0!]
    }[side] as [(x: number, y: number) => number, number];
    on.lineWidth = Math.max(
      0.7,
      (up - (z[n - 2] ?? 0)) * at.scale((x0! + x1!) / 2, (y0! + y1!) / 2, up) * 1.05
    );
    let open = false;
    for (let k = begins[n - 1]!; k < begins[n]!; k += 1) {
      const [x, y] = [points[3 * k]! * unit, points[3 * k + 1]! * unit];
      const [px, py] = at.place(x, y, up);
      if (!points[3 * k + 2]) {
        if (open) on.stroke();
        on.globalAlpha = 0.16 + 0.8 * (1 - Math.min(1, Math.max(0, far(x, y) / Math.max(1, of)))) ** 1.6;
        on.beginPath();
        on.moveTo(px, py);
        open = true;
      } else on.lineTo(px, py);
    }
    if (open) on.stroke();
  }

  function show(frame: number) {
    const on = canvas?.getContext('2d');
    if (!on || !paths || !extents || !view || !layer || !canvas) return;
    const to = chosen[frame] ?? 1;
    const grown = layer.getContext('2d')!;
    if (to < drawnTo || drawnOf !== view) {
      layer.width = canvas.width;
      layer.height = canvas.height;
      drawnTo = 0;
      drawnOf = view;
    }
    grown.setTransform(2, 0, 0, 2, 0, 0);
    grown.strokeStyle = ink('--ink');
    for (let n = drawnTo + 1; n <= to; n += 1) grow(grown, n, view);
    grown.globalAlpha = 1;
    drawnTo = to;
    const { begins, points, unit } = paths;
    const end = begins[to]! - 1;
    const last = [points[3 * end]! * unit, points[3 * end + 1]! * unit] as const;
    on.setTransform(2, 0, 0, 2, 0, 0);
    on.fillStyle = ink('--film');
    on.fillRect(0, 0, view.wide, view.tall);
    // Without a stop a moving bed stands wherever the layer ended, and the part with it.
    const [mx, my] = [(extents[0]! + extents[1]!) / 2, (extents[2]! + extents[3]!) / 2];
    const by = how === 'without' && bed?.bed_moves ? (bed.park_y ?? my) - last[1] : 0;
    drawBed(on, by);
    const [before, after] = [view.place(mx, my, 0), view.place(mx, my + by, 0)];
    const larger = view.scale(mx, my + by, 0) / view.scale(mx, my, 0);
    on.drawImage(
      layer,
      after[0] - before[0] * larger,
      after[1] - before[1] * larger,
      view.wide * larger,
      view.tall * larger
    );
    const up = z[to - 1] ?? to;
    if (how === 'without') drawHead(on, [last[0], last[1] + by], up);
    else if (framed?.head_in && bed) drawHead(on, [bed.park_x ?? mx, bed.park_y ?? my], up);
  }
  function drawBed(on: CanvasRenderingContext2D, by: number) {
    if (!bed || !view) return;
    const { x0, x1, y0, y1 } = bed.bed;
    on.strokeStyle = ink('--hair');
    on.lineWidth = 1;
    on.beginPath();
    for (const [x, y] of [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1]
    ] as const)
      on.lineTo(...view.place(x, y + by, 0));
    on.closePath();
    on.stroke();
  }
  /** The head's parts as boxes seen from the side that the camera looks at. */
  function drawHead(on: CanvasRenderingContext2D, [x, y]: readonly [number, number], up: number) {
    on.strokeStyle = ink('--ink');
    on.fillStyle = ink('--sheet');
    on.lineWidth = 1.5;
    for (const part of bed?.head ?? []) {
      const corners = [part.x0, part.x1].flatMap((px) =>
        [part.y0, part.y1].flatMap((py) =>
          [part.low ?? 0, part.high ?? 0].map((pz) => view!.place(x + px, y + py, up + pz))
        )
      );
      const [xs, ys] = [corners.map((one) => one[0]), corners.map((one) => one[1])];
      const [left, top] = [Math.min(...xs), Math.min(...ys)];
      on.fillRect(left, top, Math.max(...xs) - left, Math.max(...ys) - top);
      on.strokeRect(left, top, Math.max(...xs) - left, Math.max(...ys) - top);
    }
  }
  onMount(() => {
    layer = document.createElement('canvas');
    drawnTo = 0;
    const again = new MutationObserver(() => {
      drawnOf = undefined;
      show(sheet.playhead.at);
    });
    again.observe(document.documentElement, { attributes: true, attributeFilter: ['data-look'] });
    return () => again.disconnect();
  });
  $effect(() => {
    void [paths, how, view, chosen];
    show(sheet.playhead.at);
  });
  const told = $derived.by(() => {
    const jumps = bed?.bed_moves ? 'the bed jumps, and ' : '';
    if (how === 'without') return `Each layer ends elsewhere: ${jumps}the head stands in front of the part.`;
    if (!framed || !framed.head.length)
      return 'The head is parked at the same place in every frame: only the part changes.';
    return framed.head_in
      ? 'The head is parked at the same place in every frame, and that is in the picture.'
      : 'The head is parked beside the picture: only the part changes.';
  });
  const from = $derived(
    framed
      ? framed.moves
        ? 'As the camera sees it from where the first frame is taken, from the paths in the file, thinned for drawing.'
        : 'As the camera sees it, from the paths in the file, thinned for drawing.'
      : 'Drawn a little from above: nobody has said where the camera stands.'
  );
  const rate = $derived(sheet.quantity('rate')?.value ?? 25);
</script>

<div class="growth">
  {#if !paths || !view}
    <p class="mono-note">
      The growth is drawn from the file’s own paths: it is here once the file has been put in and read.
    </p>
  {:else}
    <canvas
      bind:this={canvas}
      style:--wide="{view.wide}px"
      width={Math.round(view.wide * 2)}
      height={Math.round(view.tall * 2)}
      aria-label="The print at frame {sheet.playhead.at + 1}, layer {chosen[
        sheet.playhead.at
      ]}, {how} the stop"
      data-layer={chosen[sheet.playhead.at]}
    ></canvas>
  {/if}
  <div>
    {#if paths && view}
      <Choice label="How the clip is taken" options={HOWS} value={how} onchoose={(value) => (how = value)} />
      <p class="acts">
        <button type="button" class="act small" onclick={() => sheet.playhead.play()}
          >{sheet.playhead.playing ? 'Hold' : 'Play'}</button
        >
        <span class="label">at its real rate, {number(rate)} a second</span>
      </p>
      <p>
        Frame {number(sheet.playhead.at + 1)}, layer {number(chosen[sheet.playhead.at] ?? 1)}{z[
          (chosen[sheet.playhead.at] ?? 1) - 1
        ] === undefined
          ? ''
          : `, ${number(z[(chosen[sheet.playhead.at] ?? 1) - 1]!)} mm high`}.
      </p>
      <p class="label">{told} {from}</p>
    {/if}
    <InThePicture />
  </div>
</div>

<style>
  .growth {
    display: grid;
    grid-template-columns: minmax(0, max-content) minmax(260px, 1fr);
    gap: 0 26px;
  }
  canvas {
    max-width: 100%;
    width: var(--wide);
    border: 1px solid var(--ink);
  }
  .acts {
    display: flex;
    gap: 10px;
    align-items: center;
    margin: 10px 0;
  }
  p {
    max-width: 46ch;
    margin-bottom: 6px;
  }
  @media (max-width: 900px) {
    .growth {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>

<script lang="ts">
  /** The clip as the camera would see it, drawn from the file's own paths: with the stop, and without it. */
  import { onMount } from 'svelte';
  import type { Paths } from '../../bench/paths.svelte';
  import { number } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

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
  const head = $derived(printing.bed?.head ?? []);
  let how = $state<'with' | 'without'>('with');
  const HOWS = [
    { value: 'with', label: 'with the stop' },
    { value: 'without', label: 'without it' }
  ] as const;
  const [WIDE, TALL] = [640, 420];
  /** How far a mm away from the camera is drawn up: seen a little from above. */
  const TILT = 0.34;
  let canvas = $state<HTMLCanvasElement>();
  let layer: HTMLCanvasElement | undefined;
  let drawnTo = 0;
  let drawnOf: unknown;

  const scale = $derived.by(() => {
    if (!extents || !z.length) return 1;
    const wide = extents[1]! - extents[0]! + 90;
    const high = z.at(-1)! + (extents[3]! - extents[2]!) * TILT + 60;
    return Math.min(WIDE / wide, TALL / high);
  });
  const place = (x: number, y: number, up: number) => {
    const [mx, my] = [(extents![0]! + extents![1]!) / 2, extents![2]!];
    return [WIDE / 2 + (x - mx) * scale, TALL - 26 - (up + (y - my) * TILT) * scale] as const;
  };
  const ink = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

  /** Draw one layer onto what has grown so far: what is farther away is fainter, so that it stands out in the round. */
  function grow(on: CanvasRenderingContext2D, n: number) {
    const { points, begins, unit } = paths!;
    const up = z[n - 1] ?? n;
    const deep = Math.max(1, extents![3]! - extents![2]!);
    on.lineWidth = Math.max(0.7, (up - (z[n - 2] ?? 0)) * scale * 1.05);
    let open = false;
    for (let k = begins[n - 1]!; k < begins[n]!; k += 1) {
      const y = points[3 * k + 1]! * unit;
      const [px, py] = place(points[3 * k]! * unit, y, up);
      if (!points[3 * k + 2]) {
        if (open) on.stroke();
        on.globalAlpha = 0.16 + 0.8 * (1 - (y - extents![2]!) / deep) ** 1.6;
        on.beginPath();
        on.moveTo(px, py);
        open = true;
      } else on.lineTo(px, py);
    }
    if (open) on.stroke();
  }

  function show(frame: number) {
    const on = canvas?.getContext('2d');
    if (!on || !paths || !extents || !layer) return;
    const to = chosen[frame] ?? 1;
    const grown = layer.getContext('2d')!;
    if (to < drawnTo || drawnOf !== paths) {
      grown.clearRect(0, 0, WIDE * 2, TALL * 2);
      drawnTo = 0;
      drawnOf = paths;
    }
    grown.setTransform(2, 0, 0, 2, 0, 0);
    grown.strokeStyle = ink('--ink');
    for (let n = drawnTo + 1; n <= to; n += 1) {
      grow(grown, n);
    }
    grown.globalAlpha = 1;
    drawnTo = to;
    on.setTransform(2, 0, 0, 2, 0, 0);
    on.fillStyle = ink('--film');
    on.fillRect(0, 0, WIDE, TALL);
    const { begins, points, unit } = paths;
    const end = begins[to]! - 1;
    const [hx, hy] = [points[3 * end]! * unit, points[3 * end + 1]! * unit];
    // Without a stop a moving bed stands wherever the layer ended, and the part with it.
    const shift =
      how === 'without' && printing.bed?.bed_moves
        ? (hy - (extents[2]! + extents[3]!) / 2) * TILT * scale
        : 0;
    on.setTransform(1, 0, 0, 1, 0, 0);
    on.strokeStyle = ink('--hair');
    on.lineWidth = 2;
    on.beginPath();
    on.moveTo(0, (TALL - 26 + shift) * 2);
    on.lineTo(WIDE * 2, (TALL - 26 + shift) * 2);
    on.stroke();
    on.drawImage(layer, 0, shift * 2);
    if (how === 'without') drawHead(on, hx, hy, z[to - 1] ?? to, shift);
  }
  function drawHead(on: CanvasRenderingContext2D, x: number, y: number, up: number, shift: number) {
    on.setTransform(2, 0, 0, 2, 0, shift * 2);
    on.strokeStyle = ink('--ink');
    on.fillStyle = ink('--sheet');
    on.lineWidth = 1.5;
    for (const part of head) {
      const [left, low] = place(x + part.x0, y, up + (part.name === 'nozzle' ? 0 : 9));
      const [right] = place(x + part.x1, y, up);
      const high = low - (part.name === 'nozzle' ? 10 : 48) * scale;
      on.fillRect(left, high, right - left, low - high);
      on.strokeRect(left, high, right - left, low - high);
    }
  }
  onMount(() => {
    layer = document.createElement('canvas');
    layer.width = WIDE * 2;
    layer.height = TALL * 2;
    drawnTo = 0;
    const again = new MutationObserver(() => {
      drawnOf = undefined;
      show(sheet.playhead.at);
    });
    again.observe(document.documentElement, { attributes: true, attributeFilter: ['data-look'] });
    return () => again.disconnect();
  });
  $effect(() => {
    void [paths, how, scale, chosen];
    show(sheet.playhead.at);
  });
  const rate = $derived(sheet.quantity('rate')?.value ?? 25);
</script>

{#if !paths || !z.length}
  <p class="mono-note">
    The growth is drawn from the file’s own paths: it is here once the file has been put in and read.
  </p>
{:else}
  <div class="growth">
    <canvas
      bind:this={canvas}
      width={WIDE * 2}
      height={TALL * 2}
      aria-label="The print at frame {sheet.playhead.at + 1}, layer {chosen[
        sheet.playhead.at
      ]}, {how} the stop"
      data-layer={chosen[sheet.playhead.at]}
    ></canvas>
    <div>
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
      <p class="label">
        {how === 'with'
          ? 'The head is parked out of the picture, and the bed stands where the lens is focused: only the part changes.'
          : printing.bed?.bed_moves
            ? 'Each layer ends elsewhere: the bed jumps, and the head stands in front of the part.'
            : 'Each layer ends elsewhere, and the head stands in front of the part.'}
      </p>
      <p class="label">
        Seen from the front and a little from above, from the paths in the file, thinned for drawing.
      </p>
    </div>
  </div>
{/if}

<style>
  .growth {
    display: grid;
    grid-template-columns: minmax(0, 640px) minmax(200px, 1fr);
    gap: 0 26px;
  }
  canvas {
    width: 100%;
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

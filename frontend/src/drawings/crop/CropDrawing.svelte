<script lang="ts">
  /** The frame as it is shot, what is kept of it, and the crops of a move made afterwards; crops are dragged and sized. */
  import type { Plan } from '../../api/client';
  import { write } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { cropAt } from '../finder/pose';

  type Crop = { across: number; down: number; width: number };
  const sheet = theSheet();
  const camera = $derived(sheet.plan.camera);
  const shot = $derived<[number, number]>(
    camera.upright
      ? [camera.picture_height_px, camera.picture_width_px]
      : [camera.picture_width_px, camera.picture_height_px]
  );
  const view = $derived(sheet.evaluation.view);
  const post = $derived(sheet.plan.move.post);
  const level = $derived(sheet.plan.picture?.level_deg ?? 0);
  let width = $state(500);
  let svg = $state<SVGSVGElement>();
  let held = $state<{ end: 'start' | 'end'; size: boolean; merge: string; dx: number; dy: number } | null>(
    null
  );
  const tall = $derived(shot[1] / shot[0]);
  const W = $derived(Math.min(width - 8, 400 / tall));
  const H = $derived(W * tall);
  const sensor = $derived<[number, number]>(
    camera.upright
      ? [camera.sensor_height_mm, camera.sensor_width_mm]
      : [camera.sensor_width_mm, camera.sensor_height_mm]
  );
  const kept = $derived.by(() => {
    const [wide = sensor[0], high = sensor[1]] = view?.kept_mm ?? [];
    const [w, h] = [wide / sensor[0], high / sensor[1]];
    return { x: (W * (1 - w)) / 2, y: (H * (1 - h)) / 2, w: W * w, h: H * h };
  });
  const box = (crop: Crop) => {
    const half = crop.width / 2;
    const middle = (at: number) => Math.min(1 - half, Math.max(half, at));
    return {
      x: kept.x + (middle(crop.across) - half) * kept.w,
      y: kept.y + (middle(crop.down) - half) * kept.h,
      w: crop.width * kept.w,
      h: crop.width * kept.h
    };
  };
  const now = $derived.by(() => {
    const [x, y, w, h] = cropAt(sheet.evaluation, sheet.playhead.frame);
    return { x: kept.x + x * kept.w, y: kept.y + y * kept.h, w: w * kept.w, h: h * kept.h };
  });
  const ends = $derived(
    post
      ? ([
          { end: 'start', crop: post.start as Crop },
          { end: 'end', crop: post.end as Crop }
        ] as const)
      : []
  );

  function at(event: PointerEvent): [number, number] {
    const frame = svg!.getBoundingClientRect();
    return [
      (event.clientX - frame.left - 4 - kept.x) / kept.w,
      (event.clientY - frame.top - 4 - kept.y) / kept.h
    ];
  }

  function grab(event: PointerEvent, end: 'start' | 'end', size: boolean) {
    if (event.button !== 0 || !post) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    const [x, y] = at(event);
    const crop = post[end] as Crop;
    held = {
      end,
      size,
      merge: `drag crop ${end} ${event.timeStamp}`,
      dx: x - crop.across,
      dy: y - crop.down
    };
    event.stopPropagation();
  }

  function drag(event: PointerEvent) {
    if (!held || !post) return;
    const [x, y] = at(event);
    const crop = post[held.end] as Crop;
    if (held.size) put(held.end, { ...crop, width: 2 * Math.abs(x - crop.across) }, held.merge);
    else put(held.end, { ...crop, across: x - held.dx, down: y - held.dy }, held.merge);
  }

  function put(end: 'start' | 'end', crop: Crop, merge: string) {
    const round = (value: number, low: number) => Math.round(Math.min(1, Math.max(low, value)) * 1000) / 1000;
    const path = `move.post.${end}`;
    void sheet.change(
      (['across', 'down', 'width'] as const).map((field) => ({
        do: 'set' as const,
        path: `${path}.${field}`,
        value: round(crop[field], field === 'width' ? 0.05 : 0)
      })),
      merge
    );
  }

  function keys(event: KeyboardEvent, end: 'start' | 'end', size: boolean) {
    const right = { ArrowRight: 1, ArrowLeft: -1 }[event.key] ?? 0;
    const down = { ArrowDown: 1, ArrowUp: -1 }[event.key] ?? 0;
    if ((!right && !down) || !post) return;
    event.preventDefault();
    event.stopPropagation();
    const step = event.shiftKey ? 0.05 : event.altKey ? 0.001 : 0.01;
    const crop = post[end] as Crop;
    const merge = `key crop ${end} ${size}`;
    if (size) put(end, { ...crop, width: crop.width + (right - down) * step }, merge);
    else put(end, { ...crop, across: crop.across + right * step, down: crop.down + down * step }, merge);
  }
  type Shape = NonNullable<Plan['picture']>['shape'];
  const shape = $derived<Shape>(sheet.plan.picture?.shape ?? 'as shot');
</script>

<div class="crop" bind:clientWidth={width}>
  <svg
    bind:this={svg}
    width={W + 8}
    height={H + 8}
    role="group"
    aria-label="The frame and what is kept of it"
    onpointermove={drag}
    onpointerup={() => (held = null)}
    onpointercancel={() => (held = null)}
  >
    <g transform="translate(4 4)">
      <rect class="shot" width={W} height={H} />
      <g transform="rotate({-level} {W / 2} {H / 2})"
        ><line class="horizon" x1="-40" x2={W + 40} y1={H / 2} y2={H / 2} /></g
      >
      <rect class="kept" x={kept.x} y={kept.y} width={kept.w} height={kept.h} />
      <text class="second" x={kept.x + 6} y={kept.y + 15}>kept, {shape}</text>
      {#if post}<rect class="now" x={now.x} y={now.y} width={now.w} height={now.h} />{/if}
      {#each ends as one, n (one.end)}
        {@const b = box(one.crop)}
        <g
          class="handle"
          role="slider"
          tabindex="0"
          aria-label="Crop at the {one.end}"
          aria-valuenow={one.crop.across}
          aria-valuetext="{write(one.crop.across, 'share')} from the left, {write(
            one.crop.down,
            'share'
          )} from the top"
          onpointerdown={(event) => grab(event, one.end, false)}
          onkeydown={(event) => keys(event, one.end, false)}
        >
          <rect class="end" class:last={n === 1} x={b.x} y={b.y} width={b.w} height={b.h} />
          <rect class="number" x={b.x} y={b.y} width="20" height="20" />
          <text class="bold" x={b.x + 10} y={b.y + 14.5} text-anchor="middle">{n + 1}</text>
        </g>
        <g
          class="handle size"
          role="slider"
          tabindex="0"
          aria-label="Width of the crop at the {one.end}"
          aria-valuenow={one.crop.width}
          aria-valuemin={0.05}
          aria-valuemax={1}
          aria-valuetext={write(one.crop.width, 'share')}
          onpointerdown={(event) => grab(event, one.end, true)}
          onkeydown={(event) => keys(event, one.end, true)}
        >
          <circle class="reach" cx={b.x + b.w} cy={b.y + b.h} r="18" />
          <rect class="grip" x={b.x + b.w - 6} y={b.y + b.h - 6} width="12" height="12" />
        </g>
      {/each}
    </g>
  </svg>
</div>

<style>
  .crop {
    overflow: hidden;
  }
  svg {
    display: block;
    margin-inline: auto;
  }
  .shot {
    fill: var(--wash);
    stroke: var(--ink);
  }
  .kept {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .horizon {
    stroke: var(--second);
    stroke-dasharray: 7 4;
  }
  .now {
    fill: var(--wash2);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .end {
    fill: transparent;
    stroke: var(--ink);
    stroke-dasharray: 2 3;
    stroke-width: 1.4;
  }
  .end.last {
    stroke-dasharray: 8 4;
  }
  .number,
  .grip {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .bold {
    font-weight: 650;
  }
  .second {
    fill: var(--second);
  }
  .reach {
    fill: transparent;
  }
  .handle {
    cursor: move;
    touch-action: none;
  }
  .handle.size {
    cursor: nwse-resize;
  }
  .handle:focus-visible {
    outline: none;
  }
  .handle:focus-visible .number,
  .handle:focus-visible .grip {
    stroke-width: 4;
  }
</style>

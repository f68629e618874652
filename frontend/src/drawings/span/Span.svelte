<script lang="ts">
  /** The whole shoot on its clock, with the moves as lines and one playhead that everything follows. */
  import { clock, number, shutter, write } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { DASHES, UNITS } from '../axes';
  import { clockTicks, heights, offset, path, sample, shift, WHOLE, zoom, type View } from './geometry';

  const sheet = theSheet();
  const head = sheet.playhead;
  const LEFT = 92;
  const RIGHT = 20;
  const TALL = 150;
  const BASE = 124;

  let width = $state(1160);
  let view = $state.raw<View>(WHOLE);
  const pointers = new Map<number, number>();
  let pinch = 0;

  const told = $derived(sheet.told);
  const frames = $derived(told.frames ?? 0);
  const interval = $derived(told.interval_s ?? 1);
  const room = $derived(width - LEFT - RIGHT);
  const x = (share: number) => LEFT + ((share - view.from) / (view.to - view.from)) * room;
  const shareOf = (px: number) => view.from + ((px - LEFT) / room) * (view.to - view.from);
  const frameShare = (frame: number) => (frames > 1 ? frame / (frames - 1) : 0);
  // Signals are read once a line, not once a point: a drag redraws these lines many times a second.
  const lines = $derived.by(() => {
    const traces = told.traces;
    if (!traces) return [];
    const scale = room / (view.to - view.from) / Math.max(1, frames - 1);
    const left = LEFT - (view.from / (view.to - view.from)) * room;
    const xs = traces.frames.map((frame) => left + frame * scale);
    return Object.entries(traces.axes).map(([name, values], row) => {
      return { name, row, path: path(xs, heights(values, 20, 84)), dash: DASHES[name] ?? '' };
    });
  });
  const ticks = $derived.by(() => {
    const length = (frames - 1) * interval;
    const from = sheet.start + view.from * length;
    const to = sheet.start + view.to * length;
    const made = clockTicks(from, to, Math.max(3, room / 78), offset(from, sheet.zone));
    const share = (at: number) => (length > 0 ? (at - sheet.start) / length : 0);
    return made.at.map((at) => ({ at, x: x(share(at)), text: clock(at, sheet.zone, made.step < 60) }));
  });
  const at = $derived(head.at);
  const now = $derived(sheet.start + at * interval);
  const headX = $derived(x(frameShare(at)));
  const positions = $derived(
    Object.entries(told.traces?.axes ?? {}).map(([name, values]) => {
      const value = sample(told.traces?.frames ?? [], values, at);
      return `${name} ${write(Number(value.toFixed(name === 'slide' ? 1 : 2)), UNITS[name] ?? '')}`;
    })
  );
  const flag = $derived(
    `frame ${number(at + 1, 12)} · ${clock(now, sheet.zone)} · ${positions.join(' · ')} · ${shutter(Number(evalExposure()))}`
  );
  const flagWide = $derived(flag.length * 5.75 + 18);
  const flagX = $derived(
    Math.min(
      Math.max(LEFT, headX + 6 + flagWide > width ? headX - 6 - flagWide : headX + 6),
      width - flagWide
    )
  );

  function evalExposure(): number {
    const part = told.beat?.parts.find((one) => one.name === 'exposure');
    return part?.length_s ?? 0;
  }

  function to(px: number) {
    head.stop();
    head.to(shareOf(px) * (frames - 1));
  }

  function down(event: PointerEvent) {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    pointers.set(event.pointerId, event.offsetX);
    if (pointers.size === 1) to(event.offsetX);
    else pinch = spread();
  }

  function moved(event: PointerEvent) {
    if (!pointers.has(event.pointerId)) return;
    pointers.set(event.pointerId, event.offsetX);
    if (pointers.size === 1) return to(event.offsetX);
    const wide = spread();
    const middle = [...pointers.values()].reduce((sum, px) => sum + px, 0) / pointers.size;
    if (pinch && wide) view = zoom(view, pinch / wide, shareOf(middle));
    pinch = wide;
  }

  function up(event: PointerEvent) {
    pointers.delete(event.pointerId);
    pinch = 0;
  }

  function spread(): number {
    const px = [...pointers.values()];
    return Math.abs((px[0] ?? 0) - (px[1] ?? 0));
  }

  function wheel(event: WheelEvent) {
    event.preventDefault();
    if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      view = shift(view, ((event.deltaX || event.deltaY) / room) * (view.to - view.from));
    } else view = zoom(view, Math.exp(event.deltaY / 400), shareOf(event.offsetX));
  }

  function keys(event: KeyboardEvent) {
    const step = event.shiftKey ? Math.max(1, Math.round(frames / 20)) : 1;
    if (event.key === 'ArrowLeft' || event.key === 'ArrowDown') head.by(-step);
    else if (event.key === 'ArrowRight' || event.key === 'ArrowUp') head.by(step);
    else if (event.key === 'Home') head.by(-frames);
    else if (event.key === 'End') head.by(frames);
    else if (event.key === '+' || event.key === '=') view = zoom(view, 0.7, frameShare(at));
    else if (event.key === '-') view = zoom(view, 1.4, frameShare(at));
    else return;
    event.preventDefault();
  }

  // A wheel listener has to be allowed to keep the page from scrolling.
  function zoomable(node: SVGElement) {
    node.addEventListener('wheel', wheel, { passive: false });
    return { destroy: () => node.removeEventListener('wheel', wheel) };
  }
</script>

<div class="span" bind:clientWidth={width}>
  {#if frames > 0}
    <svg
      {width}
      height={TALL}
      role="slider"
      tabindex="0"
      aria-label="Playhead on the span of the shoot"
      aria-valuemin={1}
      aria-valuemax={frames}
      aria-valuenow={at + 1}
      aria-valuetext={flag}
      use:zoomable
      onpointerdown={down}
      onpointermove={moved}
      onpointerup={up}
      onpointercancel={up}
      onkeydown={keys}
    >
      <clipPath id="span-room"><rect x={LEFT - 7} y="0" width={room + 14} height={TALL} /></clipPath>
      {#each lines as one (one.name)}
        <text x="12" y={26 + one.row * 17}>{one.name}</text>
        <line
          class="line"
          x1="50"
          x2="82"
          y1={22 + one.row * 17}
          y2={22 + one.row * 17}
          stroke-dasharray={one.dash}
        />
      {/each}
      <text x="12" y="106">frames</text>
      {#each ticks as tick (tick.at)}
        <line class="base" x1={tick.x} x2={tick.x} y1={BASE} y2={BASE + 6} />
        <text x={tick.x} y={BASE + 20} text-anchor="middle">{tick.text}</text>
      {/each}
      <g clip-path="url(#span-room)">
        {#each lines as one (one.name)}
          <path class="line" d={one.path} stroke-dasharray={one.dash} />
        {/each}
        <line class="hair" x1={LEFT} x2={width - RIGHT} y1="102" y2="102" />
        {#if ((view.to - view.from) * frames) / room < 0.34}
          {#each Array.from({ length: Math.ceil((view.to - view.from) * (frames - 1)) + 2 }, (_, i) => Math.floor(view.from * (frames - 1)) + i).filter((f) => f < frames) as frame (frame)}
            <line class="frame" x1={x(frameShare(frame))} x2={x(frameShare(frame))} y1="97" y2="107" />
          {/each}
        {:else}
          <rect class="many" x={x(0)} width={x(1) - x(0)} y="98" height="8" />
        {/if}
        <line class="base" x1={LEFT} x2={width - RIGHT} y1={BASE} y2={BASE} />
        <line class="head" x1={headX} x2={headX} y1="0" y2={BASE} />
        <path class="mark" d="M{headX - 6} {BASE + 1}h12l-6 -8z" />
      </g>
      <g transform="translate({flagX} 88)">
        <rect class="flag" width={flagWide} height="20" />
        <text class="flagtext" x="8" y="14">{flag}</text>
      </g>
    </svg>
    {#if view.to - view.from < 1}
      <button type="button" class="link whole no-print" onclick={() => (view = WHOLE)}>whole shoot</button>
    {/if}
  {:else}
    <p class="mono-note p-4">The span appears as soon as the sentence fixes frames and interval.</p>
  {/if}
</div>

<style>
  .span {
    position: relative;
    min-height: 150px;
    overflow: hidden;
  }
  svg {
    display: block;
    touch-action: pan-y;
    cursor: ew-resize;
  }
  svg:focus-visible {
    outline-offset: -3px;
  }
  .line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .hair {
    stroke: var(--hair);
  }
  .frame {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .many {
    fill: var(--wash2);
  }
  .base {
    stroke: var(--ink);
  }
  .head {
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .mark,
  .flag {
    fill: var(--ink);
  }
  .flagtext {
    fill: var(--sheet);
    font-weight: 600;
  }
  .whole {
    position: absolute;
    right: 14px;
    top: 6px;
    font-size: 12px;
    min-height: 24px;
  }
</style>

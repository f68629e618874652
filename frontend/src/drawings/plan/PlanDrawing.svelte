<script lang="ts">
  /** Seen from above, to scale: rail, carriage at both ends, what the lens sees, and the marks. Handles move them. */
  import { number, write } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { sample } from '../span/geometry';
  import { ahead, pointing, scale, square, wedge } from './geometry';

  const sheet = theSheet();
  const HEIGHT = 470;
  const PAD = 34;
  const THUMB = 13;
  let width = $state(560);
  let svg = $state<SVGSVGElement>();
  let held = $state<{ handle: Handle; merge: string } | null>(null);

  type Handle =
    | { kind: 'carriage'; end: 'start' | 'end' }
    | { kind: 'pan'; end: 'start' | 'end' }
    | { kind: 'mark'; index: number };

  const move = $derived(sheet.plan.move);
  const slides = $derived(sheet.plan.rig.axes.find((axis) => axis.name === 'slide'));
  const turns = $derived(sheet.plan.rig.axes.find((axis) => axis.name === 'pan'));
  // Without a rail the camera stands where the keyframes have it, with as much room drawn around it.
  const rail = $derived(
    slides ?? { low: move.start.slide_mm - 400, high: move.start.slide_mm + 400, name: 'slide' as const }
  );
  const head = $derived(turns ?? { low: -180, high: 180, name: 'pan' as const });
  const fov = $derived(sheet.figure('view.across')?.value ?? 50);
  const traces = $derived(sheet.told.traces);

  // While something is held the frame stands still, so that the drawing does not run away under the hand.
  let frozen = $state.raw<ReturnType<typeof content> | null>(null);
  function content() {
    const xs = move.marks.flatMap((mark) => [mark.x_mm - 200, mark.x_mm + 500]);
    const length = rail.high - rail.low;
    const far = Math.max(length * 1.25, ...move.marks.map((mark) => mark.y_mm * 1.18));
    return {
      left: Math.min(rail.low - length * 0.22, ...xs),
      right: Math.max(rail.high + length * 0.22, ...xs),
      far
    };
  }
  const frame = $derived({ width, height: HEIGHT, ...(frozen ?? content()) });
  const to = $derived(scale(frame));
  const reach = $derived(frame.far * 0.9);
  const grip = $derived(reach * 0.62);
  const grid = $derived(square(frame.right - frame.left));
  const gridX = $derived(range(to.mmX(0), to.mmX(width), grid));
  const gridY = $derived(range(0, to.mmY(0), grid));
  const ends = $derived([
    { end: 'start' as const, name: '1', at: move.start },
    { end: 'end' as const, name: '2', at: move.end }
  ]);
  const now = $derived(
    traces && {
      slide: slides ? sample(traces.frames, traces.axes.slide ?? [], sheet.playhead.at) : move.start.slide_mm,
      pan: turns ? sample(traces.frames, traces.axes.pan ?? [], sheet.playhead.at) : move.start.pan_deg
    }
  );

  function range(low: number, high: number, step: number): number[] {
    const made: number[] = [];
    for (let at = Math.ceil(low / step) * step; at <= high; at += step) made.push(at);
    return made;
  }

  function grab(event: PointerEvent, handle: Handle) {
    if (event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    frozen = content();
    held = { handle, merge: `drag ${JSON.stringify(handle)} ${event.timeStamp}` };
    event.stopPropagation();
  }

  function drag(event: PointerEvent) {
    if (!held || !svg) return;
    const box = svg.getBoundingClientRect();
    const x = to.mmX(event.clientX - box.left);
    const y = to.mmY(event.clientY - box.top);
    const { handle, merge } = held;
    if (handle.kind === 'carriage') void put(handle, x, merge);
    else if (handle.kind === 'pan')
      void put(handle, pointing(move[handle.end].slide_mm, x, Math.max(y, -1e6)), merge);
    else void putMark(handle.index, x, y, merge);
  }

  function release() {
    held = null;
    frozen = null;
  }

  function put(handle: Exclude<Handle, { kind: 'mark' }>, value: number, merge: string) {
    const axis = handle.kind === 'carriage' ? rail : head;
    const inside = Math.min(axis.high, Math.max(axis.low, value));
    const field = handle.kind === 'carriage' ? 'slide_mm' : 'pan_deg';
    const digits = handle.kind === 'carriage' ? 1 : 2;
    return sheet.set(`move.${handle.end}.${field}`, Number(inside.toFixed(digits)), merge);
  }

  function putMark(index: number, x: number, y: number, merge: string) {
    const path = `move.marks.${index}`;
    return sheet.change(
      [
        { do: 'set', path: `${path}.x_mm`, value: Math.round(x) },
        { do: 'set', path: `${path}.y_mm`, value: Math.max(10, Math.round(y)) }
      ],
      merge
    );
  }

  function keys(event: KeyboardEvent, handle: Handle) {
    const right = { ArrowRight: 1, ArrowLeft: -1 }[event.key] ?? 0;
    const up = { ArrowUp: 1, ArrowDown: -1 }[event.key] ?? 0;
    if (!right && !up) return;
    event.preventDefault();
    event.stopPropagation();
    const factor = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    const merge = `key ${JSON.stringify(handle)}`;
    if (handle.kind === 'mark') {
      const mark = move.marks[handle.index]!;
      void putMark(handle.index, mark.x_mm + right * 10 * factor, mark.y_mm + up * 10 * factor, merge);
    } else if (handle.kind === 'carriage')
      void put(handle, move[handle.end].slide_mm + (right || up) * factor, merge);
    else void put(handle, move[handle.end].pan_deg + (right || up) * factor * 0.5, merge);
  }
</script>

<div class="plan" bind:clientWidth={width}>
  <svg
    bind:this={svg}
    {width}
    height={HEIGHT}
    role="group"
    aria-label="Plan drawing, seen from above"
    onpointermove={drag}
    onpointerup={release}
    onpointercancel={release}
  >
    <defs>
      <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line y2="7" stroke="var(--hair)" stroke-width="1.2" />
      </pattern>
      <marker
        id="arrow"
        viewBox="0 0 8 6"
        refX="8"
        refY="3"
        markerWidth="8"
        markerHeight="6"
        orient="auto-start-reverse"
      >
        <path d="M0 0l8 3-8 3z" fill="var(--ink)" />
      </marker>
    </defs>
    {#each gridX as x (x)}<line class="hair" x1={to.x(x)} x2={to.x(x)} y1="0" y2={HEIGHT} />{/each}
    {#each gridY as y (y)}<line class="hair" x1="0" x2={width} y1={to.y(y)} y2={to.y(y)} />{/each}
    <text class="second" x="6" y="14"
      >squares of {write(grid >= 1000 ? grid / 1000 : grid, grid >= 1000 ? 'm' : 'mm')}</text
    >

    <path class="view first" d={wedge(to, move.start.slide_mm, move.start.pan_deg, fov, reach)} />
    <path class="view last" d={wedge(to, move.end.slide_mm, move.end.pan_deg, fov, reach)} />
    {#if now}<path class="view now" d={wedge(to, now.slide, now.pan, fov, reach)} />{/if}

    {#each move.marks as mark (mark.name)}
      {#each ends as one (one.end)}
        <line
          class="sight"
          x1={to.x(one.at.slide_mm)}
          y1={to.y(0)}
          x2={to.x(mark.x_mm)}
          y2={to.y(mark.y_mm)}
        />
      {/each}
    {/each}

    {#if slides}<g class="rail">
        <rect
          x={to.x(rail.low) - 12}
          width={to.x(rail.high) - to.x(rail.low) + 24}
          y={to.y(0) - 6}
          height="12"
        />
        {#each range(rail.low, rail.high, 100) as mm (mm)}
          <line x1={to.x(mm)} x2={to.x(mm)} y1={to.y(0) - 6} y2={to.y(0) - 1} />
        {/each}
        <line x1={to.x(rail.low)} x2={to.x(rail.low)} y1={to.y(0) - 10} y2={to.y(0) + 10} />
        <line x1={to.x(rail.high)} x2={to.x(rail.high)} y1={to.y(0) - 10} y2={to.y(0) + 10} />
      </g>{/if}
    {#if now}<rect class="carriage" x={to.x(now.slide) - 9} y={to.y(0) - 9} width="18" height="18" />{/if}

    {#each ends as one (one.end)}
      {@const x = to.x(one.at.slide_mm)}
      {@const tip = ahead(one.at.slide_mm, one.at.pan_deg, grip)}
      <line class="axis" x1={x} y1={to.y(0)} x2={to.x(tip[0])} y2={to.y(tip[1])} />
      <line class="square" x1={x} y1={to.y(0)} x2={x} y2={to.y(0) - 74} />
      {#if turns}<g
          class="handle"
          role="slider"
          tabindex="0"
          aria-label="Pan at the {one.end}"
          aria-valuenow={one.at.pan_deg}
          aria-valuemin={head.low}
          aria-valuemax={head.high}
          aria-valuetext={write(one.at.pan_deg, 'deg')}
          onpointerdown={(event) => grab(event, { kind: 'pan', end: one.end })}
          onkeydown={(event) => keys(event, { kind: 'pan', end: one.end })}
        >
          <circle class="reach" cx={to.x(tip[0])} cy={to.y(tip[1])} r="22" />
          <circle class="knob" cx={to.x(tip[0])} cy={to.y(tip[1])} r="7" />
        </g>{/if}
      <text
        class="bold"
        x={x + (one.end === 'start' ? -8 : 8)}
        y={to.y(0) - 80}
        text-anchor={one.end === 'start' ? 'end' : 'start'}>pan {write(one.at.pan_deg, 'deg')}</text
      >
      {#if slides}<g
          class="handle"
          role="slider"
          tabindex="0"
          aria-label="Slide at the {one.end}"
          aria-valuenow={one.at.slide_mm}
          aria-valuemin={rail.low}
          aria-valuemax={rail.high}
          aria-valuetext={write(one.at.slide_mm, 'mm')}
          onpointerdown={(event) => grab(event, { kind: 'carriage', end: one.end })}
          onkeydown={(event) => keys(event, { kind: 'carriage', end: one.end })}
        >
          <rect class="reach" x={x - 22} y={to.y(0) - 22} width="44" height="44" />
          <rect class="box" x={x - THUMB} y={to.y(0) - THUMB} width={THUMB * 2} height={THUMB * 2} />
          <text class="bold" {x} y={to.y(0) + 4.5} text-anchor="middle">{one.name}</text>
        </g>{/if}
    {/each}

    {#if slides}
      {@const a = to.x(Math.min(move.start.slide_mm, move.end.slide_mm))}
      {@const b = to.x(Math.max(move.start.slide_mm, move.end.slide_mm))}
      {@const y = to.y(0) + PAD}
      <line class="dimension" x1={a} x2={a} y1={y - 14} y2={y + 6} />
      <line class="dimension" x1={b} x2={b} y1={y - 14} y2={y + 6} />
      {#if b - a > 100}
        <line class="dimension" x1={(a + b) / 2 - 38} x2={a} y1={y} y2={y} marker-end="url(#arrow)" />
        <line class="dimension" x1={(a + b) / 2 + 38} x2={b} y1={y} y2={y} marker-end="url(#arrow)" />
      {/if}
      <text class="big" x={(a + b) / 2} y={y + 5} text-anchor="middle"
        >{write(Math.abs(move.end.slide_mm - move.start.slide_mm), 'mm')}</text
      >
    {/if}

    {#each move.marks as mark, index (index)}
      {@const x = to.x(mark.x_mm)}
      {@const y = to.y(mark.y_mm)}
      <g
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="{mark.name}, away from the rail"
        aria-valuenow={mark.y_mm}
        aria-valuetext="{write(mark.x_mm, 'mm')} along, {write(mark.y_mm, 'mm')} away"
        onpointerdown={(event) => grab(event, { kind: 'mark', index })}
        onkeydown={(event) => keys(event, { kind: 'mark', index })}
      >
        <circle class="reach" cx={x} cy={y} r="22" />
        <circle class="peg" cx={x} cy={y} r="9" />
        <circle class="dot" cx={x} cy={y} r="2.5" />
      </g>
      <text class="bold halo" x={x + 15} y={y - 2}>{mark.name}</text>
      <text class="second halo" x={x + 15} y={y + 13}>{number(mark.y_mm / 1000, 3)} m off the rail</text>
    {/each}
  </svg>
</div>

<style>
  .plan {
    overflow: hidden;
  }
  svg {
    display: block;
  }
  .hair {
    stroke: var(--hair);
    stroke-width: 1;
    opacity: 0.55;
  }
  .second {
    fill: var(--second);
  }
  .view {
    stroke: var(--second);
    stroke-width: 1;
    fill: none;
  }
  .view.first {
    fill: url(#hatch);
  }
  .view.now {
    fill: var(--wash2);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .sight {
    stroke: var(--ink);
    stroke-width: 1;
    stroke-dasharray: 2 4;
  }
  .square {
    stroke: var(--second);
    stroke-dasharray: 1.5 3.5;
  }
  .axis {
    stroke: var(--ink);
    stroke-width: 1.2;
    stroke-dasharray: 7 4;
  }
  .rail rect {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .rail line {
    stroke: var(--ink);
  }
  .carriage,
  .dot {
    fill: var(--ink);
  }
  .handle {
    cursor: grab;
    touch-action: none;
  }
  .handle:active {
    cursor: grabbing;
  }
  .handle:focus-visible {
    outline: none;
  }
  .reach {
    fill: transparent;
  }
  .handle:focus-visible .reach {
    stroke: var(--ink);
    stroke-width: 2;
    stroke-dasharray: 3 2;
  }
  .box,
  .knob,
  .peg {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .handle:hover .box,
  .handle:hover .knob,
  .handle:hover .peg {
    fill: var(--hair);
  }
  .bold {
    font-weight: 650;
  }
  .halo {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  .big {
    font-size: 14px;
    font-weight: 650;
  }
  .dimension {
    stroke: var(--ink);
  }
</style>

<script lang="ts">
  /**
   * The pace of the move over its frames: the corners are dragged to ease in and out. The line over it is how fast the
   * picture passes in the end, all axes and keyframes taken together.
   */
  import { write } from '../../format';
  import { exact } from '../../parts/beatParts';
  import { framesOf } from '../../sheet/series';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const WIDTH = 280;
  const TOP = 12;
  const BASE = 58;
  const steps = $derived(
    Math.max(1, (sheet.figure('clip.moving')?.value ?? sheet.evaluation.frames ?? 2) - 1)
  );
  const rate = $derived(sheet.quantity('rate')?.value ?? 25);
  // Counted in frames, or in seconds of clip.
  const asked = $derived({ in: counted('in'), out: counted('out') });
  function counted(end: 'in' | 'out'): number {
    const move = sheet.plan.move;
    const seconds = move[`ease_${end}_s`];
    return seconds === null || seconds === undefined
      ? move[`ease_${end}_frames`]
      : Math.round(exact(seconds) * rate);
  }
  const passing = $derived.by(() => {
    const passed = sheet.evaluation.view?.shift_share;
    const most = Math.max(...(passed?.values ?? []), 0);
    if (!passed || most === 0) return '';
    const frames = framesOf(passed, sheet.evaluation.frames ?? 1);
    const last = frames.at(-1) || 1;
    // After the last frame nothing passes any more.
    return frames
      .slice(0, -1)
      .map((frame, n) => {
        const high = BASE - ((passed.values[n] ?? 0) / most) * (BASE - TOP - 8);
        return `${n ? 'L' : 'M'}${(8 + (frame / last) * (WIDTH - 16)).toFixed(1)} ${high.toFixed(1)}`;
      })
      .join('');
  });
  // The eases as they are used: the evaluation has shortened them where they did not fit.
  const used = (end: 'in' | 'out') =>
    (sheet.figure(`move.ease_${end}`)?.value ?? 0) * (sheet.quantity('rate')?.value ?? 0);
  const x = (frame: number) => 8 + (frame / steps) * (WIDTH - 16);
  const corners = $derived([
    { end: 'in' as const, frames: asked.in, x: x(used('in')) },
    { end: 'out' as const, frames: asked.out, x: x(steps - used('out')) }
  ]);
  let svg = $state<SVGSVGElement>();
  let held = $state<{ end: 'in' | 'out'; merge: string } | null>(null);

  function put(end: 'in' | 'out', frames: number, merge: string) {
    const other = asked[end === 'in' ? 'out' : 'in'];
    const kept = Math.round(Math.min(Math.max(0, frames), Math.max(0, steps - other)));
    const inSeconds = typeof sheet.plan.move[`ease_${end}_s`] === 'string';
    if (inSeconds)
      void sheet.set(`move.ease_${end}_s`, String(Math.round((kept / rate) * 1000) / 1000), merge);
    else void sheet.set(`move.ease_${end}_frames`, kept, merge);
  }

  function drag(event: PointerEvent) {
    if (!held || !svg) return;
    const box = svg.getBoundingClientRect();
    const frame = ((((event.clientX - box.left) / box.width) * WIDTH - 8) / (WIDTH - 16)) * steps;
    put(held.end, held.end === 'in' ? frame : steps - frame, held.merge);
  }

  function keys(event: KeyboardEvent, end: 'in' | 'out', frames: number) {
    const direction = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!direction) return;
    event.preventDefault();
    event.stopPropagation();
    put(end, frames + direction * (event.shiftKey ? 25 : 1), `key ease ${end}`);
  }
</script>

<svg
  bind:this={svg}
  viewBox="0 0 {WIDTH} 66"
  role="group"
  aria-label="Pace of the move"
  onpointermove={drag}
  onpointerup={() => (held = null)}
  onpointercancel={() => (held = null)}
>
  <path class="area" d="M{x(0)} {BASE}L{corners[0]?.x} {TOP}L{corners[1]?.x} {TOP}L{x(steps)} {BASE}Z" />
  {#if passing}<path class="passing" d={passing} />{/if}
  <path class="rule" d="M{x(0)} {BASE}H{x(steps)}" />
  <line class="now" x1={x(sheet.playhead.at)} x2={x(sheet.playhead.at)} y1="4" y2={BASE} />
  {#each corners as corner (corner.end)}
    <g
      role="slider"
      tabindex="0"
      aria-label="Ease {corner.end}"
      aria-valuenow={corner.frames}
      aria-valuemin={0}
      aria-valuemax={steps}
      aria-valuetext={write(corner.frames, 'frames')}
      onpointerdown={(event) => {
        (event.currentTarget as Element).setPointerCapture(event.pointerId);
        held = { end: corner.end, merge: `drag ease ${corner.end} ${event.timeStamp}` };
      }}
      onkeydown={(event) => keys(event, corner.end, corner.frames)}
    >
      <rect class="reach" x={corner.x - 20} y="-4" width="40" height="40" />
      <rect class="box" x={corner.x - 6} y={TOP - 6} width="12" height="12" />
    </g>
  {/each}
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    overflow: visible;
  }
  .area {
    fill: var(--wash2);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .passing {
    fill: none;
    stroke: var(--second);
    stroke-dasharray: 1.5 2.5;
    stroke-width: 1.6;
  }
  .rule {
    stroke: var(--ink);
  }
  .now {
    stroke: var(--ink);
    stroke-dasharray: 4 3;
  }
  .reach {
    fill: transparent;
  }
  .box {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  g {
    cursor: ew-resize;
    touch-action: none;
  }
  g:focus-visible {
    outline: none;
  }
  g:focus-visible .box {
    stroke-width: 4;
  }
</style>

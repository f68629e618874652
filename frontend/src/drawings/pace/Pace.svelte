<script lang="ts">
  /**
   * The pace of the move over its frames: the corners are dragged to ease in and out. The line over it is how fast the
   * picture passes in the end, all axes and keyframes taken together.
   */
  import { write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { BASE, PaceState, TOP, WIDTH } from './state.svelte';

  const pace = new PaceState(theSheet());
  const [from, to] = $derived([pace.x(0), pace.x(pace.steps)]);
</script>

<svg
  class="block w-full overflow-visible"
  viewBox="0 0 {WIDTH} 66"
  role="group"
  aria-label="Pace of the move"
>
  <path
    class="fill-wash2 stroke-ink stroke-[1.6]"
    d="M{from} {BASE}L{pace.corners[0]?.x} {TOP}L{pace.corners[1]?.x} {TOP}L{to} {BASE}Z"
  />
  {#if pace.passing}
    <path class="fill-none stroke-second stroke-[1.6]" stroke-dasharray="1.5 2.5" d={pace.passing} />
  {/if}
  <path class="stroke-ink" d="M{from} {BASE}H{to}" />
  <line class="stroke-ink" stroke-dasharray="4 3" x1={pace.now} x2={pace.now} y1="4" y2={BASE} />
  {#each pace.corners as { end, frames, x } (end)}
    <g
      class="handle cursor-ew-resize"
      role="slider"
      tabindex="0"
      aria-label="Ease {end}"
      aria-valuenow={frames}
      aria-valuemin={0}
      aria-valuemax={pace.steps}
      aria-valuetext={write(frames, 'frames')}
      use:grasp={pace.grip(end)}
    >
      <rect class="fill-transparent" x={x - 20} y="-4" width="40" height="40" />
      <rect class="box" x={x - 6} y={TOP - 6} width="12" height="12" />
    </g>
  {/each}
</svg>

<style>
  .box {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .handle:focus-visible .box {
    stroke-width: 4;
  }
</style>

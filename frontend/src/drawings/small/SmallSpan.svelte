<script lang="ts">
  /** A shoot drawn small on its own time: the moves as lines, and how far it has come. */
  import type { Series } from '../../api/client';
  import { framesOf, valuesOf } from '../../sheet/series';
  import { DASHES } from '../axes';
  import { heights, path } from '../span/geometry';

  interface Props {
    traces: Record<string, Series>;
    frames: number | null;
    taken: number | null;
  }
  let { traces, frames, taken }: Props = $props();

  const WIDTH = 460;
  const last = $derived(Math.max(1, (frames ?? 1) - 1));
  const lines = $derived.by(() => {
    return Object.entries(traces).map(([name, series]) => {
      const xs = framesOf(series, last + 1).map((frame) => (frame / last) * WIDTH);
      return { name, d: path(xs, heights(valuesOf(series), 6, 42)), dash: DASHES[name] ?? '' };
    });
  });
  const done = $derived(((taken ?? 0) / (last + 1)) * WIDTH);
</script>

<svg viewBox="0 0 {WIDTH} 52" preserveAspectRatio="none" aria-hidden="true">
  {#if taken}<rect class="done" width={done} height="48" />{/if}
  {#each lines as line, i (i)}
    <path d={line.d} stroke-dasharray={line.dash} />
  {/each}
  <line x1="0" x2={WIDTH} y1="48" y2="48" />
  {#if taken && taken < (frames ?? 0)}<line class="now" x1={done} x2={done} y1="0" y2="48" />{/if}
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    height: 52px;
  }
  path,
  line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
  .now {
    stroke-width: 2.2;
  }
  .done {
    fill: var(--wash2);
  }
</style>

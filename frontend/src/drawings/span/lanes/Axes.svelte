<script lang="ts">
  /** The moves as lines: each axis between its lowest and its highest. */
  import { elapsedOf, framesOf, valuesOf } from '../../../sheet/series';
  import { DASHES } from '../../axes';
  import { heights, path } from '../geometry';
  import type { SpanView } from '../state.svelte';

  let { span }: { span: SpanView } = $props();
  // Read once a line and not once a point: a drag redraws these lines many times a second.
  const lines = $derived.by(() => {
    const { traces, scale, frames } = span;
    if (!traces) return [];
    return Object.entries(traces.axes).map(([name, series], row) => {
      const xs = elapsedOf(traces.map, framesOf(series, frames)).map((seconds) => scale(seconds));
      return {
        name,
        y: 22 + row * 17,
        d: path(xs, heights(valuesOf(series), 20, 84)),
        dash: DASHES[name] ?? ''
      };
    });
  });
</script>

{#each lines as { name, y, d, dash } (name)}
  <text x="12" y={y + 4}>{name}</text>
  <g class="fill-none stroke-ink stroke-[1.6]" stroke-dasharray={dash}>
    <line x1="50" x2="82" y1={y} y2={y} />
    <path clip-path="url(#span-room)" {d} />
  </g>
{/each}

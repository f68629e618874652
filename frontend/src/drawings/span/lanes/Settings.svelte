<script lang="ts">
  /** Where a setting of the camera changes, as it follows the light. */
  import { elapsedAt } from '../../../sheet/series';
  import { BASE, type SpanView } from '../state.svelte';

  let { span }: { span: SpanView } = $props();
  const at = $derived(
    (span.sheet.evaluation.light.changes ?? [])
      .slice(1)
      .map(({ frame }) => span.scale(elapsedAt(span.map, frame)))
      .filter((x) => span.seen(x))
  );
</script>

<g class="stroke-ink">
  {#each at as x, n (n)}
    <line x1={x} x2={x} y1={BASE - 12} y2={BASE} />
  {/each}
</g>

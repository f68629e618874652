<script lang="ts">
  /** How dark it is, as a wash behind everything else: none by day, most at night. */
  import { BASE, type SpanView } from '../state.svelte';

  let { span }: { span: SpanView } = $props();
  const WASH: Record<string, number> = { civil: 0.05, nautical: 0.09, astronomical: 0.13, night: 0.17 };
  const bands = $derived(
    (span.sheet.evaluation.light.bands ?? [])
      .filter(({ dark }) => dark !== 'day')
      .map(({ dark, from_s, to_s }) => {
        const from = Math.max(span.room.left, span.scale(Math.max(0, from_s)));
        const to = Math.min(span.room.right, span.scale(Math.min(span.length, to_s)));
        return { dark, from, wide: to - from };
      })
      .filter(({ wide }) => wide > 0)
  );
</script>

{#each bands as { dark, from, wide }, n (n)}
  <rect class="fill-ink" opacity={WASH[dark]} x={from} y="0" width={wide} height={BASE} />
{/each}

<script lang="ts">
  /** Every frame as a tick, or a band where they stand too close to be told apart. */
  import type { SpanView } from '../state.svelte';

  let { span }: { span: SpanView } = $props();
  const PX_A_FRAME = 3;
  const { left, right } = $derived(span.room);
</script>

<text x="12" y="106">frames</text>
<g class="stroke-ink" clip-path="url(#span-room)">
  <line class="stroke-hair" x1={left} x2={right} y1="102" y2="102" />
  {#if span.shown.length < (right - left) / PX_A_FRAME}
    {#each span.shown as frame (frame)}
      <line x1={span.xOf(frame)} x2={span.xOf(frame)} y1="97" y2="107" />
    {/each}
  {:else}
    {@const [from, to] = [span.scale(0), span.scale(span.length)]}
    <rect class="fill-wash2 stroke-none" x={from} width={to - from} y="98" height="8" />
  {/if}
</g>

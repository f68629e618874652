<script lang="ts">
  /** Where the interval changes. */
  import { BASE, type SpanView } from '../state.svelte';
  import { changesOf } from './changes';

  let { span }: { span: SpanView } = $props();
</script>

<g class="stroke-ink stroke-[1.2]" stroke-dasharray="5 3" clip-path="url(#span-room)">
  {#each changesOf(span.sheet) as { segment, frame } (segment)}
    {@const x = span.xOf(frame)}
    <line x1={x} x2={x} y1="14" y2={BASE} />
  {/each}
</g>

<script lang="ts">
  /** What happens at a clock time, as it is named. */
  import { BASE, type SpanView } from '../state.svelte';

  let { span }: { span: SpanView } = $props();
  const events = $derived(
    span.sheet.plan.shoot.clock.events
      .map(({ name, at }) => ({ name, after: Date.parse(at) / 1000 - span.sheet.start }))
      .filter(({ after }) => after >= 0 && after <= span.length)
      .map(({ name, after }) => ({ name, x: span.scale(after) }))
  );
</script>

<g clip-path="url(#span-room)">
  {#each events as { name, x }, i (i)}
    {@const before = x > span.width - 150}
    <line class="stroke-second" stroke-dasharray="2 3" x1={x} x2={x} y1="8" y2={BASE} />
    <text class="fill-second" x={x + (before ? -5 : 5)} y="16" text-anchor={before ? 'end' : 'start'}
      >{name}</text
    >
  {/each}
</g>

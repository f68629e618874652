<script lang="ts">
  /** What happens at a clock time, as it is named. */
  import Label from '../../Label.svelte';
  import { placed } from '../../labels';
  import { BASE, type SpanView } from '../state.svelte';

  let { span }: { span: SpanView } = $props();
  const events = $derived(
    span.sheet.plan.shoot.clock.events
      .map(({ name, at }, n) => {
        const tied = span.sheet.figure(`tied.shoot.clock.events.${n}`)?.value;
        return { name, after: (tied ?? Date.parse(at) / 1000) - span.sheet.start };
      })
      .filter(({ after }) => after >= 0 && after <= span.length)
      .map(({ name, after }) => ({ name, x: span.scale(after) }))
  );
  const room = $derived({ left: span.room.left - 4, right: span.room.right, top: 2, bottom: 60 });
  const named = $derived(
    placed(
      events.map(({ name, x }) => ({ x, y: 12, reach: 5, lines: [name] })),
      span.zoomed ? [{ left: span.width - 100, right: span.width, top: 0, bottom: 24 }] : [],
      room
    ).map((at) => ({ ...at, lead: null }))
  );
</script>

<g clip-path="url(#span-room)">
  {#each events as { name, x }, i (i)}
    <line class="stroke-second" stroke-dasharray="2 3" x1={x} x2={x} y1="8" y2={BASE} />
    <Label at={named[i]!} lines={[name]} />
  {/each}
</g>

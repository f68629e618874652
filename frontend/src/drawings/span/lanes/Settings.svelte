<script lang="ts">
  /** Where a setting of the camera changes, as it follows the light; a band where it does so all the time. */
  import { elapsedAt } from '../../../sheet/series';
  import { BASE, type SpanView } from '../state.svelte';

  let { span }: { span: SpanView } = $props();
  const light = $derived(span.sheet.evaluation.light);
  const changes = $derived((light.changes ?? []).slice(1));
  const school = $derived(span.sheet.plan.light?.school);
  /** There are more of them than are told here. */
  const more = $derived((light.schools?.find((one) => one.school === school)?.changes ?? 0) > changes.length);
  const at = $derived(
    more ? [] : changes.map(({ frame }) => span.scale(elapsedAt(span.map, frame))).filter((x) => span.seen(x))
  );
</script>

{#if more}
  {@const [from, to] = [
    Math.max(span.room.left, span.scale(0)),
    Math.min(span.room.right, span.scale(span.length))
  ]}
  {#if to > from}<rect class="fill-wash2" x={from} width={to - from} y={BASE - 9} height="9" />{/if}
{:else}
  <g class="stroke-ink">
    {#each at as x, n (n)}
      <line x1={x} x2={x} y1={BASE - 12} y2={BASE} />
    {/each}
  </g>
{/if}

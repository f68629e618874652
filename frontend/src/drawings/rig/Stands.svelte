<script lang="ts">
  /** What holds it up, and the ground. */
  import { GROUND, type RigView } from './state.svelte';

  let { view }: { view: RigView } = $props();
  const HATCH = 12;
  const scale = $derived(view.scale);
  const hatches = $derived(Array.from({ length: Math.ceil(view.width / HATCH) }, (_, i) => i * HATCH));
</script>

<path class="stroke-ink stroke-[1.2]" d="M0 {GROUND}H{view.width}" />
<path class="stroke-hair" d={hatches.map((x) => `M${x} ${GROUND + 8}l8 -8`).join('')} />
{#each view.stands as part (part.index)}
  {@const x = scale.x(part.x_mm)}
  {@const top = scale.y(part.height_mm)}
  {@const reach = scale.px(part.width_mm / 2)}
  <g
    class={['fill-sheet stroke-[1.7]', part.bad ? 'stroke-stop' : 'stroke-ink']}
    stroke-dasharray={part.bad ? '5 2' : undefined}
  >
    {#if part.form === 'mast'}
      <path d="M{x - 4} {GROUND}V{top}h8V{GROUND}" />
      <path class="stroke-1" d="M{x} {top + 20}L{x - reach} {GROUND}M{x} {top + 20}L{x + reach} {GROUND}" />
    {:else if part.form === 'clamp'}
      <rect x={x - reach} y={top} width={reach * 2} height={GROUND - top} />
    {:else}
      <path
        class="fill-none stroke-5"
        d="M{x - 4} {top + 14}L{x - reach} {GROUND}M{x + 4} {top + 14}L{x + reach} {GROUND}"
      />
      <path
        class={['fill-none stroke-4', !part.bad && 'stroke-second']}
        d="M{x} {top + 14}L{x + reach * 0.12} {GROUND - 3}"
      />
      <rect x={x - 11} y={top} width="22" height="15" />
    {/if}
  </g>
{/each}

<script lang="ts">
  /** What stands on the support: each part in its place, and faintly at both ends of the travel. */
  import type { RigView } from './state.svelte';

  interface Props {
    view: RigView;
    chosen: number | null;
  }
  let { view, chosen }: Props = $props();
  const scale = $derived(view.scale);
</script>

{#each view.ghosts as place, i (i)}
  {#each view.pieces.filter((part) => part.rides) as part (part.index)}
    <rect
      class="fill-none stroke-second"
      stroke-dasharray="3 3"
      x={scale.x(part.x_mm + place - view.first) - scale.px(part.width_mm / 2)}
      y={scale.y(part.y_mm + part.height_mm)}
      width={scale.px(part.width_mm)}
      height={Math.max(1, scale.px(part.height_mm))}
    />
  {/each}
{/each}
{#each view.pieces as part, i (i)}
  {@const x = scale.x(view.placed(part))}
  {@const wide = Math.max(6, scale.px(part.width_mm))}
  {@const high = Math.max(3, scale.px(part.height_mm))}
  {@const top = scale.y(part.y_mm + part.height_mm)}
  <g
    class={[
      part.rides && part.form === 'linear' ? 'fill-wash2' : 'fill-sheet',
      chosen === part.index ? 'stroke-3' : 'stroke-[1.7]',
      part.bad ? 'stroke-stop' : 'stroke-ink'
    ]}
    stroke-dasharray={part.bad ? '5 2' : undefined}
  >
    {#if part.kind === 'body' || part.kind === 'phone'}
      <rect x={x - wide * 0.36} y={top} width={wide * 0.72} height={high} />
      <rect x={x + wide * 0.36} y={top + high * 0.22} width={Math.max(8, wide * 0.5)} height={high * 0.56} />
    {:else if part.form === 'rotary' && high > 16}
      <rect x={x - wide / 2} y={top + high * 0.45} width={wide} height={high * 0.55} />
      <circle cx={x} cy={top + high * 0.3} r={Math.min(high * 0.34, wide * 0.5)} />
    {:else}
      <rect x={x - wide / 2} y={top} width={wide} height={high} />
    {/if}
  </g>
{/each}

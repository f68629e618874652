<script lang="ts">
  /** The marks: those on the drawing where they stand, those beyond it as arrows at its edge. */
  import { write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import Label from '../Label.svelte';
  import type { PlanView } from './state.svelte';

  interface Props {
    view: PlanView;
  }
  let { view }: Props = $props();
  const to = $derived(view.to);
</script>

{#each view.here as { mark, index }, n (index)}
  {@const x = to.x(mark.x_mm)}
  {@const y = to.y(mark.y_mm)}
  {@const half = view.half(index)}
  {@const deep = Math.max(6, mark.depth_mm * to.mm)}
  <g
    class="handle"
    role="slider"
    tabindex="0"
    aria-label="{mark.name}, away from {view.slides ? 'the rail' : 'the camera'}"
    aria-valuenow={mark.y_mm}
    aria-valuetext="{write(mark.x_mm, 'mm')} along, {write(mark.y_mm, 'mm')} away"
    use:grasp={view.mark(index)}
  >
    <circle class="reach" cx={x} cy={y} r="20" />
    {#if mark.form === 'block'}
      <rect class="knob block" x={x - half} y={y - deep} width={half * 2} height={deep} />
    {:else if mark.form === 'person'}
      <circle class="knob" cx={x} cy={y} r="6" /><path class="knob" d="M{x - 11} {y + 7}q11 -9 22 0" />
    {:else}
      <circle class="knob" cx={x} cy={y} r={mark.form === 'point' ? 9 : Math.min(half, 40)} />
      <circle class="fill-ink" cx={x} cy={y} r="2.5" />
    {/if}
  </g>
  <Label {...view.labels.here[n]!} bold />
{/each}
{#each view.distant as { mark, index, at }, n (index)}
  {@const bears = mark.form === 'bearing'}
  <g
    class="handle"
    role="slider"
    tabindex="0"
    aria-label="{mark.name}, beyond the drawing"
    aria-valuenow={bears ? mark.bearing_deg : mark.y_mm}
    aria-valuetext={bears
      ? `bearing ${write(mark.bearing_deg, 'deg')}`
      : `${write(mark.x_mm, 'mm')} along, ${write(mark.y_mm, 'mm')} away`}
    use:grasp={view.beyond(index)}
  >
    <circle class="reach" cx={at.x} cy={at.y} r="14" />
    <path class="fill-ink" d="M0 -9l5 9h-10z" transform="translate({at.x} {at.y}) rotate({at.turned})" />
  </g>
  <Label {...view.labels.distant[n]!} />
{/each}

<style>
  .block {
    fill: var(--wash2);
  }
</style>

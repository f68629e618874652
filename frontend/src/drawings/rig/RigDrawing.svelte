<script lang="ts">
  /** The rig from the side, to scale: what stands on what, where its mass is, and what holds it up. */
  import type { RigState } from '../../api/client';
  import { write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Balance from './Balance.svelte';
  import Calls from './Calls.svelte';
  import Pieces from './Pieces.svelte';
  import Stands from './Stands.svelte';
  import { RigView, TALL } from './state.svelte';

  interface Props {
    rig: RigState;
    chosen: number | null;
    onchoose: (index: number) => void;
  }
  let { rig, chosen, onchoose }: Props = $props();

  const view = new RigView(theSheet(), () => rig);
  const scale = $derived(view.scale);
  const rail = $derived(view.rail);
  const tried = $derived(view.tried);
</script>

<div bind:clientWidth={view.page}>
  <svg
    class="block h-auto w-full"
    viewBox="0 0 {view.width + view.side} {TALL}"
    role="group"
    aria-label={view.words}
  >
    <Stands {view} />
    <g transform="rotate({-rig.slope_deg} {scale.x(0)} {scale.y(rail?.y_mm ?? 0)})">
      <Pieces {view} {chosen} />
      {#if view.slide && rail}
        <rect
          class="pull"
          role="slider"
          tabindex="0"
          aria-label="Carriage, to see where the rig would tip"
          aria-valuemin={view.slide.low}
          aria-valuemax={view.slide.high}
          aria-valuenow={Math.round(view.now)}
          aria-valuetext="{write(Math.round(view.now), 'mm')}{view.tips ? ', tips' : ''}"
          x={scale.x(view.at) - Math.max(24, scale.px(60))}
          y={20}
          width={Math.max(48, scale.px(120))}
          height={scale.y(rail.y_mm) - 20}
          use:grasp={view.carriage}
        />
      {/if}
    </g>
    {#if view.stands.length && view.pieces.length}<Balance {view} />{/if}
    {#if view.side}<Calls {view} {onchoose} />{/if}
  </svg>
  {#if view.slide && rail}
    <p class="label">
      Pull the carriage along the rail to see where the rig would tip.
      {#if tried !== null}Carriage at {write(Math.round(tried), 'mm')}{view.tips ? ': it tips here' : ''}.
        <button type="button" class="link" onclick={() => (view.tried = null)}>back to the playhead</button
        >{/if}
    </p>
  {/if}
</div>

<style>
  .pull {
    fill: transparent;
    cursor: ew-resize;
    outline: none;
    touch-action: pan-y;
  }
  .pull:focus-visible {
    stroke: var(--ink);
    stroke-dasharray: 2 3;
  }
</style>

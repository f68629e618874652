<script lang="ts">
  /** The frame as it is shot, what is kept of it, and the crops of a move made afterwards; crops are dragged and sized. */
  import { write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { CropState, EDGE } from './state.svelte';

  const view = new CropState(theSheet());
  const [wide, high] = $derived(view.frame);
  const kept = $derived(view.kept);
</script>

<div class="overflow-hidden" bind:clientWidth={view.width}>
  <svg
    class="mx-auto block"
    width={wide + 2 * EDGE}
    height={high + 2 * EDGE}
    role="group"
    aria-label="The frame and what is kept of it"
  >
    <g transform="translate({EDGE} {EDGE})">
      <rect class="fill-wash stroke-ink" width={wide} height={high} />
      <g class="stroke-second" stroke-dasharray="7 4" transform="rotate({-view.level} {wide / 2} {high / 2})"
        ><line x1="-40" x2={wide + 40} y1={high / 2} y2={high / 2} /></g
      >
      <rect class="fill-sheet stroke-ink stroke-[1.6]" x={kept.x} y={kept.y} width={kept.w} height={kept.h} />
      <text class="halo fill-second" x={kept.x + kept.w - 6} y={kept.y + kept.h - 6} text-anchor="end"
        >kept, {view.shape}</text
      >
      {#if view.now}
        {@const { x, y, w, h } = view.now}
        <rect class="fill-wash2 stroke-ink stroke-[1.6]" {x} {y} width={w} height={h} />
      {/if}
      {#each view.ends as { end, crop, box: { x, y, w, h } }, n (end)}
        <g
          class="handle cursor-move"
          role="slider"
          tabindex="0"
          aria-label="Crop at the {end}"
          aria-valuenow={crop.across}
          aria-valuetext="{write(crop.across, 'share')} from the left, {write(
            crop.down,
            'share'
          )} from the top"
          use:grasp={view.place(end)}
        >
          <rect
            class="fill-transparent stroke-ink stroke-[1.4]"
            stroke-dasharray={n === 1 ? '8 4' : '2 3'}
            {x}
            {y}
            width={w}
            height={h}
          />
          <rect class="grip" {x} {y} width="20" height="20" />
          <text class="font-[650]" x={x + 10} y={y + 14.5} text-anchor="middle">{n + 1}</text>
        </g>
        <g
          class="handle cursor-nwse-resize"
          role="slider"
          tabindex="0"
          aria-label="Width of the crop at the {end}"
          aria-valuenow={crop.width}
          aria-valuemin={0.05}
          aria-valuemax={1}
          aria-valuetext={write(crop.width, 'share')}
          use:grasp={view.corner(end)}
        >
          <circle class="fill-transparent" cx={x + w} cy={y + h} r="18" />
          <rect class="grip" x={x + w - 6} y={y + h - 6} width="12" height="12" />
        </g>
      {/each}
    </g>
  </svg>
</div>

<style>
  .grip {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .handle:focus-visible .grip {
    stroke-width: 4;
  }
</style>

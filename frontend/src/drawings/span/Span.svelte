<script lang="ts">
  /** The whole shoot on its clock: a lane for each thing that the chapters show, and one playhead that all follow. */
  import { untrack } from 'svelte';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import type { Lane } from './lane';
  import { BASE, LEFT, RIGHT, SpanView, TALL } from './state.svelte';

  let { lanes: given }: { lanes: readonly Lane[] } = $props();
  const lanes = $derived([...given].sort((a, b) => Number(b.behind ?? false) - Number(a.behind ?? false)));
  const span = new SpanView(theSheet());
  let width = $state(1160);
  $effect.pre(() => {
    const next = width;
    untrack(() => span.resize(next));
  });
</script>

<div class="relative min-h-[150px] overflow-hidden" bind:clientWidth={width}>
  {#if span.frames > 0}
    <svg
      class="block cursor-ew-resize touch-pan-y focus-visible:-outline-offset-3"
      width={span.width}
      height={TALL}
      role="slider"
      tabindex="0"
      aria-label="Playhead on the span of the shoot"
      aria-valuemin={1}
      aria-valuemax={span.frames}
      aria-valuenow={span.at + 1}
      aria-valuetext={span.flag.text}
      use:span.zooms
      use:grasp={span.playhead}
      onkeydown={span.keys}
    >
      <clipPath id="span-room">
        <rect x={LEFT - 7} y="0" width={span.width - LEFT - RIGHT + 14} height={TALL} />
      </clipPath>
      {#each span.ticks as { x, text }, i (i)}
        <line class="stroke-ink" x1={x} x2={x} y1={BASE} y2={BASE + 6} />
        <text {x} y={BASE + 20} text-anchor="middle">{text}</text>
      {/each}
      <line class="stroke-ink" x1={LEFT} x2={span.width - RIGHT} y1={BASE} y2={BASE} />
      {#each lanes as { key, Drawn } (key)}
        {#if Drawn}<Drawn {span} />{/if}
      {/each}
      <g clip-path="url(#span-room)">
        <line class="stroke-ink stroke-[1.8]" x1={span.headX} x2={span.headX} y1="0" y2={BASE} />
        <path class="fill-ink" d="M{span.headX - 6} {BASE + 1}h12l-6 -8z" />
      </g>
      <g transform="translate({span.flag.x} 88)">
        <rect class="fill-ink" width={span.flag.wide} height="20" />
        <text class="fill-sheet font-semibold" x="8" y="14">{span.flag.text}</text>
      </g>
    </svg>
    {#each lanes as { key, Held } (key)}
      {#if Held}<Held {span} />{/if}
    {/each}
    {#if span.zoomed}
      <button
        type="button"
        class="link no-print absolute top-1.5 right-3.5 min-h-6 text-xs"
        onclick={() => span.whole()}>whole shoot</button
      >
    {/if}
  {:else}
    <p class="mono-note p-4">The span appears as soon as the sentence fixes frames and interval.</p>
  {/if}
</div>

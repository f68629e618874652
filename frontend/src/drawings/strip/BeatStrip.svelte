<script lang="ts">
  /** The beat unrolled: one interval as a dimensioned bar, its times written under their parts and changed there. */
  import { scaleLinear } from 'd3-scale';
  import type { BeatState } from '../../api/client';
  import { duration } from '../../format';

  import { wideOf } from '../labels';

  interface Props {
    beat: BeatState;
  }
  let { beat }: Props = $props();

  let width = $state(880);
  const WIDTH = $derived(Math.max(240, width));
  const span = $derived(Math.max(beat.interval_s, beat.interval_s + beat.over_s) * 1.001);
  const x = $derived(scaleLinear([0, span], [4, WIDTH - 4]));
  const ticks = $derived.by(() => {
    // As many as have room for what is written under them.
    for (let count = Math.floor(WIDTH / 70); count > 1; count--) {
      const found = x.ticks(count);
      const wide = Math.max(...found.map((tick) => wideOf(duration(tick)))) + 8;
      if (found.length < 2 || x(found[1]!) - x(found[0]!) > wide) return found;
    }
    return x.ticks(1);
  });
  const parts = $derived(beat.parts.filter((part) => part.length_s > 0));
  const end = $derived(x(beat.interval_s));
</script>

<div bind:clientWidth={width}>
  <svg viewBox="0 0 {WIDTH} 84" role="img" aria-label="The beat unrolled along {duration(beat.interval_s)}">
    <defs>
      <pattern id="kept" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line y2="6" stroke="var(--second)" stroke-width="1.4" />
      </pattern>
    </defs>
    {#each parts as part, i (i)}
      {@const left = x(part.start_s)}
      {@const width = Math.max(1.5, x(part.start_s + part.length_s) - left)}
      <rect
        class={part.name}
        x={left}
        {width}
        y={{ outer: 8, inner: 31, wires: 46 }[part.track]}
        height={{ outer: 22, inner: 14, wires: 5 }[part.track]}
      />
      {#if width > part.label.length * 5.6 + 8 && part.track !== 'wires'}
        <text x={left + 5} y={part.track === 'inner' ? 42 : 23} class="name {part.name}">{part.label}</text>
      {/if}
    {/each}
    <path class="rule" d="M4 54H{WIDTH - 4}" />
    {#each ticks as tick, i (i)}
      <line class="rule" x1={x(tick)} x2={x(tick)} y1="54" y2="60" />
      <text x={x(tick)} y="74" text-anchor={tick === 0 ? 'start' : x(tick) > WIDTH - 30 ? 'end' : 'middle'}
        >{duration(tick)}</text
      >
    {/each}
    <line class="shutter" x1={end} x2={end} y1="2" y2="60" />
    {#if beat.over_s > 0}
      <rect class="over" x={end} y="4" width={WIDTH - 4 - end} height="45" />
    {/if}
  </svg>
</div>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  rect {
    fill: var(--ink);
    stroke: var(--ink);
    stroke-width: 1;
  }
  rect.write,
  rect.move {
    fill: var(--tone-fill);
    stroke: var(--tone);
  }
  rect.wake,
  rect.half,
  rect.warm,
  rect.call,
  rect.couple,
  rect.press,
  rect.lag {
    fill: var(--second);
    stroke: var(--second);
  }
  rect.gap {
    fill: none;
    stroke: var(--second);
  }
  rect.spare {
    fill: none;
    stroke: var(--hair);
  }
  rect.margin {
    fill: url(#kept);
    stroke: var(--second);
  }
  .over {
    fill: none;
    stroke: var(--stop);
    stroke-width: 2;
    stroke-dasharray: 6 3;
  }
  .rule {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .shutter {
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .name {
    fill: var(--sheet);
    font-weight: 600;
  }
  .name.write,
  .name.move {
    fill: var(--on-tone);
  }
  .name.spare,
  .name.gap {
    fill: var(--second);
    font-weight: 450;
  }
  .name.margin {
    display: none;
  }
</style>

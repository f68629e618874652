<script lang="ts">
  /** How often suits which subject: bars on a scale of intervals, with the interval of this shoot to drag along it. */
  import { onMount } from 'svelte';
  import { duration } from '../../format';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { BarsState, ROW } from './state.svelte';

  const sheet = theSheet();
  const bars = new BarsState(sheet);
  onMount(bars.load);
  const { x, tall, right, chosen, interval, least } = $derived(bars);
  const usual = $derived(chosen && `${duration(chosen.low_s)} to ${duration(chosen.high_s)}`);
  const FITS = {
    shorter: (usual: string) => `Shorter than the usual ${usual}: smoother, more frames, more to store.`,
    longer: (usual: string) => `Longer than the usual ${usual}: it jumps further from frame to frame.`,
    within: (usual: string) => `Within the usual ${usual}.`
  };
</script>

<div bind:clientWidth={bars.page}>
  {#if bars.trouble}<p role="alert">{bars.trouble}</p>{/if}
  <svg
    class="block h-auto w-full"
    viewBox="0 0 {bars.width} {tall + 36}"
    aria-label="Intervals that suit a subject"
    role="group"
  >
    {#each bars.rows as { item, row, from, to, outside, before } (item.key)}
      {@const on = item.key === chosen?.key}
      <g
        role="button"
        tabindex="0"
        class="group cursor-pointer outline-none"
        aria-pressed={on}
        aria-label="{item.name}: {duration(item.low_s)} to {duration(item.high_s)}. {item.reason}"
        onclick={() => bars.choose(item)}
        onkeydown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          bars.choose(item);
        }}
      >
        <title>{item.reason}</title>
        <rect
          class={[
            'fill-wash2 group-hover:stroke-ink group-hover:stroke-[2.4] group-focus-visible:stroke-ink group-focus-visible:stroke-[2.4]',
            on ? 'stroke-ink stroke-[1.8]' : 'stroke-second'
          ]}
          x={from}
          y={row * ROW + 20}
          width={to - from}
          height="16"
        />
        <text
          class={[on && 'font-[650]']}
          x={before ? from - 6 : outside ? to + 6 : from + 6}
          y={row * ROW + 32}
          text-anchor={before ? 'end' : 'start'}>{item.name}</text
        >
      </g>
    {/each}
    {#if least !== null}
      {@const before = x(least) > bars.width / 2}
      <line
        class="stroke-ink"
        stroke-dasharray="3 2"
        x1={x(least)}
        x2={x(least)}
        y1={tall - 6}
        y2={tall + 8}
      />
      <text
        class="fill-second"
        x={x(least) + (before ? -6 : 6)}
        y={tall + 2}
        text-anchor={before ? 'end' : 'start'}>nothing under {duration(least)} fits the beat</text
      >
    {/if}
    <path class="stroke-ink" d="M4 {tall + 8}H{right}" />
    {#each bars.ticks as tick (tick)}
      <line class="stroke-ink" x1={x(tick)} x2={x(tick)} y1={tall + 8} y2={tall + 13} />
      <text x={x(tick)} y={tall + 28} text-anchor={tick === 1 ? 'start' : 'middle'}
        >{tick >= 60 ? `${tick / 60} min` : tick === 1 ? '1 s' : tick}</text
      >
    {/each}
    {#if interval !== null}
      {@const at = bars.at(interval)}
      {@const before = at > bars.width - 120}
      <g
        role="slider"
        tabindex="0"
        class="now outline-none"
        aria-label="Interval on the scale"
        aria-valuenow={interval}
        aria-valuetext={duration(interval)}
        use:grasp={bars.grip}
      >
        <rect class="cursor-ew-resize fill-transparent" x={at - 12} y="0" width="24" height={tall + 8} />
        <line class="stroke-ink stroke-[1.8]" x1={at} x2={at} y1="14" y2={tall + 8} />
        <path class="fill-ink" d="M{at - 6} 6h12l-6 9z" />
        <text class="font-[650]" x={at + (before ? -10 : 10)} y="14" text-anchor={before ? 'end' : 'start'}
          >now {duration(interval)}</text
        >
      </g>
    {/if}
  </svg>
  <p class="min-h-[2.7em] max-w-[100ch] text-[13px] text-second" role="status">
    {#if chosen && usual && sheet.evaluation.clip.subject}
      <b class="text-ink">{chosen.name}:</b>
      {chosen.reason}
      {FITS[sheet.evaluation.clip.subject](usual)} These are starting points, not limits.
    {:else}
      Take a subject to see why. Short: smooth, and much to store. Long: time is pressed hard, and things
      jump.
    {/if}
  </p>
</div>

<style>
  .now:focus-visible path {
    stroke: var(--ink);
    stroke-width: 4;
  }
</style>

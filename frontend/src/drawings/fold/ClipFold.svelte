<script lang="ts">
  /** The shoot folded into the clip: every frame on a rule, and the clip to the scale of the frames' own seconds. */
  import { scaleLinear } from 'd3-scale';
  import { number, rate as writeRate, say } from '../../format';

  interface Props {
    frames: number;
    clip: number;
    rate: number;
    speedUp: number;
    playhead: number;
  }
  let { frames, clip, rate, speedUp, playhead }: Props = $props();

  let width = $state(880);
  const WIDTH = $derived(Math.max(240, width));
  const x = $derived(scaleLinear([1, Math.max(2, frames)], [4, WIDTH - 4]));
  const labels = $derived(
    [
      ...new Set([1, ...x.ticks(WIDTH / 110).filter((t) => t > 1 && t < frames * (1 - 50 / WIDTH)), frames])
    ].filter(Number.isInteger)
  );
  const ticks = $derived(x.ticks(Math.min(frames, WIDTH / 9)).filter((tick) => Number.isInteger(tick)));
  // The longer the clip, the longer its line; half the rule stands for one minute.
  const half = $derived(Math.min(WIDTH / 2 - 8, Math.max(10, (clip / 60) * (WIDTH / 2)) / 2 + 20));
  const left = $derived(WIDTH / 2 - half);
  const right = $derived(WIDTH / 2 + half);
  const across = $derived(frames > 1 ? playhead / (frames - 1) : 0);
  const words = $derived(
    `${frames} frames make ${say(clip, 's')} of clip at ${writeRate(rate)} a second, ${number(speedUp)} times faster than life`
  );
</script>

<div bind:clientWidth={width}>
  <svg viewBox="0 0 {WIDTH} 98" role="img" aria-label={words}>
    {#each labels as tick, i (i)}
      <text x={x(tick)} y="12" text-anchor={tick === 1 ? 'start' : tick === frames ? 'end' : 'middle'}
        >{number(tick, 12)}</text
      >
    {/each}
    <path class="rule" d="M4 36H{WIDTH - 4}" />
    {#each ticks as tick, i (i)}
      <line class="tick" x1={x(tick)} x2={x(tick)} y1={labels.includes(tick) ? 20 : 29} y2="36" />
    {/each}
    <line class="tick" x1={x(1)} x2={x(1)} y1="20" y2="36" />
    <line class="tick" x1={x(Math.max(2, frames))} x2={x(Math.max(2, frames))} y1="20" y2="36" />
    <path class="fold" d="M4 37H{WIDTH - 4}L{right} 90H{left}Z" />
    {#each labels as tick, i (i)}
      {@const share = frames > 1 ? (tick - 1) / (frames - 1) : 0}
      <line class="ray" x1={x(tick)} y1="37" x2={left + share * (right - left)} y2="90" />
    {/each}
    <line class="head" x1={4 + across * (WIDTH - 8)} y1="20" x2={left + across * (right - left)} y2="96" />
    <rect class="clip" x={left} y="90" width={right - left} height="5" />
  </svg>
</div>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  .rule {
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .tick {
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .fold {
    fill: var(--wash);
  }
  .ray {
    stroke: var(--hair);
  }
  .clip {
    fill: var(--ink);
  }
  .head {
    stroke: var(--ink);
    stroke-width: 1.4;
    stroke-dasharray: 5 3;
  }
</style>

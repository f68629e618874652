<script lang="ts">
  /** Clip time against real time: where the line is steep the clip dwells, where it is flat time is pressed hard. */
  import { scaleLinear } from 'd3-scale';
  import { clock, say } from '../../format';
  import { elapsedAt } from '../../sheet/series';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { clockTicks } from '../../time';
  import { path } from '../span/geometry';
  import { changesOf } from '../span/lanes/changes';

  const sheet = theSheet();
  let width = $state(420);
  const WIDTH = $derived(Math.max(240, width));
  const TALL = 190;
  const BASE = 158;
  const map = $derived(sheet.evaluation.traces?.map);
  const rate = $derived(sheet.quantity('rate')?.value ?? 25);
  const frames = $derived(sheet.evaluation.frames ?? 0);
  const length = $derived(elapsedAt(map, Math.max(0, frames - 1)));
  const clip = $derived(frames / rate);
  const x = $derived(scaleLinear([0, Math.max(length, 1e-6)], [44, WIDTH - 12]));
  const y = $derived(scaleLinear([0, Math.max(clip, 1e-6)], [BASE, 14]));
  const line = $derived(
    map
      ? path(
          map.elapsed_s.map((s) => x(Math.min(s, length))),
          map.frames.map((f) => y(Math.min(f, frames - 1) / rate))
        )
      : ''
  );
  const edges = $derived(
    changesOf(sheet).map(({ segment, frame }) => ({
      segment,
      x: x(elapsedAt(map, frame)),
      y: y(frame / rate)
    }))
  );
  const ticks = $derived(clockTicks(sheet.start, sheet.start + length, Math.max(2, WIDTH / 80), sheet.zone));
  const head = $derived({
    x: x(elapsedAt(map, sheet.playhead.at)),
    y: y(sheet.playhead.at / rate)
  });
</script>

<div bind:clientWidth={width}>
  <svg
    viewBox="0 0 {WIDTH} {TALL}"
    role="img"
    aria-label="Clip time against real time: {say(length, 's')} become {say(clip, 's')} of clip"
  >
    {#each y.ticks(4) as tick, i (i)}
      <line class="hair" x1="44" x2={WIDTH - 12} y1={y(tick)} y2={y(tick)} />
      <text x="38" y={y(tick) + 4} text-anchor="end">{say(tick, 's')}</text>
    {/each}
    {#each ticks.at as tick, i (i)}
      <line class="rule" x1={x(tick - sheet.start)} x2={x(tick - sheet.start)} y1={BASE} y2={BASE + 5} />
      <text x={x(tick - sheet.start)} y={BASE + 20} text-anchor="middle"
        >{clock(tick, sheet.zone, ticks.step < 60)}</text
      >
    {/each}
    <path class="rule" d="M44 14V{BASE}H{WIDTH - 12}" />
    <line class="even" x1={x(0)} y1={y(0)} x2={x(length)} y2={y((frames - 1) / rate)} />
    {#each edges as edge (edge.segment)}
      <path class="edge" d="M{edge.x} {BASE}V{edge.y}H44" />
    {/each}
    <path class="line" d={line} />
    <circle class="head" cx={head.x} cy={head.y} r="4" />
    <text class="faint" x="50" y="24">clip</text>
  </svg>
</div>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  .rule {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1;
  }
  .hair {
    stroke: var(--hair);
  }
  .even {
    stroke: var(--second);
    stroke-dasharray: 2 4;
  }
  .edge {
    fill: none;
    stroke: var(--second);
    stroke-dasharray: 5 3;
  }
  .line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .head {
    fill: var(--ink);
  }
  .faint {
    fill: var(--second);
  }
</style>

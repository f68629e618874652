<script lang="ts">
  /** The time of one frame as square waves to scale: a line for each contact, lamp and shutter, high while it is on. */
  import { scaleLinear } from 'd3-scale';
  import type { components } from '../../api/schema';
  import { duration } from '../../format';
  import { wideOf } from '../labels';

  interface Props {
    waves: readonly components['schemas']['Wave'][];
    interval: number;
    /** Only what lies around the press, drawn larger. */
    close: boolean;
  }
  let { waves, interval, close }: Props = $props();
  let width = $state(760);
  /** Where there is little room each label stands over its line. */
  const narrow = $derived(width < 560);
  const ROW = $derived(narrow ? 38 : 23);
  const HIGH = 13;
  const TOP = 2;
  const named = (wave: (typeof waves)[number]) => (wave.note ? `${wave.label}, ${wave.note}` : wave.label);
  const left = $derived(narrow ? 2 : 12 + Math.max(60, ...waves.map((wave) => wideOf(named(wave)))));
  /** What happens around the press: everything that begins or ends within the beat, lamps that are always on apart. */
  const edges = $derived(
    waves.flatMap((wave) => wave.on.flat()).filter((at) => at > 1e-9 && at < interval - 1e-9)
  );
  const until = $derived(close && edges.length ? Math.min(interval, Math.max(...edges) * 1.12) : interval);
  /** Something that begins with the beat and is over before its end. */
  const first = $derived(
    waves.some((wave) => wave.on.some(([a = 0, b = 0]) => a <= 1e-9 && b < interval / 2))
  );
  const from = $derived(close && edges.length && !first ? Math.max(0, Math.min(...edges) - 0.06 * until) : 0);
  const x = $derived(scaleLinear([from, until], [left, width - 12]).clamp(true));
  const ticks = $derived.by(() => {
    for (let count = Math.max(2, Math.floor((width - left) / 70)); count > 1; count--) {
      const found = x.ticks(count);
      const wide = Math.max(0, ...found.map((tick) => wideOf(duration(tick)))) + 10;
      if (found.length < 2 || x(found[1]!) - x(found[0]!) > wide) return found;
    }
    return x.ticks(1);
  });
  const tall = $derived(TOP + waves.length * ROW + 24);
  const floor = $derived(TOP + waves.length * ROW);

  function outline(on: readonly (readonly number[])[], base: number): string {
    let d = `M${left} ${base}`;
    for (const [start = 0, end = 0] of on) {
      if (end <= from || start >= until) continue;
      d += `H${x(start)}V${base - HIGH}H${x(end)}${end < until ? `V${base}` : ''}`;
    }
    const last = on.at(-1)?.[1] ?? 0;
    return last >= until && on.length ? `${d}H${width - 12}` : `${d}H${width - 12}`;
  }
  const said = $derived(
    waves
      .map((wave) =>
        wave.on.length
          ? `${wave.label} ${wave.on.map(([a = 0, b = 0]) => `from ${duration(a)} to ${duration(b)}`).join(', ')}`
          : `${wave.label} never`
      )
      .join('; ')
  );
</script>

<div bind:clientWidth={width}>
  <svg viewBox="0 0 {width} {tall}" height={tall} role="img" aria-label="One frame on its wires: {said}">
    {#each ticks as tick, n (n)}
      <line class="grid" x1={x(tick)} x2={x(tick)} y1={TOP} y2={floor + 4} />
      <text x={x(tick)} y={floor + 17} text-anchor={x(tick) < 14 ? 'start' : 'middle'} class="tick"
        >{duration(tick)}</text
      >
    {/each}
    {#each waves as wave, n (wave.name)}
      {@const base = TOP + (n + 1) * ROW - 6}
      <text
        class={narrow ? 'halo' : undefined}
        x={narrow ? left : left - 10}
        y={narrow ? base - HIGH - 5 : base - 2}
        text-anchor={narrow ? 'start' : 'end'}>{named(wave)}</text
      >
      {#each wave.on as [start = 0, end = 0], m (m)}
        {#if end > from && start < until}
          <rect
            class={wave.kind}
            x={x(start)}
            width={Math.max(1, x(end) - x(start))}
            y={base - HIGH}
            height={HIGH}
          />
        {/if}
      {/each}
      <path class={wave.kind} d={outline(wave.on, base)} />
    {/each}
  </svg>
</div>

<style>
  svg {
    display: block;
    width: 100%;
  }
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  rect {
    fill: var(--wash2);
  }
  rect.shutter {
    fill: var(--ink);
  }
  path.busy,
  path.lamp {
    stroke: var(--second);
  }
  .grid {
    stroke: var(--hair);
  }
  text {
    font-size: 12px;
    font-stretch: 88%;
    fill: var(--ink);
  }
  .tick {
    fill: var(--second);
  }
</style>

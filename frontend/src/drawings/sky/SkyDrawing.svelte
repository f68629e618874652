<script lang="ts">
  /** A night from noon to noon: how high sun, moon and galactic centre stand over the horizon, twilights shaded. */
  import { scaleLinear } from 'd3-scale';
  import { line } from 'd3-shape';
  import type { components } from '../../api/schema';
  import { clock } from '../../format';
  import { valuesOf } from '../../sheet/series';
  import { clockTicks } from '../../time';
  import Label from '../Label.svelte';
  import { placed } from '../labels';

  interface Props {
    day: components['schemas']['SkyDay'];
    zone: string;
    /** The shoot, where it falls into this night: Unix times of its first and last frame. */
    shoot: [number, number];
    now: number;
  }
  let { day, zone, shoot, now }: Props = $props();

  const LEFT = 40;
  const RIGHT = 24;
  const TOP = 10;
  const TALL = 250;
  const BASE = TALL - 24;
  let width = $state(600);
  const DASH: Record<string, string> = { sun: '', moon: '7 4', 'galactic centre': '1.5 3.5' };
  const WASH: Record<string, number> = { day: 0, civil: 0.05, nautical: 0.1, astronomical: 0.15, night: 0.2 };

  const x = $derived(scaleLinear([day.start, day.end], [LEFT, width - RIGHT]));
  const bodies = $derived(
    Object.entries(day.heights).map(([name, series]) => {
      const values = valuesOf(series);
      const step = (day.end - day.start) / Math.max(1, values.length - 1);
      return { name, points: values.map((height, n) => [day.start + n * step, height] as const) };
    })
  );
  const range = $derived.by(() => {
    const all = bodies.flatMap(({ points }) => points.map(([, height]) => height));
    return [Math.max(-30, Math.min(-6, ...all)), Math.max(20, ...all) + 4] as const;
  });
  const y = $derived(scaleLinear(range, [BASE, TOP]));
  const paths = $derived(
    bodies.map(({ name, points }) => ({
      name,
      d: line<readonly [number, number]>(
        ([at]) => x(at),
        ([, height]) => y(height)
      ).digits(1)([...points])
    }))
  );
  const labels = $derived.by(() => {
    const tops = bodies.map(({ name, points }) => {
      const top = points.reduce((best, point) => (point[1] > best[1] ? point : best), points[0] ?? [0, 0]);
      return { name, x: x(top[0]), y: y(top[1]) };
    });
    const room = { left: LEFT, right: width - RIGHT, top: TOP, bottom: BASE };
    const shown = tops.filter((top) => top.y < BASE - 8);
    return placed(
      shown.map((top) => ({ x: top.x, y: top.y, reach: 8, lines: [top.name] })),
      [],
      room
    ).map((at, n) => ({ at, name: shown[n]!.name }));
  });
  const ticks = $derived(
    clockTicks(day.start, day.end, Math.max(4, (width - LEFT - RIGHT) / 70), zone).at.map((at) => ({
      x: x(at),
      text: clock(at, zone, false)
    }))
  );
  const span = $derived([Math.max(x(shoot[0]), LEFT), Math.min(x(shoot[1]), width - RIGHT)] as const);
</script>

<div bind:clientWidth={width}>
  <svg {width} height={TALL} role="img" aria-label="Heights of sun, moon and galactic centre over this night">
    <clipPath id="sky-room"
      ><rect x={LEFT} y={TOP} width={width - LEFT - RIGHT} height={BASE - TOP} /></clipPath
    >
    {#each day.bands as { dark, start, end }, n (n)}
      <rect
        class="fill-ink"
        opacity={WASH[dark]}
        x={x(start)}
        y={TOP}
        width={Math.max(0, x(end) - x(start))}
        height={BASE - TOP}
      />
    {/each}
    {#if span[1] > span[0]}
      <rect class="fill-ink" x={span[0]} y={BASE - 5} width={span[1] - span[0]} height="5" />
    {/if}
    {#each [-18, 0, 30, 60] as height (height)}
      {#if height > range[0] && height < range[1]}
        <line
          class={height ? 'stroke-hair' : 'stroke-ink'}
          x1={LEFT}
          x2={width - RIGHT}
          y1={y(height)}
          y2={y(height)}
        />
        <text class="fill-second" x={LEFT - 6} y={y(height) + 4} text-anchor="end"
          >{height < 0 ? `−${-height}` : height}°</text
        >
      {/if}
    {/each}
    <g clip-path="url(#sky-room)">
      {#each paths as { name, d } (name)}
        <path class="fill-none stroke-ink stroke-[1.7]" stroke-dasharray={DASH[name]} {d} />
      {/each}
      {#if now >= day.start && now <= day.end}
        <line class="stroke-ink" x1={x(now)} x2={x(now)} y1={TOP} y2={BASE} />
      {/if}
    </g>
    {#each labels as { at, name } (name)}<Label {at} lines={[name]} bold />{/each}
    {#each ticks as { x: at, text }, n (n)}
      <line class="stroke-ink" x1={at} x2={at} y1={BASE} y2={BASE + 5} />
      <text x={at} y={BASE + 18} text-anchor="middle">{text}</text>
    {/each}
  </svg>
</div>

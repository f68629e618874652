<script lang="ts">
  /** The season as cloth: days across, hours down; where the sun is up it is shaded, windows are inked. */
  import type { components } from '../../api/schema';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { edgeGrip, edgesOf } from './edges';
  import { dayName, dayOf, isoOf, keyed, LEFT, monthsOf, playheadOf, WIDE } from './days';

  interface Props {
    season: components['schemas']['SeasonState'];
    /** A day (ISO 8601) is left out, or comes back. */
    onday: (day: string) => void;
  }
  let { season, onday }: Props = $props();
  const sheet = theSheet();
  const [TOP, TALL] = [22, 330];
  const DAY_MIN = 1440;
  const SUN_EVERY = 7;
  const count = $derived(Math.max(1, season.per_day?.length ?? 1));
  const each = $derived(WIDE / count);
  const x = (day: number) => LEFT + day * each;
  const y = (minute: number) => TOP + (minute / DAY_MIN) * TALL;
  /** All windows of a rule as one path; a hair is left between days where there is room for it. */
  const inked = $derived.by(() => {
    const paths: string[] = [];
    const [cells, wide] = [season.inked ?? [], Math.max(each * 0.86, each - 1)];
    for (let n = 0; n < cells.length; n += 4) {
      const [day, from, to, rule] = cells.slice(n, n + 4) as [number, number, number, number];
      paths[rule] =
        (paths[rule] ?? '') +
        `M${x(day).toFixed(2)} ${y(from).toFixed(1)}h${wide.toFixed(2)}V${y(to).toFixed(1)}h${(-wide).toFixed(2)}z`;
    }
    return paths;
  });
  /** Daylight as two edges that go from week to week. */
  const sun = $derived.by(() => {
    const told = season.sun ?? [];
    if (!told.length) return '';
    const [up, down]: string[][] = [[], []];
    for (let n = 0; n < told.length / 2; n += 1) {
      if (told[2 * n]! < 0) continue;
      const at = Math.min(count, n * SUN_EVERY);
      up!.push(`${x(at)} ${y(told[2 * n]!)}`);
      down!.unshift(`${x(at)} ${y(told[2 * n + 1]!)}`);
    }
    return up!.length > 1 ? `M${[...up!, ...down!].join('L')}z` : '';
  });
  const months = $derived(monthsOf(season.first ?? '', count));
  const off = $derived.by(() => {
    let path = '';
    (season.off ?? []).forEach((one, day) => {
      if (one) path += `M${x(day)} ${TOP}h${each}v${TALL}h${-each}z`;
    });
    return path;
  });
  const playhead = $derived(playheadOf(sheet, season.first ?? ''));
  const visits = $derived(
    (season.visits ?? []).map(({ day, at_s }) => ({ at_s, day: dayOf(season.first ?? '', day) }))
  );

  const edges = $derived(edgesOf(sheet));
  // A grip keeps what it took hold of: one for each, however often it is drawn.
  const grips = new Map<string, ReturnType<typeof edgeGrip>>();
  function grip(path: string) {
    if (!grips.has(path)) grips.set(path, edgeGrip(sheet, path, DAY_MIN / TALL));
    return grips.get(path)!;
  }

  let cloth = $state<SVGSVGElement>();
  let here = $state(0);
  const told = $derived(
    `${dayName(season.first ?? '', here)}: ${season.off?.[here] ? 'off' : `${season.per_day?.[here] ?? 0} frames`}${
      visits.some(({ day }) => day === here) ? ', a visit' : ''
    }`
  );
  function dayAt(event: MouseEvent) {
    const box = cloth!.getBoundingClientRect();
    const at = ((event.clientX - box.left) / box.width) * (LEFT + WIDE + 8);
    return Math.max(0, Math.min(count - 1, Math.floor((at - LEFT) / each)));
  }
  function keys(event: KeyboardEvent) {
    const next = keyed(event.key, here, count);
    if (next !== null) here = next;
    else if (event.key === 'Enter' || event.key === ' ') onday(isoOf(season.first ?? '', here));
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div class="cloth">
  <svg
    bind:this={cloth}
    viewBox="0 0 {LEFT + WIDE + 8} {TOP + TALL + 8}"
    role="slider"
    tabindex="0"
    aria-label="day of the season"
    aria-valuemin={1}
    aria-valuemax={count}
    aria-valuenow={here + 1}
    aria-valuetext={told}
    onpointermove={(event) => (here = dayAt(event))}
    onclick={(event) => {
      here = dayAt(event);
      onday(isoOf(season.first ?? '', here));
    }}
    onkeydown={keys}
  >
    <rect class="frame" x={LEFT} y={TOP} width={WIDE} height={TALL} />
    {#if sun}<path class="sun" d={sun} />{/if}
    <path class="off" d={off} />
    {#each inked as path, rule (rule)}{#if path}<path class="ink" data-rule={rule} d={path} />{/if}{/each}
    {#each [0, 6, 12, 18, 24] as hour (hour)}
      <path class="hair" d="M{LEFT} {y(hour * 60)}h{WIDE}" />
      <text x={LEFT - 5} y={y(hour * 60) + 4} text-anchor="end">{hour}</text>
    {/each}
    {#each months as month (month.day)}
      <path class="hair" d="M{x(month.day)} {TOP - 5}v{TALL + 5}" />
      {#if month.label}<text x={x(month.day) + 3} y={TOP - 7}>{month.label}</text>{/if}
    {/each}
    {#each visits as visit (visit.at_s)}
      <path class="thread" d="M{x(visit.day + 0.5)} {TOP - 4}v{TALL + 8}" />
    {/each}
    <path class="here" d="M{x(here + 0.5)} {TOP}v{TALL}" />
    {#if playhead.day >= 0 && playhead.day < count}
      <circle class="playhead" cx={x(playhead.day + 0.5)} cy={y(playhead.minute)} r="5" />
    {/if}
  </svg>
  <svg class="over" viewBox="0 0 {LEFT + WIDE + 8} {TOP + TALL + 8}">
    {#each edges as edge (edge.path)}
      {@const at = y(edge.minutes)}
      <g
        class="edge"
        role="slider"
        tabindex="0"
        aria-label="rule {edge.rule + 1} {edge.end}"
        aria-valuemin={0}
        aria-valuemax={DAY_MIN}
        aria-valuenow={edge.minutes}
        aria-valuetext={edge.said}
        use:grasp={grip(edge.path)}
      >
        <rect x={LEFT + WIDE - 24} y={at - 13} width="32" height="26" />
        <path d="M{LEFT + WIDE} {at}l8 -5v10z" />
        <path class="line" d="M{LEFT} {at}h{WIDE}" />
      </g>
    {/each}
  </svg>
</div>
<p class="told" aria-hidden="true">{told}</p>

<style>
  .cloth {
    position: relative;
  }
  .over {
    position: absolute;
    inset: 0;
    pointer-events: none;
  }
  .over g {
    pointer-events: auto;
  }
  svg {
    width: 100%;
    cursor: pointer;
    touch-action: pan-y;
  }
  text {
    font-size: 11px;
    font-stretch: 88%;
    fill: var(--second);
  }
  .frame {
    fill: var(--film);
    stroke: var(--ink);
  }
  .sun {
    fill: var(--wash);
  }
  .off {
    fill: var(--sheet);
    stroke: var(--second);
    stroke-width: 0.6;
    stroke-dasharray: 2 2;
  }
  .ink {
    fill: var(--ink);
    opacity: 0.86;
  }
  .ink[data-rule='1'] {
    opacity: 0.6;
  }
  .ink[data-rule='2'] {
    opacity: 0.42;
  }
  .hair {
    stroke: var(--hair);
    stroke-width: 0.7;
    fill: none;
  }
  .thread {
    stroke: var(--film);
    stroke-width: 3.4;
    paint-order: stroke;
  }
  .edge {
    cursor: row-resize;
    touch-action: none;
  }
  .edge rect {
    fill: transparent;
  }
  .edge path {
    fill: var(--ink);
  }
  .edge .line {
    stroke: var(--ink);
    stroke-width: 0;
    stroke-dasharray: 6 4;
  }
  .edge:hover .line,
  .edge:focus-visible .line {
    stroke-width: 1.2;
  }
  .here {
    stroke: var(--second);
    stroke-width: 1;
    stroke-dasharray: 3 3;
  }
  .playhead {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  .told {
    font-weight: 550;
  }
  @media (max-width: 480px) {
    text {
      font-size: 18px;
    }
  }
</style>

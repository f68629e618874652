<script lang="ts">
  /** Charge and card over the season as two levels: they fall and are filled up, day by day; visits are threads. */
  import type { components } from '../../api/schema';
  import { number } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { dayName, dayOf, keyed, LEFT, monthsOf, playheadOf, WIDE } from './days';

  type Season = components['schemas']['SeasonState'];
  let { season }: { season: Season } = $props();
  const sheet = theSheet();
  const [TOP, TALL, GAP] = [20, 92, 34];
  const first = $derived(season.first ?? '');
  const levels = $derived(season.levels);
  const count = $derived(Math.max(1, season.per_day?.length ?? 1));
  const each = $derived(WIDE / count);
  const x = (day: number) => LEFT + day * each;
  const visits = $derived((season.visits ?? []).map(({ day, at_s }) => ({ at_s, day: dayOf(first, day) })));
  const months = $derived(monthsOf(first, count));
  const playhead = $derived(playheadOf(sheet, first));
  /** What there is to draw, one below the other. */
  const bands = $derived.by(() => {
    const made: { key: 'charge' | 'card'; name: string; of: number[]; y: number }[] = [];
    if (levels?.charge?.length) made.push({ key: 'charge', name: 'charge', of: levels.charge, y: 0 });
    if (levels?.fill?.length) made.push({ key: 'card', name: 'card', of: levels.fill, y: 0 });
    return made.map((band, n) => ({ ...band, y: TOP + n * (TALL + GAP) }));
  });
  const high = $derived(TOP + bands.length * (TALL + GAP) - GAP + 26);
  /** Steps from day to day: what is left of the charge, what is free on the card. */
  function water(of: number[], y: number) {
    const at = (level: number) => y + TALL - (Math.max(0, Math.min(1000, level)) / 1000) * TALL;
    return `M${LEFT} ${y + TALL}${of.map((level, day) => `L${x(day).toFixed(2)} ${at(level).toFixed(1)}H${x(day + 1).toFixed(2)}`).join('')}V${y + TALL}z`;
  }
  const free = (fill: number) => 1000 - fill;

  let here = $state(0);
  let drawn = $state<SVGSVGElement>();
  const told = $derived(
    [
      dayName(first, here),
      levels?.charge?.[here] === undefined ? '' : `charge at least ${number(levels.charge[here]! / 10, 3)} %`,
      levels?.fill?.[here] === undefined ? '' : `${number(levels.fill[here]! / 10, 3)} % of the card full`
    ]
      .filter(Boolean)
      .join(', ')
  );
  function dayAt(event: MouseEvent) {
    const box = drawn!.getBoundingClientRect();
    const at = ((event.clientX - box.left) / box.width) * (LEFT + WIDE + 8);
    return Math.max(0, Math.min(count - 1, Math.floor((at - LEFT) / each)));
  }
  function keys(event: KeyboardEvent) {
    const next = keyed(event.key, here, count);
    if (next === null) return;
    here = next;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<svg
  bind:this={drawn}
  viewBox="0 0 {LEFT + WIDE + 8} {high}"
  role="slider"
  tabindex="0"
  aria-label="day of the levels"
  aria-valuemin={1}
  aria-valuemax={count}
  aria-valuenow={here + 1}
  aria-valuetext={told}
  onpointermove={(event) => (here = dayAt(event))}
  onkeydown={keys}
>
  <defs>
    <pattern
      id="season-cloud"
      width="5"
      height="5"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <path d="M0 0v5" />
    </pattern>
  </defs>
  {#each bands as band (band.key)}
    <rect class="frame" x={LEFT} y={band.y} width={WIDE} height={TALL} />
    {#if band.key === 'charge' && levels?.cloudy?.length}
      <rect
        class="cloud"
        x={x(levels.cloudy[0]!)}
        y={band.y}
        width={x(levels.cloudy[1]! + 1) - x(levels.cloudy[0]!)}
        height={TALL}
      />
    {/if}
    <path
      class="water"
      d={band.key === 'charge' ? water(band.of, band.y) : water(band.of.map(free), band.y)}
    />
    {#if band.key === 'card' && levels?.reserve}
      {@const y = band.y + TALL - (levels.reserve / 1000) * TALL}
      <path class="reserve" d="M{LEFT} {y}h{WIDE}" />
    {/if}
    <text x={LEFT} y={band.y + TALL + 15}
      >{band.key === 'charge' ? 'charge left' : 'room left on the card'}</text
    >
    <text class="edge" x={LEFT - 5} y={band.y + 9} text-anchor="end">full</text>
    <text class="edge" x={LEFT - 5} y={band.y + TALL} text-anchor="end">none</text>
  {/each}
  {#each months as month (month.day)}
    <path class="hair" d="M{x(month.day)} {TOP - 5}V{high - 18}" />
    {#if month.label}<text x={x(month.day) + 3} y={TOP - 6}>{month.label}</text>{/if}
  {/each}
  {#each visits as visit (visit.at_s)}
    <path class="thread" d="M{x(visit.day + 0.5)} {TOP - 4}V{high - 16}" />
  {/each}
  <path class="here" d="M{x(here + 0.5)} {TOP}V{high - 18}" />
  {#if playhead.day >= 0 && playhead.day < count}
    <path class="playhead" d="M{x(playhead.day + 0.5)} {TOP - 5}V{high - 16}" />
  {/if}
</svg>
<p class="told" aria-hidden="true">{told}</p>

<style>
  svg {
    width: 100%;
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
  .water {
    fill: var(--wash2);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .cloud {
    fill: url(#season-cloud);
  }
  pattern path {
    stroke: var(--second);
    stroke-width: 1.2;
  }
  .reserve {
    stroke: var(--second);
    stroke-dasharray: 5 3;
  }
  .hair {
    stroke: var(--hair);
    stroke-width: 0.7;
  }
  .thread {
    stroke: var(--ink);
    stroke-width: 1.2;
    stroke-dasharray: 1 2.5;
  }
  .here {
    stroke: var(--second);
    stroke-dasharray: 3 3;
  }
  .playhead {
    stroke: var(--ink);
    stroke-width: 2.2;
  }
  .told {
    font-weight: 550;
  }
  @media (max-width: 480px) {
    text {
      font-size: 18px;
    }
    .edge {
      display: none;
    }
  }
</style>

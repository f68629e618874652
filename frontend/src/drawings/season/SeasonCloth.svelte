<script lang="ts">
  /** The season as cloth: days across, hours down; where the sun is up it is shaded, windows are inked. */
  import type { components } from '../../api/schema';
  import { elapsedAt } from '../../sheet/series';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    season: components['schemas']['SeasonState'];
    /** A day (ISO 8601) is left out, or comes back. */
    onday: (day: string) => void;
  }
  let { season, onday }: Props = $props();
  const sheet = theSheet();
  const [LEFT, TOP, WIDE, TALL] = [34, 22, 620, 330];
  const DAY_MIN = 1440;
  const SUN_EVERY = 7;
  const count = $derived(Math.max(1, season.per_day?.length ?? 1));
  const each = $derived(WIDE / count);
  const x = (day: number) => LEFT + day * each;
  const y = (minute: number) => TOP + (minute / DAY_MIN) * TALL;
  const date = (day: number) => {
    const at = new Date(`${season.first}T12:00:00Z`);
    at.setUTCDate(at.getUTCDate() + day);
    return at;
  };
  const iso = (day: number) => date(day).toISOString().slice(0, 10);
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
  const months = $derived.by(() => {
    const found: { day: number; label: string }[] = [];
    for (let day = 0; day < count; day += 1) {
      const at = date(day);
      if (day && at.getUTCDate() !== 1) continue;
      found.push({ day, label: at.toLocaleDateString('en-GB', { month: 'short', timeZone: 'UTC' }) });
    }
    // Where months come too close only some of them are named.
    const apart = Math.ceil(34 / (each * 30));
    return found.map((one, n) => ({ ...one, label: n % apart ? '' : one.label }));
  });
  const off = $derived.by(() => {
    let path = '';
    (season.off ?? []).forEach((one, day) => {
      if (one) path += `M${x(day)} ${TOP}h${each}v${TALL}h${-each}z`;
    });
    return path;
  });
  /** Where the playhead is: a day and an hour of the place's own clock. */
  const playhead = $derived.by(() => {
    const map = sheet.evaluation.traces?.map;
    const at = new Date((sheet.start + elapsedAt(map, sheet.playhead.at)) * 1000);
    const shown = Object.fromEntries(
      new Intl.DateTimeFormat('en-CA', {
        timeZone: sheet.zone,
        year: 'numeric',
        month: '2-digit',
        day: '2-digit',
        hour: '2-digit',
        minute: '2-digit',
        hourCycle: 'h23'
      })
        .formatToParts(at)
        .map((part) => [part.type, part.value])
    );
    const day = `${shown.year}-${shown.month}-${shown.day}`;
    const days = (Date.parse(day) - Date.parse(season.first || day)) / 86_400_000;
    return { day: days, minute: Number(shown.hour) * 60 + Number(shown.minute) };
  });

  let cloth = $state<SVGSVGElement>();
  let here = $state(0);
  const told = $derived(
    `${date(here).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' })}: ${
      season.off?.[here] ? 'off' : `${season.per_day?.[here] ?? 0} frames`
    }`
  );
  function dayAt(event: MouseEvent) {
    const box = cloth!.getBoundingClientRect();
    const at = ((event.clientX - box.left) / box.width) * (LEFT + WIDE + 8);
    return Math.max(0, Math.min(count - 1, Math.floor((at - LEFT) / each)));
  }
  function keys(event: KeyboardEvent) {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key];
    if (step) here = Math.max(0, Math.min(count - 1, here + step));
    else if (event.key === 'Home') here = 0;
    else if (event.key === 'End') here = count - 1;
    else if (event.key === 'Enter' || event.key === ' ') onday(iso(here));
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

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
    onday(iso(here));
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
  <path class="here" d="M{x(here + 0.5)} {TOP}v{TALL}" />
  {#if playhead.day >= 0 && playhead.day < count}
    <circle class="playhead" cx={x(playhead.day + 0.5)} cy={y(playhead.minute)} r="5" />
  {/if}
</svg>
<p class="told" aria-hidden="true">{told}</p>

<style>
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

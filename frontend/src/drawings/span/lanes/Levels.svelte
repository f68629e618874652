<script lang="ts">
  /** What is left of the charge, and of the room on the card, from day to day of a long run. */
  import type { SpanView } from '../state.svelte';

  let { span }: { span: SpanView } = $props();
  const DAY_S = 86_400;
  const [TOP, LOW] = [20, 84];
  const season = $derived(span.sheet.evaluation.season);
  /** So many seconds of its first day have gone when the shoot begins. */
  const gone = $derived.by(() => {
    const clock = new Intl.DateTimeFormat('en-GB', {
      timeZone: span.sheet.zone,
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23'
    }).format(new Date(span.sheet.start * 1000));
    const [hours, minutes] = clock.split(':').map(Number);
    return hours! * 3600 + minutes! * 60;
  });
  const x = (day: number) => span.scale(Math.max(0, day * DAY_S - gone));
  const y = (level: number) => LOW - (Math.max(0, Math.min(1000, level)) / 1000) * (LOW - TOP);
  const steps = (of: readonly number[]) =>
    of
      .map(
        (level, day) =>
          `${day ? 'L' : 'M'}${x(day).toFixed(1)} ${y(level).toFixed(1)}H${x(day + 1).toFixed(1)}`
      )
      .join('');
  const axes = $derived(Object.keys(span.traces?.axes ?? {}).length);
  const lines = $derived(
    [
      { name: 'charge', dash: '', of: season.levels?.charge ?? [] },
      { name: 'card', dash: '7 3 2 3', of: (season.levels?.fill ?? []).map((fill) => 1000 - fill) }
    ].filter(({ of }) => of.length)
  );
</script>

{#each lines as { name, dash, of }, n (name)}
  {@const row = 22 + (axes + n) * 17}
  <text x="12" y={row + 4}>{name}</text>
  <g class="fill-none stroke-second stroke-[1.3]" stroke-dasharray={dash}>
    <line x1="50" x2="82" y1={row} y2={row} />
    <path clip-path="url(#span-room)" d={steps(of)} />
  </g>
{/each}

<script lang="ts">
  /** How often suits which subject: bars on a scale of intervals, with the interval of this shoot to drag along it. */
  import { scaleLog } from 'd3-scale';
  import { onMount } from 'svelte';
  import { api, sentence, type StartingPoint } from '../../api/client';
  import { duration } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { rowsOf } from './geometry';

  const sheet = theSheet();
  const ROW = 20;
  let width = $state(880);
  let points = $state.raw<StartingPoint[]>([]);
  let trouble = $state('');
  let drag = $state<{ merge: string } | null>(null);

  const WIDTH = $derived(Math.max(280, width));
  const x = $derived(scaleLog([1, 1800], [4, WIDTH - 20]));
  const rows = $derived(rowsOf(points, (point) => [x(point.low_s), x(point.high_s)], 6.1));
  const tall = $derived(rows.reduce((most, row) => Math.max(most, row.row + 1), 0) * ROW + 26);
  const interval = $derived(sheet.quantity('interval')?.value ?? null);
  const least = $derived(sheet.figure('beat.shortest')?.value ?? null);
  const chosen = $derived(points.find((point) => point.key === sheet.plan.clip.subject));
  const clamp = (value: number) => Math.min(WIDTH - 20, Math.max(4, value));
  const TICKS = $derived(
    WIDTH > 560 ? [1, 2, 3, 5, 8, 10, 15, 20, 30, 60, 120, 300, 600, 1800] : [1, 3, 10, 30, 120, 600, 1800]
  );

  const AGAIN_MS = 2000;

  onMount(() => {
    let timer = 0;
    // The server may be away just now: the bars come when it is back.
    async function load() {
      try {
        points = (await api.GET('/api/starting-points')).data ?? [];
        trouble = '';
      } catch (error) {
        trouble = sentence(error);
        timer = window.setTimeout(load, AGAIN_MS);
      }
    }
    void load();
    return () => clearTimeout(timer);
  });

  function choose(point: StartingPoint) {
    const same = sheet.plan.clip.subject === point.key;
    void sheet.set('clip.subject', same ? '' : point.key);
  }

  /** To the step that can be dialled; by itself an interval is dragged on a coarse scale. */
  function put(value: number, merge: string) {
    const [over = 0, under = 1] = sheet.plan.clip.interval_step_s.split('/').map(Number);
    const step = Math.max(over / under, value >= 60 ? 10 : value >= 10 ? 1 : 0.5);
    void sheet.set('clip.interval', String(Math.max(step, Math.round(value / step) * step)), merge);
  }

  function moved(event: PointerEvent) {
    if (!drag) return;
    const box = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
    if (box) put(x.invert(((event.clientX - box.left) / box.width) * WIDTH), drag.merge);
  }

  function keys(event: KeyboardEvent) {
    const direction = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!direction || interval === null) return;
    event.preventDefault();
    put(interval + direction * (interval >= 60 ? 10 : 1) * (event.shiftKey ? 5 : 1), 'key bars');
  }
</script>

<div class="bars" bind:clientWidth={width}>
  {#if trouble}<p role="alert">{trouble}</p>{/if}
  <svg viewBox="0 0 {WIDTH} {tall + 36}" aria-label="Intervals that suit a subject" role="group">
    {#each rows as { item, row, from, to, outside } (item.key)}
      <g
        role="button"
        tabindex="0"
        class="bar"
        class:on={item.key === sheet.plan.clip.subject}
        aria-pressed={item.key === sheet.plan.clip.subject}
        aria-label="{item.name}: {duration(item.low_s)} to {duration(item.high_s)}. {item.reason}"
        onclick={() => choose(item)}
        onkeydown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          choose(item);
        }}
      >
        <title>{item.reason}</title>
        <rect x={from} y={row * ROW + 20} width={to - from} height="16" />
        <text x={outside ? to + 6 : from + 6} y={row * ROW + 32}>{item.name}</text>
      </g>
    {/each}
    {#if least !== null && least >= 1 && least <= 1800}
      <line class="least" x1={x(least)} x2={x(least)} y1={tall - 6} y2={tall + 8} />
      <text
        class="faint"
        x={x(least) + (x(least) > WIDTH / 2 ? -6 : 6)}
        y={tall + 2}
        text-anchor={x(least) > WIDTH / 2 ? 'end' : 'start'}
        >nothing under {duration(least)} fits the beat</text
      >
    {/if}
    <path class="rule" d="M4 {tall + 8}H{WIDTH - 20}" />
    {#each TICKS as tick (tick)}
      <line class="rule" x1={x(tick)} x2={x(tick)} y1={tall + 8} y2={tall + 13} />
      <text x={x(tick)} y={tall + 28} text-anchor={tick === 1 ? 'start' : 'middle'}
        >{tick >= 60 ? `${tick / 60} min` : tick === 1 ? '1 s' : tick}</text
      >
    {/each}
    {#if interval !== null}
      {@const at = clamp(x(Math.max(0.3, interval)))}
      <g
        role="slider"
        tabindex="0"
        class="now"
        aria-label="Interval on the scale"
        aria-valuenow={interval}
        aria-valuetext={duration(interval)}
        onpointerdown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drag = { merge: `bars ${event.timeStamp}` };
        }}
        onpointermove={moved}
        onpointerup={() => (drag = null)}
        onpointercancel={() => (drag = null)}
        onkeydown={keys}
      >
        <rect class="grab" x={at - 12} y="0" width="24" height={tall + 8} />
        <line x1={at} x2={at} y1="14" y2={tall + 8} />
        <path d="M{at - 6} 6h12l-6 9z" />
        <text x={at + (at > WIDTH - 120 ? -10 : 10)} y="14" text-anchor={at > WIDTH - 120 ? 'end' : 'start'}
          >now {duration(interval)}</text
        >
      </g>
    {/if}
  </svg>
  <p class="reason" role="status">
    {#if chosen && interval !== null}
      <b>{chosen.name}:</b>
      {chosen.reason}
      {#if interval < chosen.low_s}Shorter than the usual {duration(chosen.low_s)} to {duration(
          chosen.high_s
        )}: smoother, more frames, more to store.
      {:else if interval > chosen.high_s}Longer than the usual {duration(chosen.low_s)} to {duration(
          chosen.high_s
        )}: it jumps further from frame to frame.
      {:else}Within the usual {duration(chosen.low_s)} to {duration(chosen.high_s)}.{/if}
      These are starting points, not limits.
    {:else}
      Take a subject to see why. Short: smooth, and much to store. Long: time is pressed hard, and things
      jump.
    {/if}
  </p>
</div>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  .bar rect {
    fill: var(--wash2);
    stroke: var(--second);
    stroke-width: 1;
  }
  .bar {
    cursor: pointer;
    outline: none;
  }
  .bar:hover rect,
  .bar:focus-visible rect {
    stroke: var(--ink);
    stroke-width: 2.4;
  }
  .bar.on rect {
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .bar.on text {
    font-weight: 650;
  }
  .rule {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .least {
    stroke: var(--ink);
    stroke-dasharray: 3 2;
  }
  .faint {
    fill: var(--second);
  }
  .now {
    outline: none;
  }
  .now line {
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .now path {
    fill: var(--ink);
  }
  .now text {
    font-weight: 650;
  }
  .now .grab {
    fill: transparent;
    cursor: ew-resize;
  }
  .now:focus-visible path {
    stroke: var(--ink);
    stroke-width: 4;
  }
  .reason {
    font-size: 13px;
    color: var(--second);
    min-height: 2.7em;
    max-width: 100ch;
  }
  .reason b {
    color: var(--ink);
  }
</style>

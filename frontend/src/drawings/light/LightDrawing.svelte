<script lang="ts">
  /**
   * The fall of the light as a curve over the clock, the flight of settings under it, and the band that the camera can
   * mend; below, a rail for each dial with a tick at every change.
   */
  import { untrack } from 'svelte';
  import { number, shutter, write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { exact } from '../../parts/paths';
  import { DIALS, LightView, NAMES, RAIL } from './state.svelte';

  let { height = 330 }: { height?: number } = $props();
  const view = new LightView(theSheet());
  let width = $state(600);
  $effect.pre(() => {
    const [wide, tall] = [width, height];
    untrack(() => {
      view.resize(wide);
      view.height = tall;
    });
  });
  const { left, right, top, bottom } = $derived(view.plot);
  const WASH: Record<string, number> = { day: 0, civil: 0.05, nautical: 0.1, astronomical: 0.15, night: 0.2 };
  const SAID: Record<string, string> = {
    day: 'day',
    civil: 'civil twilight',
    nautical: 'nautical',
    astronomical: 'astronomical',
    night: 'night'
  };
  const clamped = (ev: number) => Math.max(top, Math.min(bottom, view.y(ev)));
  const cloudAt = $derived(clamped(view.fall?.wanted.at(-1) ?? 0));
  const railAt = (n: number) => bottom + 26 + RAIL * n + RAIL - 8;
</script>

<div class="drawn" bind:clientWidth={width}>
  {#if view.fall}
    <svg
      width={view.width}
      {height}
      role="group"
      aria-label="The fall of the light, and the settings under it"
    >
      <clipPath id="light-room">
        <rect x={left} y={top} width={right - left} height={bottom - top} />
      </clipPath>
      {#each view.bands as { dark, from, to }, n (n)}
        <rect
          class="fill-ink"
          opacity={WASH[dark]}
          x={from}
          y={top}
          width={Math.max(0, to - from)}
          height={bottom - top}
        />
        {#if n}<line
            class="stroke-second"
            stroke-dasharray="1 3"
            x1={from}
            x2={from}
            y1={top}
            y2={bottom}
          />{/if}
        {#if to - from > (SAID[dark]?.length ?? 0) * 5.6 + 8}
          <text class="fill-second" x={(from + to) / 2} y={top - 7} text-anchor="middle">{SAID[dark]}</text>
        {/if}
      {/each}
      {#each view.rules as ev (ev)}
        <line class="stroke-hair" x1={left} x2={right} y1={view.y(ev)} y2={view.y(ev)} />
        <text class="fill-second" x={left - 6} y={view.y(ev) + 4} text-anchor="end">{number(ev)}</text>
      {/each}
      <text class="fill-second" x="4" y={top - 7}>EV</text>
      <g clip-path="url(#light-room)">
        {#if view.fall.by_frame}
          {#each view.dots as [x, y], n (n)}<circle class="fill-ink" cx={x} cy={y} r="1.3" />{/each}
        {:else}
          {#if view.mendable}<path class="mendable" d={view.mendable} />{/if}
          <path class="fill-wash2" d={view.stairs} />
          {#each view.others as other (other.school)}
            <path class="fill-none stroke-second" stroke-dasharray="1 3" d={other.d} />
            {#if other.y > top + 12 && other.y < bottom - 4}
              <text class="halo fill-second" x={other.x - 4} y={other.y - 5} text-anchor="end"
                >{other.school}</text
              >
            {/if}
          {/each}
          {#if view.real}<path class="fill-none stroke-second" stroke-dasharray="2 3" d={view.real} />{/if}
          <path class="fill-none stroke-ink stroke-[1.8]" d={view.curve} />
          <path class="fill-none stroke-ink" d={view.set} />
        {/if}
      </g>
      <line class="stroke-ink" x1={left} x2={right} y1={bottom} y2={bottom} />
      {#each view.ticks as { x, text }, n (n)}
        <line class="stroke-ink" x1={x} x2={x} y1={bottom} y2={bottom + 5} />
        <text class="halo" {x} y={bottom + 18} text-anchor="middle">{text}</text>
      {/each}
      {#each DIALS as dial, n (dial)}
        {@const y = railAt(n)}
        <text x={left - 6} y={y + 4} text-anchor="end">{NAMES[dial].slice(0, 8)}</text>
        <line class="stroke-hair" x1={left} x2={right} y1={y} y2={y} />
        <line class="stroke-ink" x1={view.span.from} x2={view.span.to} y1={y} y2={y} />
        {#each view.marks(dial) as mark, i (i)}
          <line class="stroke-ink" x1={mark.x} x2={mark.x} y1={y - (mark.label ? 7 : 4)} y2={y + 4} />
          {#if mark.label}<text class="halo" x={mark.x + 2} y={y - 8}>{mark.label}</text>{/if}
        {/each}
      {/each}

      <g
        role="slider"
        tabindex="0"
        class="play"
        aria-label="Playhead on the light"
        aria-valuemin={1}
        aria-valuemax={view.frames}
        aria-valuenow={view.head.frame + 1}
        aria-valuetext={view.text}
        use:grasp={view.playhead}
      >
        <rect class="fill-transparent" x={left} y={top} width={right - left} height={height - top} />
        <line
          class="stroke-ink stroke-[1.6]"
          x1={view.headX}
          x2={view.headX}
          y1={top - 4}
          y2={railAt(2) + 8}
        />
        <circle class="fill-ink" cx={view.headX} cy={clamped(view.head.wanted)} r="4" />
        {#if view.head.set !== undefined}
          <rect class="knob" x={view.headX - 4} y={clamped(view.head.set) - 4} width="8" height="8" />
        {/if}
      </g>

      {#each view.light.proofs ?? [] as proof, n (n)}
        {@const [x, y] = [view.x(proof.at_s), clamped(proof.ev)]}
        {@const said = view.plan.proofs?.[n]}
        <g
          role="slider"
          tabindex="0"
          class="handle"
          aria-label="Test exposure {n + 1}"
          aria-valuenow={proof.ev}
          aria-valuetext={said
            ? `${shutter(exact(said.shutter_s))}, ISO ${said.iso}, f/${said.aperture}`
            : ''}
          use:grasp={view.proof(n)}
        >
          <circle class="reach" cx={x} cy={y} r="20" />
          <circle class="knob" cx={x} cy={y} r="7" />
          <path class="stroke-ink" d="M{x - 11} {y}h22M{x} {y - 11}v22" />
          <text class="halo" x={x + 12} y={y - 8}>test</text>
        </g>
      {/each}

      <g
        role="slider"
        tabindex="0"
        class="handle"
        aria-label="Cloud"
        aria-valuemin={0}
        aria-valuemax={4}
        aria-valuenow={view.plan.cloud_stops}
        aria-valuetext={write(view.plan.cloud_stops ?? 0, 'stops')}
        use:grasp={view.cloud}
      >
        <rect class="reach" x={right - 30} y={cloudAt - 22} width="34" height="44" />
        <path class="knob" d="M{right - 3} {cloudAt - 6}h-10l-5 6l5 6h10z" />
        <text class="halo" x={right - 2} y={cloudAt - 12} text-anchor="end">cloud</text>
      </g>

      {#each view.reach as part, n (part.dial)}
        {@const x = right + 12}
        {@const [from, to] = [clamped(part.from_ev), clamped(part.to_ev)]}
        <line class="stroke-ink stroke-[1.6]" x1={x} x2={x} y1={from} y2={to} />
        {#if to - from > 15}
          <text class="fill-second" x={x + 9} y={(from + to) / 2 + 4}>{NAMES[part.dial]}</text>
        {/if}
        {#each [0, 1] as const as end (end)}
          {#if end === 1 || n === 0}
            {@const ev = end ? part.to_ev : part.from_ev}
            {@const y = clamped(ev)}
            {@const off = view.y(ev) < top - 1 || view.y(ev) > bottom + 1}
            <g
              role="slider"
              tabindex="0"
              class="handle"
              aria-label="{end ? 'Most' : 'Least'} light by {NAMES[part.dial]}"
              aria-valuenow={ev}
              aria-valuetext={view.said(part.dial, end)}
              use:grasp={view.limit(part.dial, end)}
            >
              <rect class="reach" x={x - 10} y={y - 10} width="74" height="20" />
              <path class="stroke-ink stroke-[1.6]" d="M{x - 6} {y}h12" stroke-dasharray={off ? '2 2' : ''} />
              <text class="halo" x={x + 9} y={end ? Math.min(y, bottom) + 4 : y + 4}
                >{view.said(part.dial, end)}</text
              >
            </g>
          {/if}
        {/each}
      {/each}
    </svg>
  {/if}
</div>

<style>
  .drawn {
    min-width: 0;
    overflow: hidden;
  }
  svg {
    display: block;
  }
  .mendable {
    fill: var(--wash);
    stroke: var(--second);
    stroke-width: 0.8;
  }
  .play {
    cursor: ew-resize;
    touch-action: pan-y;
    outline: none;
  }
  .play:focus-visible circle {
    stroke: var(--ink);
    stroke-width: 4;
  }
</style>

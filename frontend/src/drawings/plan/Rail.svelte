<script lang="ts">
  /** The keyframes on their rail: carriage and direction of each, to be dragged, and how far apart they stand. */
  import { extent } from 'd3-array';
  import { write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import Label from '../Label.svelte';
  import { THUMB, type PlanView } from './state.svelte';

  interface Props {
    view: PlanView;
  }
  let { view }: Props = $props();
  const ROW = 27;
  const BELOW = 34;

  const to = $derived(view.to);
  const keys = $derived(view.keys);
  const base = $derived(to.y(0));
  const apart = $derived.by(() => {
    const [low = 0, high = 0] = extent(keys, (key) => key.slide_mm);
    const [a, b] = [to.x(low * view.slope), to.x(high * view.slope)];
    return { mm: high - low, a, b, y: base + BELOW + Math.max(0, ...view.rows) * ROW };
  });
</script>

{#each keys as key, n (n)}
  {@const x = view.stands[n] ?? 0}
  {@const { x: tx, y: ty, outer } = view.heads[n]!}
  {@const y = base + (view.rows[n] ?? 0) * ROW}
  <line
    class={['stroke-ink stroke-[1.2]', !outer && 'opacity-60']}
    stroke-dasharray="7 4"
    x1={x}
    y1={base}
    x2={tx}
    y2={ty}
  />
  {#if view.turns && !view.led}
    <g
      class="handle"
      role="slider"
      tabindex="0"
      aria-label="Pan at keyframe {n + 1}"
      aria-valuenow={key.pan_deg}
      aria-valuemin={view.head.low}
      aria-valuemax={view.head.high}
      aria-valuetext={write(key.pan_deg, 'deg')}
      use:grasp={view.pan(n)}
    >
      <circle class="reach" cx={tx} cy={ty} r="20" />
      <circle class="knob" cx={tx} cy={ty} r={outer ? 7 : 5} />
    </g>
    <Label {...view.labels.heads[n]!} bold />
  {/if}
  {#if view.slides}
    <g
      class="handle"
      role="slider"
      tabindex="0"
      aria-label="Slide at keyframe {n + 1}"
      aria-valuenow={key.slide_mm}
      aria-valuemin={view.rail.low}
      aria-valuemax={view.rail.high}
      aria-valuetext={write(key.slide_mm, 'mm')}
      use:grasp={view.carriage(n)}
    >
      <rect class="reach" x={x - 22} y={y - 22} width="44" height="44" />
      <rect class="knob" x={x - THUMB} y={y - THUMB} width={THUMB * 2} height={THUMB * 2} />
      <text class="font-[650]" {x} y={y + 4.5} text-anchor="middle">{n + 1}</text>
    </g>
  {/if}
{/each}

{#if view.slides}
  {@const { a, b, y } = apart}
  <g class="stroke-ink">
    <path d="M{a} {y - 14}v20M{b} {y - 14}v20" />
    {#if b - a > 100}
      <line x1={(a + b) / 2 - 38} x2={a} y1={y} y2={y} marker-end="url(#arrow)" />
      <line x1={(a + b) / 2 + 38} x2={b} y1={y} y2={y} marker-end="url(#arrow)" />
    {/if}
  </g>
  <text class="big" x={(a + b) / 2} y={y + 5} text-anchor="middle">{write(apart.mm, 'mm')}</text>
  {#if view.quick && view.now}
    <text class="halo fill-mind font-[650]" x={to.x(view.rail.low * view.slope)} y={base - 18}
      >{view.quick.severity === 'mind' ? 'Mind' : 'Note'}: quick at frame {view.quick.slots.frame
        ?.value}</text
    >
  {/if}
{/if}

<style>
  .big {
    font-size: 14px;
    font-weight: 650;
  }
</style>

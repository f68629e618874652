<script lang="ts">
  /** A box cut open, from the side and to scale: walls, glass, lens at its longest, holes with what closes them. */
  import type { components } from '../../api/schema';
  import { write } from '../../format';

  interface Props {
    box: components['schemas']['Box'];
    lens: components['schemas']['Lens'] | null;
  }
  let { box, lens }: Props = $props();
  const [WIDE, TALL, EDGE] = [560, 330, 56];
  const scale = $derived(Math.min((WIDE - 2 * EDGE) / box.deep_mm!, (TALL - 2 * EDGE - 20) / box.tall_mm!));
  const w = $derived(box.deep_mm! * scale);
  const h = $derived(box.tall_mm! * scale);
  const left = $derived((WIDE - w) / 2);
  const top = $derived((TALL - h) / 2 - 4);
  const axis = $derived(top + h * 0.55);
  const glass = $derived(left + w - 10);
  const mount = $derived(Math.max(left + 6, glass - box.room_mm! * scale));
  const long = $derived(lens ? (lens.length_mm! + (lens.grows_mm ?? 0)) * scale : 0);
  const short = $derived(lens ? lens.length_mm! * scale : 0);
  const thick = $derived(lens ? lens.diameter_mm! * scale : 0);
  const clear = $derived(Math.min(h - 8, box.window_mm! * scale));
  const room = $derived(Math.min(70, (mount - left) * 0.8));
  const holes = $derived(
    Array.from({ length: Math.min(8, box.holes!) }, (_, n) => ({
      x: left + 24 + n * Math.min(34, (w - 60) / Math.max(1, box.holes!)),
      closed: n < box.closed!
    }))
  );
  const SHADES = { white: 'none', grey: 'var(--wash)', black: 'var(--wash2)' } as const;
</script>

<svg
  viewBox="0 0 {WIDE} {TALL}"
  role="img"
  aria-label="Box, cut open from the side: {write(
    box.room_mm!,
    'mm'
  )} from the mount to the glass, the lens {lens
    ? write(lens.length_mm! + (lens.grows_mm ?? 0), 'mm')
    : 'not on the rig'} at its longest"
>
  <rect class="wall" x={left} y={top} width={w} height={h} style:fill={SHADES[box.shade!]} />
  <rect class="hair" x={left + 5} y={top + 5} width={w - 10} height={h - 10} />
  <!-- the glass -->
  <rect class="gap" x={glass - 3} y={axis - clear / 2} width="14" height={clear} />
  <path class="glass" d="M{glass + 2} {axis - clear / 2}v{clear}" />
  <!-- the camera and the lens -->
  <rect class="part" x={mount - room} y={axis - h * 0.22} width={room} height={h * 0.44} />
  {#if lens}
    <rect class="grown" x={mount} y={axis - thick / 2} width={long} height={thick} />
    <rect class="part" x={mount} y={axis - thick / 2} width={short} height={thick} />
  {/if}
  <path class="axis" d="M{mount - room - 14} {axis}H{left + w + 34}" />
  <!-- holes in the floor, each with its gland, and the loop of its lead -->
  {#each holes as hole, n (n)}
    <path class="hole" d="M{hole.x - 5} {top + h}h10" />
    {#if hole.closed}<rect class="part" x={hole.x - 6} y={top + h - 3} width="12" height="9" />{/if}
    {#if n === 0 && box.drip_loop === 'yes'}<path
        class="lead"
        d="M{hole.x} {top + h + 6}c0 26 -22 26 -22 8v-30"
      />{/if}
  {/each}
  {#if box.vented}
    <path class="hair" d="M{left + w * 0.7} {top + h}h34" stroke-dasharray="2 3" stroke-width="4" />
    <text x={left + w * 0.7} y={top + h + 18}>mesh</text>
  {/if}
  {#if box.heater_w != null}
    <path class="lead" d="M{glass - 5} {axis - clear / 2 + 2}l-5 -5l5 -5l-5 -5l5 -5" />
  {/if}
  <!-- dimensions -->
  <path class="dim" d="M{mount} {top - 16}H{glass}M{mount} {top - 21}v10M{glass} {top - 21}v10" />
  <text x={(mount + glass) / 2} y={top - 21} text-anchor="middle">{write(box.room_mm!, 'mm')}</text>
  {#if lens}
    <path
      class="dim"
      d="M{mount} {axis + thick / 2 + 12}h{long}M{mount} {axis + thick / 2 + 7}v10M{mount + long} {axis +
        thick / 2 +
        7}v10"
    />
    <text x={mount + long / 2} y={axis + thick / 2 + 26} text-anchor="middle"
      >{write(lens.length_mm! + (lens.grows_mm ?? 0), 'mm')} at its longest</text
    >
  {/if}
  <path class="dim" d="M{left} {top + h + 40}h{w}M{left} {top + h + 35}v10M{left + w} {top + h + 35}v10" />
  <text x={left + w / 2} y={top + h + 53} text-anchor="middle">{write(box.deep_mm!, 'mm')}</text>
  <path
    class="dim"
    d="M{left + w + 26} {axis - clear / 2}v{clear}M{left + w + 21} {axis - clear / 2}h10M{left +
      w +
      21} {axis + clear / 2}h10"
  />
  <text x={left + w + 20} y={axis + clear / 2 + 16}>{write(box.window_mm!, 'mm')}</text>
</svg>

<style>
  svg {
    width: 100%;
  }
  svg > * {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  text {
    stroke: none;
    fill: var(--ink);
  }
  .hair,
  .dim,
  .axis {
    stroke: var(--second);
    stroke-width: 1;
  }
  .axis {
    stroke-dasharray: 12 3 2 3;
  }
  .gap {
    fill: var(--sheet);
    stroke: none;
  }
  .glass {
    stroke-width: 3;
  }
  .part {
    fill: var(--sheet);
  }
  .grown {
    stroke-dasharray: 4 3;
    stroke: var(--second);
  }
  .hole {
    stroke: var(--sheet);
    stroke-width: 4;
  }
</style>

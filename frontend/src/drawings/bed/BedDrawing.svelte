<script lang="ts">
  /** The bed from above, dimensioned: what is printed, where the head parks and presses, the switch and its body. */
  import type { components } from '../../api/schema';
  import { number } from '../../format';

  interface Props {
    bed: components['schemas']['BedDrawn'];
    /** x, X, y, Y of all that is printed. */
    extents: readonly number[] | undefined;
    /** The layer's printed ways, and what came below it, as paths with y downwards. */
    layer?: string;
    below?: string;
    start?: { travels: string; prints: string } | undefined;
    /** Where the head's outline is drawn; at the parking place without it. */
    head?: { x: number; y: number } | undefined;
    /** Places where a proof found something. */
    faults?: readonly { x: number; y: number; said: string }[];
  }
  let { bed, extents, layer = '', below = '', start, head, faults = [] }: Props = $props();

  const boxes = $derived([bed.reach, bed.bed, ...(bed.body ? [bed.body] : [])]);
  const MARGIN = 34;
  const view = $derived.by(() => {
    const x0 = Math.min(...boxes.map((one) => one.x0)) - MARGIN;
    const x1 = Math.max(...boxes.map((one) => one.x1)) + MARGIN;
    const y0 = Math.min(...boxes.map((one) => one.y0)) - MARGIN;
    const y1 = Math.max(...boxes.map((one) => one.y1)) + MARGIN;
    return { x: x0, y: -y1, w: x1 - x0, h: y1 - y0 };
  });
  const at = $derived(
    head ?? (bed.park_x === null || bed.park_y === null ? null : { x: bed.park_x, y: bed.park_y })
  );
  const middle = $derived(
    extents ? { x: (extents[0]! + extents[1]!) / 2, y: (extents[2]! + extents[3]!) / 2 } : null
  );
  const park = $derived(
    bed.park_x === null
      ? null
      : { x: bed.park_x, y: bed.park_y ?? middle?.y ?? (bed.bed.y0 + bed.bed.y1) / 2 }
  );
  const turn = $derived(bed.corner_x === null ? '' : `L${bed.corner_x} ${-(bed.corner_y ?? 0)}`);
  const press = $derived(bed.press_x === null || !park ? null : { x: bed.press_x, y: bed.press_y ?? park.y });
  const free = $derived(
    bed.axis === 'X'
      ? [bed.free_low, bed.free_high].find((one) => one !== null && Math.abs(one) < 9000)
      : undefined
  );
  const label = $derived(
    [
      `The bed from above, ${number(bed.bed.x1)} by ${number(bed.bed.y1)} mm.`,
      extents
        ? `Printed from ${number(extents[0]!)} to ${number(extents[1]!)} mm along X, from ${number(extents[2]!)} to ${number(extents[3]!)} along Y.`
        : '',
      park ? `The head parks at X ${number(park.x)}, Y ${number(park.y)}.` : '',
      press ? `It presses at X ${number(press.x)}, Y ${number(press.y)}.` : ''
    ].join(' ')
  );
</script>

<svg viewBox="{view.x} {view.y} {view.w} {view.h}" role="img" aria-label={label}>
  <rect
    class="reach"
    x={bed.reach.x0}
    y={-bed.reach.y1}
    width={bed.reach.x1 - bed.reach.x0}
    height={bed.reach.y1 - bed.reach.y0}
  />
  <rect class="bed" x={bed.bed.x0} y={-bed.bed.y1} width={bed.bed.x1} height={bed.bed.y1} />
  {#if start}
    <path class="start" d={start.travels} />
    <path class="purge" d={start.prints} />
  {/if}
  {#if extents}
    <rect
      class="extents"
      x={extents[0]}
      y={-extents[3]!}
      width={extents[1]! - extents[0]!}
      height={extents[3]! - extents[2]!}
    />
  {/if}
  <path class="below" d={below} />
  <path class="layer" d={layer} />
  {#if middle && park}
    <path class="travel" d="M{middle.x} {-middle.y}{turn}L{park.x} {-park.y}" />
    <text class="on" x={(middle.x + park.x) / 2} y={-(middle.y + park.y) / 2 - 4} text-anchor="middle"
      >travel</text
    >
  {/if}
  {#if free !== undefined && free !== null}
    <path class="limit" d="M{free} {-bed.reach.y1 - 12}V{-bed.reach.y0 + 12}" />
    <text x={free + 3} y={-bed.reach.y0 + 22} text-anchor={free > bed.bed.x1 / 2 ? 'end' : 'start'}
      >no further than {number(free)}</text
    >
  {/if}
  {#if bed.body}
    <rect
      class="body"
      x={bed.body.x0}
      y={-bed.body.y1}
      width={bed.body.x1 - bed.body.x0}
      height={bed.body.y1 - bed.body.y0}
    />
    <path class="body" d="M{bed.body.x0} {-bed.body.y1}L{bed.body.x1} {-bed.body.y0}" />
    <text x={(bed.body.x0 + bed.body.x1) / 2} y={-bed.body.y1 - 5} text-anchor="middle">switch</text>
  {/if}
  {#if at}
    {#each bed.head as part (part.name)}
      <rect
        class="head"
        x={at.x + part.x0}
        y={-(at.y + part.y1)}
        width={part.x1 - part.x0}
        height={part.y1 - part.y0}
      />
    {/each}
    <path class="nozzle" d="M{at.x - 5} {-at.y}h10M{at.x} {-at.y - 5}v10" />
  {/if}
  {#if park && !head}
    <text x={park.x} y={-park.y - Math.max(...bed.head.map((part) => part.y1)) - 5} text-anchor="middle"
      >parked</text
    >
  {/if}
  {#if press}<circle class="press" cx={press.x} cy={-press.y} r="2.4" />{/if}
  {#each faults as one, n (n)}
    <g class="fault"><path d="M{one.x - 5} {-one.y - 5}l10 10m0 -10l-10 10" /><title>{one.said}</title></g>
  {/each}
  <!-- Dimensions, as on any drawing. -->
  <path
    class="dim"
    d="M{bed.bed.x0} {-bed.reach.y0 + 24}H{bed.bed.x1}M{bed.bed.x0} {-bed.reach.y0 + 20}v8M{bed.bed.x1} {-bed
      .reach.y0 + 20}v8"
  />
  <text class="on" x={bed.bed.x1 / 2} y={-bed.reach.y0 + 27} text-anchor="middle"
    >{number(bed.bed.x1)} mm</text
  >
  <path
    class="dim"
    d="M{bed.reach.x0 - 22} {-bed.bed.y1}V{-bed.bed.y0}M{bed.reach.x0 - 26} {-bed.bed.y1}h8M{bed.reach.x0 -
      26} {-bed.bed.y0}h8"
  />
  <text
    class="on"
    transform="translate({bed.reach.x0 - 19} {-bed.bed.y1 / 2}) rotate(-90)"
    text-anchor="middle">{number(bed.bed.y1)} mm{bed.bed_moves ? ', the bed moves' : ''}</text
  >
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    height: 100%;
    max-height: 470px;
  }
  rect,
  path,
  circle {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.1;
    vector-effect: non-scaling-stroke;
  }
  .bed {
    stroke-width: 1.7;
  }
  .reach,
  .dim,
  .extents {
    stroke: var(--second);
    stroke-width: 1;
  }
  .reach {
    stroke-dasharray: 2 4;
  }
  .extents {
    stroke-dasharray: 8 3;
  }
  .below {
    stroke: var(--hair);
  }
  .layer {
    stroke-width: 1.4;
  }
  .start {
    stroke: var(--second);
    stroke-dasharray: 1 5;
    stroke-linecap: round;
    stroke-width: 1.6;
  }
  .purge {
    stroke: var(--second);
    stroke-dasharray: 7 2 1 2;
    stroke-width: 1.8;
  }
  .travel {
    stroke-dasharray: 5 4;
  }
  .limit {
    stroke: var(--mind);
    stroke-dasharray: 10 3 2 3;
  }
  .body {
    stroke-width: 1.7;
  }
  .head {
    fill: var(--wash);
  }
  .nozzle {
    stroke-width: 1.6;
  }
  .press {
    fill: var(--ink);
  }
  .fault path {
    stroke: var(--stop);
    stroke-width: 2.6;
  }
  text {
    font-size: 9px;
    font-stretch: 86%;
    fill: var(--second);
  }
  .on {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
</style>

<script lang="ts">
  /** The rig from the side, to scale: what stands on what, where its mass is, and what holds it up. */
  import type { RigState } from '../../api/client';
  import { write } from '../../format';
  import { at as valueAt } from '../../sheet/series';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { boxOf, scaleFor, spread } from './geometry';

  interface Props {
    rig: RigState;
    chosen: number | null;
    onchoose: (index: number) => void;
  }
  let { rig, chosen, onchoose }: Props = $props();

  const sheet = theSheet();
  let width = $state(880);
  let tried = $state<number | null>(null);
  let dragging = $state(false);

  const SIDE = $derived(width > 640 ? 250 : 0);
  const WIDTH = $derived(Math.max(280, width - SIDE));
  const TALL = 410;
  const GROUND = 372;
  const [from, until] = $derived([rig.hold_mm[0] ?? 0, rig.hold_mm[1] ?? 0]);
  const [nearest, furthest] = $derived([rig.carriage_mm[0] ?? 0, rig.carriage_mm[1] ?? 0]);
  const scale = $derived(scaleFor(boxOf(rig), WIDTH, TALL, GROUND));
  const rail = $derived(rig.parts.find((part) => part.form === 'linear' && !part.rides));
  const slide = $derived(sheet.plan.rig.axes.find((axis) => axis.name === 'slide'));
  const ends = $derived(sheet.plan.move.keyframes.map((key) => key.slide_mm));
  const low = $derived(Math.min(...ends));
  // The carriage stands where the playhead is, or where it is being pulled to.
  const now = $derived.by(() => {
    if (!slide) return 0;
    if (tried !== null) return tried;
    const path = sheet.evaluation.traces?.axes.slide;
    return path ? valueAt(path, sheet.playhead.at) : low;
  });
  const first = $derived(rig.parts.find((part) => part.rides)?.x_mm ?? 0);
  const at = $derived(nearest + (slide ? now - low : 0));
  const shift = $derived(at - first);
  // The centre of mass goes straight from one end of the travel to the other.
  const centre = $derived.by(() => {
    const [first = 0, last = 0] = rig.ends_mm;
    const [here = [], there = []] = rig.centre_mm;
    const share = last > first ? (at - first) / (last - first) : 0;
    const between = (i: number) => (here[i] ?? 0) + share * ((there[i] ?? 0) - (here[i] ?? 0));
    return { x: between(0), y: between(1) };
  });
  const tips = $derived.by(() => {
    const [below, above] = rig.tips_mm;
    if (slide) return now < (below ?? -Infinity) || now > (above ?? Infinity);
    return sheet.evaluation.snags.some((snag) => snag.code === 'rig-tips');
  });
  const ghosts = $derived(slide && Math.abs(furthest - nearest) > 1 ? [nearest, furthest] : []);
  const pieces = $derived(rig.parts.filter((part) => part.kind !== 'support'));
  const stands = $derived(rig.parts.filter((part) => part.kind === 'support'));
  const listed = $derived(
    [...stands.slice(0, 1), ...pieces.filter((part) => !(part.form === 'linear' && part.rides))].reverse()
  );
  const calls = $derived(
    spread(
      listed.map((part) => scale.y(part.y_mm + part.height_mm / 2)),
      40,
      24,
      GROUND - 26
    )
  );
  const ride = (part: RigState['parts'][number]) => part.x_mm + (part.rides ? shift : 0);
  const carries = (index: number) => sheet.figure(`rig.carried.${index}`);

  function put(mm: number) {
    if (!slide) return;
    tried = Math.max(slide.low, Math.min(slide.high, mm));
  }
  function moved(event: PointerEvent) {
    if (!dragging) return;
    const box = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
    if (!box) return;
    const px = ((event.clientX - box.left) / box.width) * (WIDTH + SIDE);
    const mm = (px - scale.x(0)) / scale.px(1);
    put(mm - nearest + low);
  }
  function keys(event: KeyboardEvent) {
    const direction = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!direction) return;
    event.preventDefault();
    put(now + direction * (event.shiftKey ? 100 : event.altKey ? 1 : 10));
  }
  const words = $derived(
    `Seen from the side: ${rig.parts.map((part) => part.name).join(', ')}. ` +
      `Centre of mass ${write(centre.x, 'mm')} along and ${write(centre.y, 'mm')} up${tips ? ': it tips' : ''}.`
  );
</script>

<div bind:clientWidth={width}>
  <svg viewBox="0 0 {WIDTH + SIDE} {TALL}" role="group" aria-label={words}>
    <g class="ground">
      <path class="rule" d="M0 {GROUND}H{WIDTH}" />
      {#each Array.from({ length: Math.ceil(WIDTH / 12) }, (_, i) => i * 12) as x (x)}
        <line x1={x} y1={GROUND + 8} x2={x + 8} y2={GROUND} />
      {/each}
    </g>
    {#each stands as part (part.index)}
      {@const x = scale.x(part.x_mm)}
      {@const top = scale.y(part.height_mm)}
      {@const reach = scale.px(part.width_mm / 2)}
      <g class:weak={part.bad} class="stand">
        {#if part.form === 'mast'}
          <path d="M{x - 4} {GROUND}V{top}h8V{GROUND}" />
          <path class="thin" d="M{x} {top + 20}L{x - reach} {GROUND}M{x} {top + 20}L{x + reach} {GROUND}" />
        {:else if part.form === 'clamp'}
          <rect x={x - reach} y={top} width={reach * 2} height={GROUND - top} />
        {:else}
          <path
            class="leg"
            d="M{x - 4} {top + 14}L{x - reach} {GROUND}M{x + 4} {top + 14}L{x + reach} {GROUND}"
          />
          <path class="leg thin" d="M{x} {top + 14}L{x + reach * 0.12} {GROUND - 3}" />
          <rect x={x - 11} y={top} width="22" height="15" />
        {/if}
      </g>
    {/each}
    <g transform="rotate({-rig.slope_deg} {scale.x(0)} {scale.y(rail?.y_mm ?? 0)})">
      {#each ghosts as place, i (i)}
        {#each pieces.filter((part) => part.rides) as part (part.index)}
          <rect
            class="ghost"
            x={scale.x(part.x_mm + place - first) - scale.px(part.width_mm / 2)}
            y={scale.y(part.y_mm + part.height_mm)}
            width={scale.px(part.width_mm)}
            height={Math.max(1, scale.px(part.height_mm))}
          />
        {/each}
      {/each}
      {#each pieces as part, i (i)}
        {@const x = scale.x(ride(part))}
        {@const wide = Math.max(6, scale.px(part.width_mm))}
        {@const high = Math.max(3, scale.px(part.height_mm))}
        {@const top = scale.y(part.y_mm + part.height_mm)}
        <g
          class:weak={part.bad}
          class:chosen={chosen === part.index}
          class:filled={part.rides && part.form === 'linear'}
        >
          {#if part.kind === 'body' || part.kind === 'phone'}
            <rect x={x - wide * 0.36} y={top} width={wide * 0.72} height={high} />
            <rect
              x={x + wide * 0.36}
              y={top + high * 0.22}
              width={Math.max(8, wide * 0.5)}
              height={high * 0.56}
            />
          {:else if part.form === 'rotary' && high > 16}
            <rect x={x - wide / 2} y={top + high * 0.45} width={wide} height={high * 0.55} />
            <circle cx={x} cy={top + high * 0.3} r={Math.min(high * 0.34, wide * 0.5)} />
          {:else}
            <rect x={x - wide / 2} y={top} width={wide} height={high} />
          {/if}
        </g>
      {/each}
      {#if slide && rail}
        <rect
          class="pull"
          role="slider"
          tabindex="0"
          aria-label="Carriage, to see where the rig would tip"
          aria-valuemin={slide.low}
          aria-valuemax={slide.high}
          aria-valuenow={Math.round(now)}
          aria-valuetext="{write(Math.round(now), 'mm')}{tips ? ', tips' : ''}"
          x={scale.x(at) - Math.max(24, scale.px(60))}
          y={20}
          width={Math.max(48, scale.px(120))}
          height={scale.y(rail.y_mm) - 20}
          onpointerdown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            dragging = true;
          }}
          onpointermove={moved}
          onpointerup={() => (dragging = false)}
          onpointercancel={() => (dragging = false)}
          onkeydown={keys}
        />
      {/if}
    </g>
    {#if stands.length && pieces.length}
      {@const x = scale.x(centre.x)}
      {@const y = scale.y(centre.y)}
      <g class="centre" class:tips>
        <line x1={x} x2={x} y1={y + 9} y2={GROUND} />
        <circle cx={x} cy={y} r="8" />
        <path d="M{x} {y}V{y - 8}A8 8 0 0 1 {x + 8} {y}ZM{x} {y}V{y + 8}A8 8 0 0 1 {x - 8} {y}Z" />
        <text x={x + (centre.x < 0 ? -13 : 13)} y={y + 4} text-anchor={centre.x < 0 ? 'end' : 'start'}
          >centre of mass</text
        >
      </g>
      <g class="hold">
        <path
          d="M{scale.x(from)} {GROUND - 6}v12M{scale.x(until)} {GROUND - 6}v12M{scale.x(
            from
          )} {GROUND}H{scale.x(until)}"
        />
        <text x={scale.x((from + until) / 2)} y={GROUND + 26} text-anchor="middle"
          >holds while the centre of mass is over {write(Math.round(until - from), 'mm')}</text
        >
      </g>
    {/if}
    {#if SIDE}
      {#each listed as part, i (part.key)}
        {@const y = calls[i] ?? 0}
        {@const own = scale.y(part.y_mm + part.height_mm / 2)}
        {@const edge = Math.min(
          WIDTH - 26,
          scale.x(ride(part)) + scale.px(part.width_mm / 2) * (part.kind === 'support' ? 0.1 : 1) + 3
        )}
        <g
          class="call"
          class:weak={part.bad}
          role="button"
          tabindex="0"
          onclick={() => onchoose(part.index)}
          onkeydown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            event.stopPropagation();
            onchoose(part.index);
          }}
        >
          <path d="M{edge} {own}H{WIDTH - 24}L{WIDTH - 4} {y}H{WIDTH + 6}" />
          <text class="name" x={WIDTH + 12} y={y + 2}>{part.name}, {write(part.mass_g, 'g')}</text>
          <text class="joint" x={WIDTH + 12} y={y + 17}
            >{part.joint || 'on the ground'}{part.weakest && carries(part.index)
              ? `, weakest: ${write(carries(part.index)?.value ?? 0, 'g')} on it`
              : ''}</text
          >
        </g>
      {/each}
    {/if}
  </svg>
  {#if slide && rail}
    <p class="label">
      Pull the carriage along the rail to see where the rig would tip.
      {#if tried !== null}Carriage at {write(Math.round(tried), 'mm')}{tips ? ': it tips here' : ''}.
        <button type="button" class="link" onclick={() => (tried = null)}>back to the playhead</button>{/if}
    </p>
  {/if}
</div>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  rect,
  circle,
  path {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.7;
  }
  .rule {
    stroke-width: 1.2;
  }
  .ground line {
    stroke: var(--hair);
  }
  .leg {
    fill: none;
    stroke-width: 5;
  }
  .leg.thin {
    stroke: var(--second);
  }
  .thin {
    stroke-width: 1;
  }
  .leg.thin {
    stroke-width: 4;
  }
  .filled rect {
    fill: var(--wash2);
  }
  .chosen rect,
  .chosen circle {
    stroke-width: 3;
  }
  .weak rect,
  .weak circle,
  .weak path {
    stroke: var(--stop);
    stroke-dasharray: 5 2;
  }
  .ghost {
    fill: none;
    stroke: var(--second);
    stroke-width: 1;
    stroke-dasharray: 3 3;
  }
  .pull {
    fill: transparent;
    stroke: none;
    cursor: ew-resize;
    outline: none;
  }
  .pull:focus-visible {
    stroke: var(--ink);
    stroke-dasharray: 2 3;
  }
  .centre line {
    stroke: var(--ink);
    stroke-dasharray: 6 3;
  }
  .centre path {
    fill: var(--ink);
    stroke: none;
  }
  .centre.tips line,
  .centre.tips circle {
    stroke: var(--stop);
  }
  .centre.tips path {
    fill: var(--stop);
  }
  .centre text {
    font-weight: 600;
  }
  .centre.tips text {
    fill: var(--stop);
  }
  .hold path {
    fill: none;
    stroke-width: 1.2;
  }
  .hold text {
    fill: var(--second);
  }
  .call path {
    fill: none;
    stroke: var(--second);
    stroke-width: 1;
  }
  .call {
    cursor: pointer;
    outline: none;
  }
  .call:hover .name,
  .call:focus-visible .name {
    text-decoration: underline;
  }
  .call .name {
    font-weight: 650;
    font-size: 13px;
  }
  .call .joint {
    fill: var(--second);
  }
  .call.weak .joint,
  .call.weak .name {
    fill: var(--stop);
  }
</style>

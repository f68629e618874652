<script lang="ts">
  /** The whole shoot on its clock, with the moves as lines and one playhead that everything follows. */
  import { changing } from '../../sheet/frames';
  import { clock, number, shortDay, shutter, write } from '../../format';
  import { at as valueAt, elapsedAt, elapsedOf, frameAt, framesOf, valuesOf } from '../../sheet/series';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { exact } from '../../parts/beatParts';
  import { DASHES, UNITS } from '../axes';
  import { clockTicks, heights, offset, path, shift, WHOLE, zoom, type View } from './geometry';

  const sheet = theSheet();
  const head = sheet.playhead;
  const LEFT = 92;
  const RIGHT = 20;
  const TALL = 150;
  const BASE = 124;

  let width = $state(1160);
  let view = $state.raw<View>(WHOLE);
  const pointers = new Map<number, number>();
  let pinch = 0;

  const told = $derived(sheet.evaluation);
  const frames = $derived(told.frames ?? 0);
  const traces = $derived(told.traces);
  const map = $derived(traces?.map);
  const elapsed = (frame: number) => elapsedAt(map, frame);
  // The span ends with the last frame; its slot is beyond it.
  const length = $derived(elapsed(Math.max(0, frames - 1)));
  const room = $derived(width - LEFT - RIGHT);
  const x = (share: number) => LEFT + ((share - view.from) / (view.to - view.from)) * room;
  const shareOf = (px: number) => view.from + ((px - LEFT) / room) * (view.to - view.from);
  const frameShare = (frame: number) => (length > 0 ? elapsed(frame) / length : 0);
  const timeShare = (seconds: number) => (length > 0 ? seconds / length : 0);
  // Signals are read once a line, not once a point: a drag redraws these lines many times a second.
  const lines = $derived.by(() => {
    if (!traces) return [];
    const scale = room / (view.to - view.from) / Math.max(1e-9, length);
    const left = LEFT - (view.from / (view.to - view.from)) * room;
    return Object.entries(traces.axes).map(([name, series], row) => {
      const xs = elapsedOf(traces.map, framesOf(series, frames)).map((seconds) => left + seconds * scale);
      return { name, row, path: path(xs, heights(valuesOf(series), 20, 84)), dash: DASHES[name] ?? '' };
    });
  });
  const shownFrames = $derived.by(() => {
    if (!traces) return [];
    const first = Math.floor(frameAt(map, view.from * length));
    const last = Math.min(frames - 1, Math.ceil(frameAt(map, view.to * length)));
    return Array.from({ length: Math.min(last - first + 1, 4000) }, (_, i) => first + i);
  });
  const events = $derived(
    sheet.plan.shoot.clock.events
      .map((event, i) => ({
        i,
        name: event.name,
        share: timeShare(Date.parse(event.at) / 1000 - sheet.start)
      }))
      .filter((event) => event.share >= 0 && event.share <= 1)
  );
  const segments = $derived(changing(sheet.plan).segments);
  // Where one interval ends and the next begins, by the frames that the segments came to.
  const edges = $derived.by(() => {
    let frame = 0;
    return segments.slice(0, -1).map((_, i) => {
      frame += sheet.figure(`clip.segment.${i}.frames`)?.value ?? 0;
      return { i, frame, share: frameShare(frame) };
    });
  });
  let held = $state<{ i: number; x: number; lengths: [number, number]; merge: string } | null>(null);
  const lengthOf = (i: number) => exact(segments[i]?.length_s);

  /** Move the boundary between two segments: what one gains the other loses. */
  function moveEdge(i: number, lengths: [number, number], by: number, merge: string) {
    const least = [exact(segments[i]?.interval_s), exact(segments[i + 1]?.interval_s)] as const;
    const kept = Math.round(Math.max(least[0] - lengths[0], Math.min(lengths[1] - least[1], by)));
    const put = (at: number, seconds: number) => ({
      path: `frames.segments.${at}.length_s`,
      value: String(seconds)
    });
    const edits = [put(i, lengths[0] + kept), put(i + 1, lengths[1] - kept)];
    void sheet.change([{ do: 'edits', edits }], merge);
  }

  function edgeDown(event: PointerEvent, i: number) {
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    held = {
      i,
      x: event.clientX,
      lengths: [lengthOf(i), lengthOf(i + 1)],
      merge: `edge ${i} ${event.timeStamp}`
    };
  }

  function edgeMoved(event: PointerEvent) {
    if (!held) return;
    event.stopPropagation();
    const seconds = ((event.clientX - held.x) / room) * (view.to - view.from) * length;
    moveEdge(held.i, held.lengths, seconds, held.merge);
  }

  function edgeKeys(event: KeyboardEvent, i: number) {
    const direction = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!direction) return;
    event.preventDefault();
    event.stopPropagation();
    const step = exact(segments[i]?.interval_s) * (event.shiftKey ? 10 : 1);
    moveEdge(i, [lengthOf(i), lengthOf(i + 1)], direction * step, `edge key ${i}`);
  }

  const ticks = $derived.by(() => {
    const from = sheet.start + view.from * length;
    const to = sheet.start + view.to * length;
    const made = clockTicks(from, to, Math.max(3, room / 78), offset(from, sheet.zone));
    const share = (at: number) => (length > 0 ? (at - sheet.start) / length : 0);
    return made.at.map((at) => ({
      at,
      x: x(share(at)),
      text: made.step >= 86_400 ? shortDay(at, sheet.zone) : clock(at, sheet.zone, made.step < 60)
    }));
  });
  const at = $derived(head.at);
  const now = $derived(sheet.start + elapsed(at));
  const headX = $derived(x(frameShare(at)));
  const positions = $derived(
    Object.entries(traces?.axes ?? {}).map(([name, series]) => {
      const value = valueAt(series, at);
      return `${name} ${write(Number(value.toFixed(name === 'slide' ? 1 : 2)), UNITS[name] ?? '')}`;
    })
  );
  const flag = $derived(
    [
      `frame ${number(at + 1, 12)}`,
      `${length > 86_400 ? `${shortDay(now, sheet.zone)}, ` : ''}${clock(now, sheet.zone)}`,
      ...positions,
      shutter(evalExposure())
    ].join(' · ')
  );
  const flagWide = $derived(flag.length * 5.75 + 18);
  const flagX = $derived(
    Math.min(
      Math.max(LEFT, headX + 6 + flagWide > width ? headX - 6 - flagWide : headX + 6),
      width - flagWide
    )
  );

  function evalExposure(): number {
    const part = told.beat?.parts.find((one) => one.name === 'exposure');
    return part?.length_s ?? 0;
  }

  function to(px: number) {
    head.stop();
    if (map) head.to(frameAt(map, shareOf(px) * length));
  }

  function down(event: PointerEvent) {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    pointers.set(event.pointerId, event.offsetX);
    if (pointers.size === 1) to(event.offsetX);
    else pinch = spread();
  }

  function moved(event: PointerEvent) {
    if (!pointers.has(event.pointerId)) return;
    pointers.set(event.pointerId, event.offsetX);
    if (pointers.size === 1) return to(event.offsetX);
    const wide = spread();
    const middle = [...pointers.values()].reduce((sum, px) => sum + px, 0) / pointers.size;
    if (pinch && wide) view = zoom(view, pinch / wide, shareOf(middle));
    pinch = wide;
  }

  function up(event: PointerEvent) {
    pointers.delete(event.pointerId);
    pinch = 0;
  }

  function spread(): number {
    const px = [...pointers.values()];
    return Math.abs((px[0] ?? 0) - (px[1] ?? 0));
  }

  function wheel(event: WheelEvent) {
    event.preventDefault();
    if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      view = shift(view, ((event.deltaX || event.deltaY) / room) * (view.to - view.from));
    } else view = zoom(view, Math.exp(event.deltaY / 400), shareOf(event.offsetX));
  }

  function keys(event: KeyboardEvent) {
    const step = event.shiftKey ? Math.max(1, Math.round(frames / 20)) : 1;
    if (event.key === 'ArrowLeft' || event.key === 'ArrowDown') head.by(-step);
    else if (event.key === 'ArrowRight' || event.key === 'ArrowUp') head.by(step);
    else if (event.key === 'Home') head.by(-frames);
    else if (event.key === 'End') head.by(frames);
    else if (event.key === '+' || event.key === '=') view = zoom(view, 0.7, frameShare(at));
    else if (event.key === '-') view = zoom(view, 1.4, frameShare(at));
    else return;
    event.preventDefault();
  }

  // A wheel listener has to be allowed to keep the page from scrolling.
  function zoomable(node: SVGElement) {
    node.addEventListener('wheel', wheel, { passive: false });
    return { destroy: () => node.removeEventListener('wheel', wheel) };
  }
</script>

<div class="span" bind:clientWidth={width}>
  {#if frames > 0}
    <svg
      {width}
      height={TALL}
      role="slider"
      tabindex="0"
      aria-label="Playhead on the span of the shoot"
      aria-valuemin={1}
      aria-valuemax={frames}
      aria-valuenow={at + 1}
      aria-valuetext={flag}
      use:zoomable
      onpointerdown={down}
      onpointermove={moved}
      onpointerup={up}
      onpointercancel={up}
      onkeydown={keys}
    >
      <clipPath id="span-room"><rect x={LEFT - 7} y="0" width={room + 14} height={TALL} /></clipPath>
      {#each lines as one (one.name)}
        <text x="12" y={26 + one.row * 17}>{one.name}</text>
        <line
          class="line"
          x1="50"
          x2="82"
          y1={22 + one.row * 17}
          y2={22 + one.row * 17}
          stroke-dasharray={one.dash}
        />
      {/each}
      <text x="12" y="106">frames</text>
      {#each ticks as tick, i (i)}
        <line class="base" x1={tick.x} x2={tick.x} y1={BASE} y2={BASE + 6} />
        <text x={tick.x} y={BASE + 20} text-anchor="middle">{tick.text}</text>
      {/each}
      <g clip-path="url(#span-room)">
        {#each lines as one (one.name)}
          <path class="line" d={one.path} stroke-dasharray={one.dash} />
        {/each}
        <line class="hair" x1={LEFT} x2={width - RIGHT} y1="102" y2="102" />
        {#if shownFrames.length / room < 0.34}
          {#each shownFrames as frame, i (i)}
            <line class="frame" x1={x(frameShare(frame))} x2={x(frameShare(frame))} y1="97" y2="107" />
          {/each}
        {:else}
          <rect class="many" x={x(0)} width={x(1) - x(0)} y="98" height="8" />
        {/if}
        <line class="base" x1={LEFT} x2={width - RIGHT} y1={BASE} y2={BASE} />
        <line class="head" x1={headX} x2={headX} y1="0" y2={BASE} />
        <path class="mark" d="M{headX - 6} {BASE + 1}h12l-6 -8z" />
        {#each events as event (event.i)}
          <line class="event" x1={x(event.share)} x2={x(event.share)} y1="8" y2={BASE} />
          <text
            class="eventname"
            x={x(event.share) + (x(event.share) > width - 150 ? -5 : 5)}
            y="16"
            text-anchor={x(event.share) > width - 150 ? 'end' : 'start'}>{event.name}</text
          >
        {/each}
        {#each edges as edge (edge.i)}
          <line class="boundary" x1={x(edge.share)} x2={x(edge.share)} y1="14" y2={BASE} />
        {/each}
      </g>
      <g transform="translate({flagX} 88)">
        <rect class="flag" width={flagWide} height="20" />
        <text class="flagtext" x="8" y="14">{flag}</text>
      </g>
    </svg>
    {#each edges.filter((edge) => edge.share >= view.from && edge.share <= view.to) as edge (edge.i)}
      <div
        role="slider"
        tabindex="0"
        class="edge"
        style:left="{x(edge.share) - 12}px"
        aria-label="Change of the interval after segment {edge.i + 1}"
        aria-valuenow={edge.frame + 1}
        aria-valuetext="at frame {edge.frame + 1}, {clock(sheet.start + elapsed(edge.frame), sheet.zone)}"
        onpointerdown={(event) => edgeDown(event, edge.i)}
        onpointermove={edgeMoved}
        onpointerup={() => (held = null)}
        onpointercancel={() => (held = null)}
        onkeydown={(event) => edgeKeys(event, edge.i)}
      >
        <i></i>
      </div>
    {/each}
    {#if view.to - view.from < 1}
      <button type="button" class="link whole no-print" onclick={() => (view = WHOLE)}>whole shoot</button>
    {/if}
  {:else}
    <p class="mono-note p-4">The span appears as soon as the sentence fixes frames and interval.</p>
  {/if}
</div>

<style>
  .span {
    position: relative;
    min-height: 150px;
    overflow: hidden;
  }
  svg {
    display: block;
    touch-action: pan-y;
    cursor: ew-resize;
  }
  svg:focus-visible {
    outline-offset: -3px;
  }
  .line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .hair {
    stroke: var(--hair);
  }
  .event {
    stroke: var(--second);
    stroke-dasharray: 2 3;
  }
  .eventname {
    fill: var(--second);
  }
  /* The knob of a boundary: more to hit than is drawn. */
  .edge {
    position: absolute;
    top: 0;
    width: 24px;
    height: 30px;
    cursor: col-resize;
    touch-action: none;
  }
  .edge i {
    position: absolute;
    left: 6px;
    top: 4px;
    width: 12px;
    height: 10px;
    background: var(--ink);
  }
  .boundary {
    stroke: var(--ink);
    stroke-width: 1.2;
    stroke-dasharray: 5 3;
  }
  .frame {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .many {
    fill: var(--wash2);
  }
  .base {
    stroke: var(--ink);
  }
  .head {
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .mark,
  .flag {
    fill: var(--ink);
  }
  .flagtext {
    fill: var(--sheet);
    font-weight: 600;
  }
  .whole {
    position: absolute;
    right: 14px;
    top: 6px;
    font-size: 12px;
    min-height: 24px;
  }
</style>

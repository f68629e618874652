<script lang="ts">
  /**
   * Seen from above, to scale: rail, carriage at each keyframe, what the lens sees and sweeps, the marks, north and the
   * sun. Everything that can be grasped is dragged, or moved with the arrow keys.
   */
  import { fill, number, write } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { poseAt, sunAt } from '../finder/pose';
  import { ahead, pointing, scale, square, wedge } from './geometry';

  interface Props {
    height?: number;
  }
  let { height = 400 }: Props = $props();

  const sheet = theSheet();
  const PAD = 34;
  const THUMB = 12;
  /** Marks further off than this many times what is drawn stand at its edge, with an arrow. */
  const SWEPT = 14;
  let width = $state(560);
  let zoom = $state(1);
  let svg = $state<SVGSVGElement>();
  let held = $state<{ handle: Handle; merge: string } | null>(null);

  type Handle =
    | { kind: 'carriage'; key: number }
    | { kind: 'pan'; key: number }
    | { kind: 'mark'; index: number }
    | { kind: 'north' };

  const move = $derived(sheet.plan.move);
  const keys = $derived(move.keyframes);
  const slides = $derived(sheet.plan.rig.axes.find((axis) => axis.name === 'slide'));
  const turns = $derived(sheet.plan.rig.axes.find((axis) => axis.name === 'pan'));
  const led = $derived(!!move.follow?.every_frame);
  // Without a rail the camera stands where the keyframes have it, with as much room drawn around it.
  const rail = $derived(
    slides ?? { low: keys[0]!.slide_mm - 400, high: keys[0]!.slide_mm + 400, name: 'slide' as const }
  );
  const head = $derived(turns ?? { low: -180, high: 180, name: 'pan' as const });
  const fov = $derived(sheet.figure('view.across')?.value ?? 50);
  const view = $derived(sheet.evaluation.view);
  const normal = $derived(sheet.plan.rig.normal_bearing_deg);
  const slope = $derived(Math.cos(((sheet.plan.rig.standing?.slope_deg ?? 0) * Math.PI) / 180));
  const placed = $derived(
    move.marks.map((mark, index) => ({ mark, index })).filter((one) => one.mark.form !== 'bearing')
  );
  const bearings = $derived(
    move.marks.map((mark, index) => ({ mark, index })).filter((one) => one.mark.form === 'bearing')
  );

  // While something is held the frame stands still, so that the drawing does not run away under the hand.
  let frozen = $state.raw<ReturnType<typeof content> | null>(null);
  function content() {
    const length = rail.high - rail.low;
    const ahead = placed.map((one) => one.mark.y_mm).filter((y) => y > 0);
    const subject = move.follow ? move.marks[move.follow.mark]?.y_mm : undefined;
    // What is followed has to be on the drawing; what is far off comes onto it when it is zoomed out.
    const near = subject && subject > 0 ? subject * 1.45 : ahead.length ? Math.min(...ahead) * 1.3 : 0;
    const far = Math.max(length * 1.1, near) * zoom;
    const side = Math.max(length * 0.62, far * 0.45);
    const middle = (rail.low + rail.high) / 2;
    return { left: middle - side, right: middle + side, far };
  }
  const frame = $derived({ width, height, under: keys.length > 2 ? 92 : 62, ...(frozen ?? content()) });
  const to = $derived(scale(frame));
  const top = $derived(to.mmY(10));
  const reach = $derived(frame.far * 0.86);
  const grip = $derived(reach * 0.6);
  const grid = $derived(square(to.mmX(width) - to.mmX(0)));
  const gridX = $derived(range(to.mmX(0), to.mmX(width), grid));
  const gridY = $derived(range(0, to.mmY(0), grid));
  const now = $derived(poseAt(sheet.evaluation, sheet.playhead.frame));
  const sun = $derived(sunAt(sheet.evaluation, sheet.playhead.frame));
  const swept = $derived.by(() => {
    const frames = sheet.evaluation.frames ?? 1;
    const poses = Array.from({ length: SWEPT }, (_, n) =>
      poseAt(sheet.evaluation, ((frames - 1) * n) / (SWEPT - 1))
    );
    return poses.filter((pose) => pose !== null);
  });
  const sunPath = $derived.by(() => {
    const frames = sheet.evaluation.frames ?? 1;
    if (normal === null || normal === undefined || !view?.sun) return '';
    const points = Array.from({ length: 24 }, (_, n) => sunAt(sheet.evaluation, ((frames - 1) * n) / 23));
    return points
      .map((one, n) => {
        const [x, y] = onCompass((one?.azimuth ?? 0) - normal, 26);
        return `${n ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`;
      })
      .join('');
  });
  /** Where the pace of the picture is too quick: the worst frame, on the rail. */
  const quick = $derived(sheet.evaluation.snags.find((snag) => /^move-(quick|strobes)$/.test(snag.code)));

  /** What the picture suffers, where it comes from: told at the foot of the drawing. */
  const SUFFERS: Record<string, string> = {
    'rail-sags': 'the rail sags: {pixels}',
    'horizon-tilts': 'the horizon tilts: {pixels}',
    'steps-uneven': '{axis}, a step: {pixels}',
    'smear-visible': 'smear: {smear}',
    'axis-too-slow': '{axis} too slow: {time} a step'
  };
  const suffers = $derived(
    sheet.evaluation.snags
      .filter((snag) => SUFFERS[snag.code])
      .map((snag) => ({ snag, said: fill(SUFFERS[snag.code]!, snag.slots, sheet.zone) }))
      .slice(0, 4)
  );
  const sags = $derived(sheet.evaluation.snags.some((snag) => snag.code === 'rail-sags'));

  const MOST_LINES = 400;

  function range(low: number, high: number, step: number): number[] {
    const made: number[] = [];
    for (let at = Math.ceil(low / step) * step; at <= high && made.length < MOST_LINES; at += step)
      made.push(at);
    return made;
  }

  function onCompass(fromNormal: number, radius: number): [number, number] {
    const turn = (fromNormal * Math.PI) / 180;
    return [Math.sin(turn) * radius, -Math.cos(turn) * radius];
  }

  function grab(event: PointerEvent, handle: Handle) {
    if (event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    frozen = content();
    held = { handle, merge: `drag ${JSON.stringify(handle)} ${event.timeStamp}` };
    event.stopPropagation();
  }

  function drag(event: PointerEvent) {
    if (!held || !svg) return;
    const box = svg.getBoundingClientRect();
    const x = to.mmX(event.clientX - box.left);
    const y = to.mmY(event.clientY - box.top);
    const { handle, merge } = held;
    if (handle.kind === 'carriage') void put(handle, x / slope, merge);
    else if (handle.kind === 'pan')
      void put(handle, pointing(keys[handle.key]!.slide_mm * slope, x, y), merge);
    else if (handle.kind === 'north') {
      const [cx, cy] = [event.clientX - box.left - (width - 46), event.clientY - box.top - (height - 46)];
      face((-Math.atan2(cx, -cy) * 180) / Math.PI, merge);
    } else putMark(handle.index, x, y, merge);
  }

  /** The bearing that the rail faces; turning north to the left turns the rail to the right. */
  function face(bearing: number, merge: string) {
    void sheet.set('rig.normal_bearing_deg', Math.round((bearing + 720) % 360) % 360, merge);
  }

  function release() {
    held = null;
    frozen = null;
  }

  function put(handle: Extract<Handle, { key: number }>, value: number, merge: string) {
    const axis = handle.kind === 'carriage' ? rail : head;
    const inside = Math.min(axis.high, Math.max(axis.low, value));
    const field = handle.kind === 'carriage' ? 'slide_mm' : 'pan_deg';
    const digits = handle.kind === 'carriage' ? 1 : 2;
    return sheet.set(`move.keyframes.${handle.key}.${field}`, Number(inside.toFixed(digits)), merge);
  }

  function putMark(index: number, x: number, y: number, merge: string) {
    const path = `move.marks.${index}`;
    if (move.marks[index]!.form === 'bearing') {
      const bearing = (pointing((rail.low + rail.high) / 2, x, y) + (normal ?? 0) + 360) % 360;
      return void sheet.set(`${path}.bearing_deg`, Number(bearing.toFixed(1)), merge);
    }
    void sheet.change(
      [
        { do: 'set', path: `${path}.x_mm`, value: Math.round(x) },
        { do: 'set', path: `${path}.y_mm`, value: Math.round(y) }
      ],
      merge
    );
  }

  function keysOn(event: KeyboardEvent, handle: Handle) {
    const right = { ArrowRight: 1, ArrowLeft: -1 }[event.key] ?? 0;
    const up = { ArrowUp: 1, ArrowDown: -1 }[event.key] ?? 0;
    if (!right && !up) return;
    event.preventDefault();
    event.stopPropagation();
    const factor = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    const merge = `key ${JSON.stringify(handle)}`;
    if (handle.kind === 'north') face((normal ?? 0) + (right || up) * factor, merge);
    else if (handle.kind === 'mark') {
      const mark = move.marks[handle.index]!;
      if (mark.form === 'bearing') {
        const turned = (mark.bearing_deg + (right || up) * factor + 360) % 360;
        void sheet.set(`move.marks.${handle.index}.bearing_deg`, Number(turned.toFixed(1)), merge);
      } else putMark(handle.index, mark.x_mm + right * 10 * factor, mark.y_mm + up * 10 * factor, merge);
    } else if (handle.kind === 'carriage')
      void put(handle, keys[handle.key]!.slide_mm + (right || up) * factor, merge);
    else void put(handle, keys[handle.key]!.pan_deg + (right || up) * factor * 0.5, merge);
  }

  function wheel(event: WheelEvent) {
    event.preventDefault();
    zoom = Math.min(40, Math.max(0.5, zoom * Math.exp(event.deltaY * 0.0015)));
  }

  /** All that stands on the drawing, or just the rail and what is near it. */
  function fit() {
    if (zoom > 1.01) return (zoom = 1);
    const furthest = Math.max(
      ...placed.map((one) => Math.max(one.mark.y_mm * 1.1, Math.abs(one.mark.x_mm) * 1.2)),
      1
    );
    zoom = Math.min(40, Math.max(1, furthest / content().far));
  }

  /** Boxes that would lie on one another stand in rows under the rail. */
  const rows = $derived.by(() => {
    const order = keys.map((key, n) => ({ n, x: to.x(key.slide_mm * slope) })).sort((a, b) => a.x - b.x);
    const ends: number[] = [];
    const made: number[] = [];
    for (const one of order) {
      let row = ends.findIndex((end) => one.x - end >= THUMB * 2 + 2);
      if (row < 0) row = ends.length;
      ends[row] = one.x;
      made[one.n] = Math.min(row, 2);
    }
    return made;
  });

  const wide = (index: number) => Math.max(7, (move.marks[index]!.width_mm * to.mm) / 2);
  const inside = (x: number, y: number) =>
    to.x(x) > 8 && to.x(x) < width - 8 && y < top && to.y(y) < height - 6;
  const beyond = $derived(placed.filter((one) => !inside(one.mark.x_mm, one.mark.y_mm)));
  const here = $derived(placed.filter((one) => inside(one.mark.x_mm, one.mark.y_mm)));
  /** The edge of the drawing in the direction of something beyond it. */
  function edge(x: number, y: number): [number, number, number] {
    const [cx, cy] = [to.x((rail.low + rail.high) / 2), to.y(0)];
    const [dx, dy] = [to.x(x) - cx, to.y(y) - cy];
    const fits = [
      dx > 0 ? (width - 16 - cx) / dx : dx < 0 ? (16 - cx) / dx : Infinity,
      dy < 0 ? (16 - cy) / dy : dy > 0 ? (height - 16 - cy) / dy : Infinity
    ];
    const share = Math.min(...fits);
    return [cx + dx * share, cy + dy * share, (Math.atan2(dx, -dy) * 180) / Math.PI];
  }
  /** Labels of neighbours at the edge stand one under the other. */
  const distant = $derived.by(() => {
    const all = [
      ...beyond.map((one) => ({ ...one, at: edge(one.mark.x_mm, one.mark.y_mm) })),
      ...bearings.map((one) => ({ ...one, at: bearingEdge(one.mark.bearing_deg) }))
    ].sort((a, b) => a.at[0] - b.at[0]);
    let row = 0;
    return all.map((one, n) => {
      const before = all[n - 1];
      row = before && one.at[0] - before.at[0] < 104 && Math.abs(one.at[1] - before.at[1]) < 30 ? row + 1 : 0;
      return { ...one, row: row % 4 };
    });
  });
  function bearingEdge(bearing: number): [number, number, number] {
    const [x, y] = ahead((rail.low + rail.high) / 2, bearing - (normal ?? 0), frame.far * 50);
    return edge(x, y);
  }
</script>

<div class="plan" bind:clientWidth={width}>
  <svg
    bind:this={svg}
    {width}
    {height}
    role="group"
    aria-label="Plan drawing, seen from above"
    onpointermove={drag}
    onpointerup={release}
    onpointercancel={release}
    onwheel={wheel}
  >
    <defs>
      <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line y2="7" stroke="var(--hair)" stroke-width="1.2" />
      </pattern>
      <marker
        id="arrow"
        viewBox="0 0 8 6"
        refX="8"
        refY="3"
        markerWidth="8"
        markerHeight="6"
        orient="auto-start-reverse"
      >
        <path d="M0 0l8 3-8 3z" fill="var(--ink)" />
      </marker>
    </defs>
    {#each gridX as x, i (i)}<line class="hair" x1={to.x(x)} x2={to.x(x)} y1="0" y2={height} />{/each}
    {#each gridY as y, i (i)}<line class="hair" x1="0" x2={width} y1={to.y(y)} y2={to.y(y)} />{/each}
    <text class="second" x="6" y="14"
      >squares of {write(grid >= 1000 ? grid / 1000 : grid, grid >= 1000 ? 'm' : 'mm')}</text
    >

    {#each swept as pose, n (n)}<path class="swept" d={wedge(to, pose.x, pose.pan, fov, reach)} />{/each}
    <path
      class="view first"
      d={wedge(to, keys[0]!.slide_mm * slope, swept[0]?.pan ?? keys[0]!.pan_deg, fov, reach)}
    />
    <path
      class="view last"
      d={wedge(to, keys.at(-1)!.slide_mm * slope, swept.at(-1)?.pan ?? keys.at(-1)!.pan_deg, fov, reach)}
    />
    {#if now}<path class="view now" d={wedge(to, now.x, now.pan, fov, reach)} />{/if}

    {#if move.follow && placed.some((one) => one.index === move.follow?.mark)}
      {@const mark = move.marks[move.follow.mark]!}
      {#each keys as key, n (n)}
        <line
          class="sight"
          x1={to.x(key.slide_mm * slope)}
          y1={to.y(0)}
          x2={to.x(mark.x_mm)}
          y2={to.y(mark.y_mm)}
        />
      {/each}
    {/if}

    {#if slides}<g class="rail">
        <rect
          x={to.x(rail.low * slope) - 12}
          width={to.x(rail.high * slope) - to.x(rail.low * slope) + 24}
          y={to.y(0) - 6}
          height="12"
        />
        {#each range(rail.low, rail.high, grid >= 2000 ? 1000 : 100) as mm, i (i)}
          <line x1={to.x(mm * slope)} x2={to.x(mm * slope)} y1={to.y(0) - 6} y2={to.y(0) - 1} />
        {/each}
        <line x1={to.x(rail.low * slope)} x2={to.x(rail.low * slope)} y1={to.y(0) - 10} y2={to.y(0) + 10} />
        <line x1={to.x(rail.high * slope)} x2={to.x(rail.high * slope)} y1={to.y(0) - 10} y2={to.y(0) + 10} />
      </g>{/if}
    {#if now}<rect class="carriage" x={to.x(now.x) - 8} y={to.y(0) - 8} width="16" height="16" />{/if}

    {#each here as one (one.index)}
      {@const x = to.x(one.mark.x_mm)}
      {@const y = to.y(one.mark.y_mm)}
      {@const half = wide(one.index)}
      <g
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="{one.mark.name}, away from the rail"
        aria-valuenow={one.mark.y_mm}
        aria-valuetext="{write(one.mark.x_mm, 'mm')} along, {write(one.mark.y_mm, 'mm')} away"
        onpointerdown={(event) => grab(event, { kind: 'mark', index: one.index })}
        onkeydown={(event) => keysOn(event, { kind: 'mark', index: one.index })}
      >
        <circle class="reach" cx={x} cy={y} r="20" />
        {#if one.mark.form === 'block'}
          <rect
            class="peg block"
            x={x - half}
            y={y - Math.max(6, one.mark.depth_mm * to.mm)}
            width={half * 2}
            height={Math.max(6, one.mark.depth_mm * to.mm)}
          />
        {:else if one.mark.form === 'person'}
          <circle class="peg" cx={x} cy={y} r="6" /><path class="peg" d="M{x - 11} {y + 7}q11 -9 22 0" />
        {:else}
          <circle class="peg" cx={x} cy={y} r={one.mark.form === 'point' ? 9 : Math.min(half, 40)} />
          <circle class="dot" cx={x} cy={y} r="2.5" />
        {/if}
      </g>
      <text class="bold halo" x={x + Math.min(half, 40) + 6} y={y - 2}>{one.mark.name}</text>
      <text class="second halo" x={x + Math.min(half, 40) + 6} y={y + 12}
        >{number(one.mark.y_mm / 1000, 3)} m off the rail{move.follow?.mark === one.index
          ? ', followed'
          : ''}</text
      >
    {/each}
    {#each distant as one (one.index)}
      {@const right = one.at[0] > width * 0.72}
      <g
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="{one.mark.name}, beyond the drawing"
        aria-valuenow={one.mark.form === 'bearing' ? one.mark.bearing_deg : one.mark.y_mm}
        aria-valuetext={one.mark.form === 'bearing'
          ? `bearing ${write(one.mark.bearing_deg, 'deg')}`
          : `${write(one.mark.x_mm, 'mm')} along, ${write(one.mark.y_mm, 'mm')} away`}
        onpointerdown={(event) =>
          one.mark.form === 'bearing' && grab(event, { kind: 'mark', index: one.index })}
        onkeydown={(event) => keysOn(event, { kind: 'mark', index: one.index })}
      >
        <circle class="reach" cx={one.at[0]} cy={one.at[1]} r="14" />
        <path
          class="far"
          d="M0 -9l5 9h-10z"
          transform="translate({one.at[0]} {one.at[1]}) rotate({one.at[2]})"
        />
      </g>
      <text
        class="second halo"
        x={one.at[0] + (right ? -9 : 9)}
        y={one.at[1] + 13 + one.row * 12}
        text-anchor={right ? 'end' : 'start'}
        >{one.mark.name}{one.mark.form === 'bearing' ? '' : `, ${number(one.mark.y_mm / 1000, 2)} m`}</text
      >
    {/each}

    {#each keys as key, n (n)}
      {@const x = to.x(key.slide_mm * slope)}
      {@const tip = ahead(
        key.slide_mm * slope,
        led ? (poseAt(sheet.evaluation, view?.keyframes[n] ?? 0)?.pan ?? 0) : key.pan_deg,
        grip * (1 - 0.11 * (n % 4))
      )}
      {@const y = to.y(0) + (rows[n] ?? 0) * 27}
      {@const outer = n === 0 || n === keys.length - 1}
      <line class="axis" class:inner={!outer} x1={x} y1={to.y(0)} x2={to.x(tip[0])} y2={to.y(tip[1])} />
      {#if turns && !led}<g
          class="handle"
          role="slider"
          tabindex="0"
          aria-label="Pan at keyframe {n + 1}"
          aria-valuenow={key.pan_deg}
          aria-valuemin={head.low}
          aria-valuemax={head.high}
          aria-valuetext={write(key.pan_deg, 'deg')}
          onpointerdown={(event) => grab(event, { kind: 'pan', key: n })}
          onkeydown={(event) => keysOn(event, { kind: 'pan', key: n })}
        >
          <circle class="reach" cx={to.x(tip[0])} cy={to.y(tip[1])} r="20" />
          <circle class="knob" cx={to.x(tip[0])} cy={to.y(tip[1])} r={outer ? 7 : 5} />
        </g>
        {@const left = n === 0 && keys.at(-1)!.pan_deg < key.pan_deg && keys.at(-1)!.slide_mm > key.slide_mm}
        <text
          class="small halo"
          x={to.x(tip[0]) + (left ? -11 : 11)}
          y={to.y(tip[1]) + 4}
          text-anchor={left ? 'end' : 'start'}
          >{n + 1}{outer ? ` ${write(Number(key.pan_deg.toFixed(1)), 'deg')}` : ''}</text
        >{/if}
      {#if slides}<g
          class="handle"
          role="slider"
          tabindex="0"
          aria-label="Slide at keyframe {n + 1}"
          aria-valuenow={key.slide_mm}
          aria-valuemin={rail.low}
          aria-valuemax={rail.high}
          aria-valuetext={write(key.slide_mm, 'mm')}
          onpointerdown={(event) => grab(event, { kind: 'carriage', key: n })}
          onkeydown={(event) => keysOn(event, { kind: 'carriage', key: n })}
        >
          <rect class="reach" x={x - 22} y={y - 22} width="44" height="44" />
          <rect class="box" x={x - THUMB} y={y - THUMB} width={THUMB * 2} height={THUMB * 2} />
          <text class="bold" {x} y={y + 4.5} text-anchor="middle">{n + 1}</text>
        </g>{/if}
    {/each}

    {#if slides}
      {@const places = keys.map((key) => key.slide_mm * slope)}
      {@const a = to.x(Math.min(...places))}
      {@const b = to.x(Math.max(...places))}
      {@const y = to.y(0) + PAD + Math.max(0, ...rows) * 27}
      <line class="dimension" x1={a} x2={a} y1={y - 14} y2={y + 6} />
      <line class="dimension" x1={b} x2={b} y1={y - 14} y2={y + 6} />
      {#if b - a > 100}
        <line class="dimension" x1={(a + b) / 2 - 38} x2={a} y1={y} y2={y} marker-end="url(#arrow)" />
        <line class="dimension" x1={(a + b) / 2 + 38} x2={b} y1={y} y2={y} marker-end="url(#arrow)" />
      {/if}
      <text class="big" x={(a + b) / 2} y={y + 5} text-anchor="middle"
        >{write(
          Math.max(...keys.map((key) => key.slide_mm)) - Math.min(...keys.map((key) => key.slide_mm)),
          'mm'
        )}</text
      >
      {#if quick && now}
        <text class="bold warn halo" x={to.x(rail.low * slope)} y={to.y(0) - 18}
          >{quick.severity === 'mind' ? 'Mind' : 'Note'}: quick at frame {quick.slots.frame?.value}</text
        >
      {/if}
    {/if}

    {#if sags && slides}
      {@const [a, b] = [to.x(rail.low * slope), to.x(rail.high * slope)]}
      <path class="sag" d="M{a} {to.y(0) + 8}Q{(a + b) / 2} {to.y(0) + 26} {b} {to.y(0) + 8}" />
    {/if}
    {#each suffers as one, n (n)}
      <text class="bold warn halo" x="6" y={height - 8 - 14 * (suffers.length - 1 - n)}
        >{one.snag.severity === 'stop' ? 'Stop' : 'Mind'}: {one.said}</text
      >
    {/each}

    <g class="compass" transform="translate({width - 46} {height - 46})">
      <g
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="Bearing square to the rail"
        aria-valuenow={normal ?? 0}
        aria-valuemin={0}
        aria-valuemax={360}
        aria-valuetext={normal === null || normal === undefined ? 'not known' : write(normal, 'deg')}
        onpointerdown={(event) => grab(event, { kind: 'north' })}
        onkeydown={(event) => keysOn(event, { kind: 'north' })}
      >
        <circle class="reach" r="36" />
        <circle class="rose" r="26" />
      </g>
      {#if normal !== null && normal !== undefined}
        <g transform="rotate({-normal})">
          <path class="needle" d="M0 -24l5 18h-10z" />
          <text y="-29" text-anchor="middle">N</text>
        </g>
        {#if sunPath}<path class="sunpath" d={sunPath} />{/if}
        {#if sun}
          {@const [sx, sy] = onCompass(sun.azimuth - normal, 26)}
          <circle class={sun.altitude > -0.9 ? 'sun' : 'sun down'} cx={sx} cy={sy} r="5" />
        {/if}
      {:else}<text class="second" y="4" text-anchor="middle">N ?</text>{/if}
    </g>
  </svg>
  <div class="zoom no-print">
    <button type="button" class="link" onclick={fit}>{zoom > 1.01 ? 'the rail' : 'all marks'}</button>
    <button type="button" aria-label="Zoom in" onclick={() => (zoom = Math.max(0.5, zoom / 1.4))}>+</button>
    <button type="button" aria-label="Zoom out" onclick={() => (zoom = Math.min(40, zoom * 1.4))}>−</button>
  </div>
</div>

<style>
  .plan {
    position: relative;
    overflow: hidden;
  }
  svg {
    display: block;
  }
  .hair {
    stroke: var(--hair);
    stroke-width: 1;
    opacity: 0.55;
  }
  .second {
    fill: var(--second);
  }
  .view {
    stroke: var(--second);
    stroke-width: 1;
    fill: none;
  }
  .view.first {
    fill: url(#hatch);
  }
  .view.now {
    fill: var(--wash2);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .sight {
    stroke: var(--ink);
    stroke-width: 1;
    stroke-dasharray: 2 4;
  }
  .axis {
    stroke: var(--ink);
    stroke-width: 1.2;
    stroke-dasharray: 7 4;
  }
  .rail rect {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .rail line {
    stroke: var(--ink);
  }
  .carriage,
  .dot {
    fill: var(--ink);
  }
  .handle {
    cursor: grab;
    touch-action: none;
  }
  .handle:active {
    cursor: grabbing;
  }
  .handle:focus-visible {
    outline: none;
  }
  .reach {
    fill: transparent;
  }
  .handle:focus-visible .reach {
    stroke: var(--ink);
    stroke-width: 2;
    stroke-dasharray: 3 2;
  }
  .box,
  .knob,
  .peg {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .handle:hover .box,
  .handle:hover .knob,
  .handle:hover .peg {
    fill: var(--hair);
  }
  .bold {
    font-weight: 650;
  }
  .halo {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  .big {
    font-size: 14px;
    font-weight: 650;
  }
  .dimension {
    stroke: var(--ink);
  }
  .swept {
    fill: var(--wash);
    opacity: 0.14;
  }
  .inner {
    opacity: 0.6;
  }
  .block {
    fill: var(--wash2);
  }
  .far {
    fill: var(--ink);
  }
  .small {
    font-size: 12px;
    font-weight: 600;
  }
  .warn {
    fill: var(--mind);
  }
  .sag {
    fill: none;
    stroke: var(--mind);
    stroke-width: 1.6;
    stroke-dasharray: 4 3;
  }
  .rose {
    fill: var(--sheet);
    stroke: var(--second);
  }
  .needle {
    fill: var(--ink);
  }
  .sunpath {
    fill: none;
    stroke: var(--ink);
    stroke-width: 4;
  }
  .sun {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .sun.down {
    fill: var(--ink);
  }
  .zoom {
    position: absolute;
    right: 6px;
    top: 2px;
    display: flex;
    gap: 4px;
    align-items: center;
    font-size: 13px;
  }
  .zoom button:not(.link) {
    width: 26px;
    height: 26px;
    border: 1px solid var(--hair);
    background: var(--sheet);
  }
  .zoom button:not(.link):hover {
    border-color: var(--ink);
  }
  @media (max-width: 760px) {
    .zoom button:not(.link) {
      width: 44px;
      height: 44px;
    }
  }
</style>

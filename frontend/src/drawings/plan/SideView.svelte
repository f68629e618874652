<script lang="ts">
  /** From the side, to scale: lens, tilt and what it sees upright, the ground, and how high the marks stand. */
  import { number, write } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { poseAt } from '../finder/pose';

  const sheet = theSheet();
  const HEIGHT = 118;
  const LENS_X = 92;
  let width = $state(560);
  let svg = $state<SVGSVGElement>();
  let held = $state<{ kind: Kind; index: number; merge: string } | null>(null);
  let frozen = $state(0);
  type Kind = 'tilt' | 'mark' | 'lens';

  const move = $derived(sheet.plan.move);
  const lens = $derived(sheet.plan.rig.standing?.lens_height_mm ?? 1500);
  const slope = $derived(sheet.plan.rig.standing?.slope_deg ?? 0);
  const fov = $derived(sheet.figure('view.upright')?.value ?? 38);
  const tilts = $derived(sheet.plan.rig.axes.find((axis) => axis.name === 'tilt'));
  const now = $derived(poseAt(sheet.evaluation, sheet.playhead.frame));
  const marks = $derived(
    move.marks
      .map((mark, index) => ({ mark, index }))
      .filter((one) => one.mark.form !== 'bearing' && one.mark.y_mm > 0)
  );
  // To the same scale both ways as far as the drawing is wide; what stands further off squeezes it.
  const natural = $derived(((width - LENS_X - 40) * (lens + 900)) / (HEIGHT - 22));
  const far = $derived(
    frozen || Math.max(natural, ...marks.map((one) => one.mark.y_mm * 1.12).filter((y) => y < natural * 3))
  );
  const high = $derived(
    Math.max(900, ...marks.filter((one) => one.mark.y_mm < far).map((one) => one.mark.z_mm * 1.2))
  );
  // Across and upwards alike; where the marks stand far off, heights are drawn larger so that they can be held.
  const px = $derived((width - LENS_X - 40) / far);
  const py = $derived((HEIGHT - 22) / (lens + high));
  const X = (mm: number) => LENS_X + mm * px;
  const Y = (mm: number) => HEIGHT - 16 - (mm + lens) * py;
  const exaggerated = $derived(py / px);
  const rays = $derived(
    [-fov / 2, 0, fov / 2].map((part) => Math.tan((((now?.tilt ?? 0) + part) * Math.PI) / 180) * far)
  );

  function grab(event: PointerEvent, kind: Kind, index: number) {
    if (event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    frozen = far;
    held = { kind, index, merge: `drag side ${kind} ${index} ${event.timeStamp}` };
    event.stopPropagation();
  }

  function drag(event: PointerEvent) {
    if (!held || !svg) return;
    const box = svg.getBoundingClientRect();
    const [x, y] = [
      (event.clientX - box.left - LENS_X) / px,
      (HEIGHT - 16 - (event.clientY - box.top)) / py - lens
    ];
    if (held.kind === 'lens') return raise(lens + y, held.merge);
    if (held.kind === 'mark')
      return void sheet.set(`move.marks.${held.index}.z_mm`, Math.round(Math.max(-lens, y)), held.merge);
    put(held.index, (Math.atan2(y, Math.max(x, 1)) * 180) / Math.PI, held.merge);
  }

  function raise(height: number, merge: string) {
    void sheet.set('rig.standing.lens_height_mm', Math.round(Math.max(50, height)), merge);
  }

  function put(index: number, tilt: number, merge: string) {
    const [low, high] = [Math.max(-90, tilts?.low ?? -90), Math.min(90, tilts?.high ?? 90)];
    const kept = Number(Math.min(high, Math.max(low, tilt)).toFixed(1));
    void sheet.set(`move.keyframes.${index}.tilt_deg`, kept, merge);
  }

  function keys(event: KeyboardEvent, kind: Kind, index: number) {
    const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    const factor = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    const merge = `key side ${kind} ${index}`;
    if (kind === 'lens') raise(lens + way * factor * 10, merge);
    else if (kind === 'tilt') put(index, move.keyframes[index]!.tilt_deg + way * factor * 0.5, merge);
    else {
      const z = Math.max(-lens, move.marks[index]!.z_mm + way * factor * 10);
      void sheet.set(`move.marks.${index}.z_mm`, Math.round(z), merge);
    }
  }

  const release = () => {
    held = null;
    frozen = 0;
  };
  const handles = $derived(tilts ? move.keyframes : move.keyframes.slice(0, 1));
  const knob = (tilt: number, n: number): [number, number] => {
    const at = far * (0.3 + 0.09 * n);
    return [X(at), Y(Math.tan((tilt * Math.PI) / 180) * at)];
  };
</script>

<div class="side" bind:clientWidth={width}>
  <svg
    bind:this={svg}
    {width}
    height={HEIGHT}
    role="group"
    aria-label="Side view"
    onpointermove={drag}
    onpointerup={release}
    onpointercancel={release}
  >
    <path class="seen" d="M{X(0)} {Y(0)}L{X(far)} {Y(rays[0]!)}V{Y(rays[2]!)}Z" />
    <line class="ground" x1="0" x2={width} y1={Y(-lens)} y2={Y(-lens)} />
    <line class="level" x1={X(0)} x2={width} y1={Y(0)} y2={Y(0)} />
    <line class="axis" x1={X(0)} y1={Y(0)} x2={X(far)} y2={Y(rays[1]!)} />
    {#each marks.filter((one) => one.mark.y_mm <= far * 1.02) as one (one.index)}
      {@const x = X(one.mark.y_mm)}
      <line class="stem" x1={x} x2={x} y1={Y(-lens)} y2={Y(one.mark.z_mm)} />
      <g
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="Height of {one.mark.name}"
        aria-valuenow={one.mark.z_mm}
        aria-valuetext="{write(one.mark.z_mm, 'mm')} above the lens"
        onpointerdown={(event) => grab(event, 'mark', one.index)}
        onkeydown={(event) => keys(event, 'mark', one.index)}
      >
        <circle class="reach" cx={x} cy={Y(one.mark.z_mm)} r="14" />
        <rect class="top" x={x - 5} y={Y(one.mark.z_mm) - 3} width="10" height="6" />
      </g>
      <text class="second halo" x={x + 7} y={Y(one.mark.z_mm) - 4}>{one.mark.name}</text>
    {/each}
    {#each handles as key, n (n)}
      {@const [x, y] = knob(key.tilt_deg, n)}
      <g
        class="handle"
        role="slider"
        tabindex="0"
        aria-label={tilts ? `Tilt at keyframe ${n + 1}` : 'Tilt of the camera'}
        aria-valuenow={key.tilt_deg}
        aria-valuetext={write(key.tilt_deg, 'deg')}
        onpointerdown={(event) => grab(event, 'tilt', n)}
        onkeydown={(event) => keys(event, 'tilt', n)}
      >
        <circle class="reach" cx={x} cy={y} r="16" />
        <circle class="knob" cx={x} cy={y} r="6" />
        {#if tilts}<text class="number" {x} y={y - 9} text-anchor="middle">{n + 1}</text>{/if}
      </g>
    {/each}
    <line class="mast" x1={X(0)} x2={X(0)} y1={Y(-lens)} y2={Y(0)} />
    <g
      class="handle"
      role="slider"
      tabindex="0"
      aria-label="Height of the lens"
      aria-valuenow={lens}
      aria-valuetext={write(lens, 'mm')}
      onpointerdown={(event) => grab(event, 'lens', 0)}
      onkeydown={(event) => keys(event, 'lens', 0)}
    >
      <circle class="reach" cx={X(0)} cy={Y(0)} r="16" />
      <rect class="camera" x={X(0) - 9} y={Y(0) - 5} width="13" height="10" />
    </g>
    <text x="6" y={Y(0) + 4}>{write(lens, 'mm')}</text>
    <text class="second" x="6" y={Y(0) + 17}>lens height</text>
    {#if slope}
      <text class="second" x="6" y="12">rail rises {write(slope, 'deg')}</text>
    {/if}
    <text class="second" x={width - 6} y={HEIGHT - 3} text-anchor="end"
      >{write(far / 1000, 'm')} across{exaggerated > 1.15 || exaggerated < 0.87
        ? `, heights ${number(exaggerated, 2)} × theirs`
        : ''}</text
    >
  </svg>
</div>

<style>
  .side {
    overflow: hidden;
    border-top: 1px solid var(--hair);
  }
  svg {
    display: block;
  }
  .seen {
    fill: var(--wash);
  }
  .ground {
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .level {
    stroke: var(--second);
    stroke-dasharray: 1.5 3.5;
  }
  .axis {
    stroke: var(--ink);
    stroke-dasharray: 7 4;
  }
  .stem,
  .mast {
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .camera,
  .top {
    fill: var(--ink);
  }
  .second {
    fill: var(--second);
  }
  .halo {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3px;
  }
  .number {
    font-weight: 650;
    font-size: 11px;
  }
  .handle {
    cursor: ns-resize;
    touch-action: none;
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
  .knob {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.8;
  }
</style>

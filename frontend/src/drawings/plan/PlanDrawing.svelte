<script lang="ts">
  /**
   * Seen from above, to scale: rail, carriage at each keyframe, what the lens sees and sweeps, the marks, north and the
   * sun. Everything that can be grasped is dragged, or moved with the arrow keys.
   */
  import { write } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Compass from './Compass.svelte';
  import { multiples, wedge } from './geometry';
  import type { JogRig } from '../../sheet/jog.svelte';
  import RigGhost from './RigGhost.svelte';
  import Rail from './Rail.svelte';
  import Standing from './Standing.svelte';
  import { PlanView } from './state.svelte';

  interface Props {
    height?: number;
    /** The rig on its controller, to be pulled along. */
    rig?: JogRig;
  }
  let { height = 400, rig }: Props = $props();

  const view = new PlanView(theSheet());
  $effect.pre(() => {
    view.height = height;
  });
  const to = $derived(view.to);
  const keys = $derived(view.keys);
  const base = $derived(to.y(0));
  const ends = $derived([to.x(view.rail.low * view.slope), to.x(view.rail.high * view.slope)] as const);
  const followed = $derived(view.placed.find(({ index }) => index === view.move.follow?.mark)?.mark);

  function wheel(event: WheelEvent) {
    event.preventDefault();
    view.zoomBy(Math.exp(event.deltaY * 0.0015));
  }
  const seenFrom = (n: 0 | -1) =>
    wedge(
      to,
      view.along(n === 0 ? 0 : keys.length - 1),
      view.swept.at(n)?.pan ?? keys.at(n)!.pan_deg,
      view.viewOf(view.swept.at(n)),
      view.reach
    );
</script>

<div class="relative overflow-hidden" bind:clientWidth={view.page}>
  <svg
    class="block"
    width={view.width}
    {height}
    role="group"
    aria-label="Plan drawing, seen from above"
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
    <g class="stroke-hair opacity-55">
      {#each view.gridX as x, i (i)}<line x1={to.x(x)} x2={to.x(x)} y1="0" y2={height} />{/each}
      {#each view.gridY as y, i (i)}<line x1="0" x2={view.width} y1={to.y(y)} y2={to.y(y)} />{/each}
    </g>
    <text class="fill-second" x="6" y="14"
      >squares of {view.grid >= 1000 ? write(view.grid / 1000, 'm') : write(view.grid, 'mm')}</text
    >

    {#each view.swept as pose, n (n)}
      <path class="fill-wash opacity-[0.14]" d={wedge(to, pose.x, pose.pan, view.viewOf(pose), view.reach)} />
    {/each}
    <path class="first stroke-second" d={seenFrom(0)} />
    <path class="fill-none stroke-second" d={seenFrom(-1)} />
    {#if view.now}
      <path
        class="fill-wash2 stroke-ink stroke-[1.6]"
        d={wedge(to, view.now.x, view.now.pan, view.viewOf(view.now), view.reach)}
      />
    {/if}
    {#if followed}
      {#each view.stands as x, n (n)}
        <line
          class="stroke-ink"
          stroke-dasharray="2 4"
          x1={x}
          y1={base}
          x2={to.x(followed.x_mm)}
          y2={to.y(followed.y_mm)}
        />
      {/each}
    {/if}

    {#if view.slides}
      <g class="stroke-ink">
        <rect
          class="fill-sheet stroke-[1.6]"
          x={ends[0] - 12}
          width={ends[1] - ends[0] + 24}
          y={base - 6}
          height="12"
        />
        {#each multiples(view.rail.low, view.rail.high, view.grid >= 2000 ? 1000 : 100) as mm, i (i)}
          <line x1={to.x(mm * view.slope)} x2={to.x(mm * view.slope)} y1={base - 6} y2={base - 1} />
        {/each}
        {#each ends as x, i (i)}<line x1={x} x2={x} y1={base - 10} y2={base + 10} />{/each}
      </g>
    {/if}
    {#if view.now}
      <rect class="fill-ink" x={to.x(view.now.x) - 8} y={base - 8} width="16" height="16" />
    {/if}
    <Standing {view} />
    {#if rig}<RigGhost {view} {rig} />{/if}
    <Rail {view} />
    {#each view.suffers as { snag, said }, n (n)}
      <text class="halo fill-mind font-[650]" x="6" y={height - 8 - 14 * (view.suffers.length - 1 - n)}
        >{snag.severity === 'stop' ? 'Stop' : 'Mind'}: {said}</text
      >
    {/each}
    <Compass {view} />
  </svg>
  <div class="no-print absolute top-0.5 right-1.5 flex items-center gap-1 text-[13px]">
    <button type="button" class="link" onclick={() => view.fit()}
      >{view.zoom > 1.01 ? 'the rail' : 'all marks'}</button
    >
    <button type="button" class="small-key" aria-label="Zoom in" onclick={() => view.zoomBy(1 / 1.4)}
      >+</button
    >
    <button type="button" class="small-key" aria-label="Zoom out" onclick={() => view.zoomBy(1.4)}>−</button>
  </div>
</div>

<style>
  .first {
    fill: url(#hatch);
  }
</style>

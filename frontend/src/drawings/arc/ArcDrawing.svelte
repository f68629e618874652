<script lang="ts">
  /**
   * Once around the rig and as high as it looks, to scale: the horizon, the arc on which a leaned pan turns, and the
   * picture as it rolls on it. The lowest place of the arc is dragged to lean it.
   */
  import { write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { ArcState, MOST_LEAN } from './state.svelte';

  const arc = new ArcState(theSheet());
</script>

<div class="overflow-hidden" bind:clientWidth={arc.page}>
  <svg class="block" width={arc.width} height={arc.height + 16} role="group" aria-label="The arc of the pan">
    <line class="stroke-ink" x1="0" x2={arc.width} y1={arc.y(0)} y2={arc.y(0)} />
    <text class="halo fill-second stroke-3" x="2" y={arc.y(0) - 4}>horizon</text>
    {#each arc.pictures as { n, x, y, w, h, turned, now } (n)}
      <rect
        class={['stroke-ink', now ? 'fill-wash2 stroke-[1.6]' : 'fill-wash']}
        stroke-dasharray={now ? undefined : '2 3'}
        x={x - w / 2}
        y={y - h / 2}
        width={w}
        height={h}
        transform="rotate({turned} {x} {y})"
      />
    {/each}
    <path class="fill-none stroke-second" stroke-dasharray="1.5 3.5" d={arc.level} />
    <path class="fill-none stroke-ink stroke-2" d={arc.way} />
    {#each [-90, 0, 90] as turn (turn)}
      <text class="fill-second" x={arc.x(turn)} y={arc.height + 12} text-anchor="middle"
        >{write(turn, 'deg')}</text
      >
    {/each}
    <g
      class="handle cursor-move"
      role="slider"
      tabindex="0"
      aria-label="Lean of the pan"
      aria-valuenow={arc.lean}
      aria-valuemin={0}
      aria-valuemax={MOST_LEAN}
      aria-valuetext="{write(arc.lean, 'deg')} towards {write(arc.toward, 'deg')}"
      use:grasp={arc.grip()}
    >
      <circle class="reach" cx={arc.x(arc.toward)} cy={arc.y(-arc.lean)} r="20" />
      <circle class="knob" cx={arc.x(arc.toward)} cy={arc.y(-arc.lean)} r="6" />
    </g>
  </svg>
</div>

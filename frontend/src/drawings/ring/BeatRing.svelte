<script lang="ts">
  /** One interval as a turn of a ring, to scale. What does not fit runs past the start on a wider track. */
  import type { BeatState } from '../../api/client';
  import { number, say } from '../../format';
  import { arc, at } from './geometry';

  interface Props {
    beat: BeatState;
    spare: number;
    /** A part was taken hold of. */
    onpart: (name: string, at: Element) => void;
  }
  let { beat, spare, onpart }: Props = $props();

  const OUTER = 86;
  const INNER = 68;
  const OVER = 98;
  const WIRES = 56;
  const RADII = { outer: OUTER, inner: INNER, wires: WIRES } as const;
  const share = (seconds: number) => seconds / beat.interval_s;
  const parts = $derived(beat.parts.filter((part) => part.length_s > 0 && part.name !== 'spare'));
  const drawn = $derived(
    parts.flatMap((part) => {
      const radius = RADII[part.track];
      const from = share(part.start_s);
      const to = share(part.start_s + part.length_s);
      const own = { part: part.name, label: part.label, length: part.length_s };
      const inside = { ...own, name: part.name, path: arc(Math.min(from, 1), Math.min(to, 1), radius) };
      const past = {
        ...own,
        name: part.name === 'margin' ? 'over kept' : 'over',
        path: arc(Math.max(from, 1) - 1, Math.min(to, 1.96) - 1, OVER)
      };
      return to > 1 ? [inside, past] : [inside];
    })
  );
  const said = $derived(say(beat.interval_s, 's'));
  const short = (seconds: number) =>
    seconds < 60 ? `${number(seconds, 3)} s` : say(Math.round(seconds), 's');
  const ticks = Array.from({ length: 12 }, (_, i) => ({
    i,
    from: at(i / 12, 100),
    to: at(i / 12, i % 3 ? 104 : 108)
  }));
  const words = $derived(
    `One beat of ${say(beat.interval_s, 's')}: ` +
      parts.map((part) => `${part.label} ${say(part.length_s, 's')}`).join(', ') +
      (beat.over_s > 0 ? `. It is ${say(beat.over_s, 's')} over.` : `. ${say(spare, 's')} spare.`)
  );
</script>

<svg viewBox="-112 -112 224 224" role="group" aria-label={words}>
  <circle class="track" r={OUTER} />
  {#each ticks as tick (tick.i)}
    <line class="tick" x1={tick.from[0]} y1={tick.from[1]} x2={tick.to[0]} y2={tick.to[1]} />
  {/each}
  {#each drawn as part, i (i)}
    {#if part.path}
      <path class={part.name} d={part.path} />
      <path
        class="hold"
        d={part.path}
        role="button"
        tabindex={i === drawn.findIndex((one) => one.part === part.part) ? 0 : -1}
        aria-label="{part.label}, {say(part.length, 's')}. Take hold of it"
        onclick={(event) => onpart(part.part, event.currentTarget)}
        onkeydown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          event.stopPropagation();
          onpart(part.part, event.currentTarget);
        }}
      />
    {/if}
  {/each}
  <line class="start" x1="0" y1="-108" x2="0" y2="-58" />
  <!-- Long intervals are written smaller, so that they stay inside the ring. -->
  <text class="big" y="-2" text-anchor="middle" style:font-size="{Math.min(29, 230 / said.length)}px"
    >{said}</text
  >
  <text y="17" text-anchor="middle" class="second">one beat</text>
  {#if beat.over_s > 0}
    <text y="34" text-anchor="middle" class="overtext">{short(beat.over_s)} over</text>
  {:else}
    <text y="34" text-anchor="middle" class="bold">{short(spare)} spare</text>
  {/if}
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    max-width: 200px;
    margin: 0 auto;
  }
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 13;
  }
  path.hold {
    stroke: transparent;
    stroke-width: 20;
    cursor: pointer;
    outline: none;
  }
  path.hold:hover,
  path.hold:focus-visible {
    stroke: var(--wash2);
  }
  path.hold:focus-visible {
    stroke: color-mix(in srgb, var(--ink) 45%, transparent);
  }
  .process {
    stroke: var(--second);
  }
  .gap {
    stroke: var(--second);
    stroke-width: 3;
  }
  .track {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1;
  }
  .tick {
    stroke: var(--second);
    stroke-width: 1;
  }
  .start {
    stroke: var(--ink);
    stroke-width: 1.8;
  }
  .write {
    stroke: var(--tone);
  }
  .press,
  .half,
  .warm {
    stroke: var(--second);
    stroke-width: 5;
  }
  .wake,
  .call,
  .couple,
  .lag {
    stroke: var(--second);
    stroke-width: 7;
  }
  .move {
    stroke: var(--tone);
    stroke-width: 9;
  }
  .settle {
    stroke-width: 9;
  }
  .margin {
    stroke-width: 6;
    stroke-dasharray: 1.8 2.8;
  }
  .over {
    stroke: var(--stop);
    stroke-width: 8;
  }
  .over.kept {
    stroke-dasharray: 1.8 2.8;
  }
  .big {
    font-size: 29px;
    font-weight: 650;
    font-stretch: 100%;
  }
  .second {
    fill: var(--second);
  }
  .bold,
  .overtext {
    font-weight: 650;
  }
  .overtext {
    fill: var(--stop);
  }
</style>

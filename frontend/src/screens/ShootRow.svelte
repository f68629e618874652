<script lang="ts">
  /** A shoot as a line of the list: its span drawn small, its figures, its worst snag. */
  import Take from '../parts/Take.svelte';
  import type { ShootLine } from '../api/client';
  import SmallSpan from '../drawings/small/SmallSpan.svelte';
  import { clock, day, fill, number, oneEvery } from '../format';
  import Working from '../parts/Working.svelte';
  import { router } from '../router.svelte';

  interface Props {
    shoot: ShootLine;
    onduplicate: () => void;
    onbin: () => void;
  }
  let { shoot, onduplicate, onbin }: Props = $props();

  const figures = $derived(Object.fromEntries((shoot.figures ?? []).map((one) => [one.key, one])));
  const zone = $derived(shoot.zone ?? 'UTC');
  const WORDS: Record<string, string> = { stop: 'Stop', mind: 'Mind', note: 'Note' };
  const when = $derived.by(() => {
    if (!shoot.start) return '';
    const start = Date.parse(shoot.start) / 1000;
    const from = `${day(start, zone)}, ${clock(start, zone, false)}`;
    const until = shoot.shoot_s == null ? null : start + shoot.shoot_s;
    // An end on another day says which.
    const later = until !== null && day(until, zone) !== day(start, zone) ? `${day(until, zone)}, ` : '';
    const end = until === null ? '' : ` to ${later}${clock(until, zone, false)}`;
    return shoot.taken !== null && shoot.state === 'running'
      ? `${day(start, zone)}, ${number(shoot.taken, 12)} of ${number(shoot.frames ?? 0, 12)} frames`
      : from + end;
  });
  const rehearsed = $derived.by(() => {
    if (!shoot.rehearsed_at) return '';
    const at = Date.parse(shoot.rehearsed_at) / 1000;
    return `rehearsed ${day(at, zone)}, ${clock(at, zone, false)}${shoot.changed_since ? '; the plan has changed since' : ''}`;
  });
</script>

<div class="line">
  <a class="who" id="shoot-{shoot.id}" href="/shoots/{shoot.id}/clip" onclick={router.follow}>
    <b>{shoot.name}</b>
    <span class="label">{when}{shoot.place ? `, ${shoot.place}` : ''}</span>
  </a>
  <span class="drawn"
    ><SmallSpan traces={shoot.traces ?? {}} frames={shoot.frames ?? null} taken={shoot.taken} /></span
  >
  <span class="pace">
    {#if shoot.interval_s}
      <span class="every"
        >{oneEvery(figures['clip.interval'])} <Working figure={figures['clip.interval']} {zone} /></span
      >
      <span class="label"><Working figure={figures['clip.shoot']} {zone} /> on site</span>
    {:else if !shoot.broken && !shoot.stale}<b>interval open</b>{/if}
  </span>
  <span class="clip">
    {#if shoot.clip_s}
      <span class="length"><Working figure={figures['clip.clip']} {zone} /></span>
      <span class="label">of clip</span>
    {/if}
  </span>
  <span class="state {shoot.worst?.severity ?? ''}">
    {#if shoot.broken}
      <span data-broken>{shoot.broken}</span>
    {:else if shoot.stale}<span role="status"
        >{shoot.start ? 'being worked out anew' : 'being worked out'}</span
      >
    {:else if shoot.worst}
      <b>{WORDS[shoot.worst.severity]}</b>
      <span>{fill(shoot.worst.what, shoot.worst.slots, zone)}</span>
    {:else if shoot.state === 'running'}running
    {:else if !shoot.past && shoot.ready}{fill(shoot.ready.title, shoot.ready.slots ?? {}, zone)}{/if}
    {#if shoot.past && shoot.state !== 'running'}<span class="label"
        >past: its day has gone by, and it was not taken</span
      >{/if}
    {#if rehearsed}<span class="label">{rehearsed}</span>{/if}
  </span>
  <span class="does" class:open={!!shoot.broken}>
    {#if shoot.damaged}
      <a class="link" href="/files/rows/shoot/{shoot.id}.txt" download>take its text along</a>
    {:else if shoot.broken}
      <Take shoot={shoot.id} format="plan" label="take its plan along" />
    {:else}
      <button type="button" class="link" aria-label="Duplicate {shoot.name}" onclick={onduplicate}
        >duplicate</button
      >
    {/if}
    <button type="button" class="link" aria-label="{shoot.name} to the bin" onclick={onbin}>to the bin</button
    >
  </span>
</div>

<style>
  .line {
    position: relative;
    border-bottom: 1px solid var(--hair);
    display: grid;
    grid-template-columns: minmax(190px, 1.1fr) minmax(200px, 1.6fr) minmax(140px, 0.6fr) 96px minmax(
        150px,
        1fr
      );
    gap: 26px;
    align-items: center;
    padding: 9px 0 10px;
  }
  .line:hover {
    background: var(--wash);
  }
  .line > * > :global(*) {
    display: block;
  }
  /* The whole line opens the shoot; its figures and its doings lie above that. */
  .who::after {
    content: '';
    position: absolute;
    inset: 0;
  }
  .every,
  .length,
  .pace .label {
    display: flex;
    align-items: center;
    gap: 0.3em;
    position: relative;
    z-index: 1;
    width: max-content;
  }
  .who b {
    font-size: 18px;
    font-stretch: 104%;
    font-weight: 650;
  }
  .every {
    font-weight: 600;
    font-size: 13px;
  }
  .length {
    font-size: 21px;
    font-weight: 650;
    line-height: 1.2;
    white-space: nowrap;
  }
  .state {
    text-align: right;
    color: var(--second);
    font-size: 13px;
  }
  .state.stop,
  .state.mind,
  .state.note {
    color: var(--ink);
  }
  .state.stop b {
    color: var(--stop);
  }
  .state.mind b {
    color: var(--mind);
  }
  .does {
    z-index: 2;
    position: absolute;
    right: 0;
    bottom: 3px;
    display: flex;
    gap: 14px;
    font-size: 12px;
    opacity: 0;
    background: var(--sheet);
    padding-left: 10px;
  }
  .does button {
    min-height: 24px;
  }
  .line:hover .does,
  .line:focus-within .does {
    opacity: 1;
  }
  /* What cannot be read is told whole: what can be done about it stands below. */
  .does.open {
    position: relative;
    grid-column: 1 / -1;
    justify-self: end;
    margin-top: -18px;
    opacity: 1;
  }
  @media (hover: none) {
    .does {
      position: static;
      opacity: 1;
      padding: 0 0 8px;
    }
    .does button {
      min-height: 44px;
    }
  }
  @media (max-width: 1000px) {
    .line {
      grid-template-columns: 1fr auto;
      gap: 6px 16px;
    }
    .drawn {
      grid-column: 1 / -1;
      order: 3;
    }
    .pace {
      order: 4;
    }
    .clip {
      order: 2;
    }
    .state {
      order: 5;
    }
    .does {
      order: 6;
      grid-column: 1 / -1;
      position: relative;
      opacity: 1;
      padding: 0 0 8px;
    }
    .does button,
    .who {
      min-height: 44px;
    }
  }
</style>

<script lang="ts">
  /** The sky of any night over the place: what rises and sets, how dark it gets, and what is not to be had. */
  import { api, sentence } from '../../api/client';
  import type { components } from '../../api/schema';
  import SkyDrawing from '../../drawings/sky/SkyDrawing.svelte';
  import { clock, day as dayName, number, say } from '../../format';
  import { elapsedAt } from '../../sheet/series';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { toInstant, toLocal } from '../../time';
  import Where from './Where.svelte';

  const sheet = theSheet();
  type SkyDay = components['schemas']['SkyDay'];
  const DAY_S = 86_400;
  const place = $derived(sheet.plan.shoot.place!);
  const known = $derived(place.latitude_deg !== null && place.longitude_deg !== null);
  /** The night that the shoot begins in: before noon it belongs to the day before. */
  const own = $derived(toLocal(sheet.start - DAY_S / 2, sheet.zone).slice(0, 10));
  let by = $state(0);
  const date = $derived(toLocal(Date.parse(`${own}T12:00:00Z`) / 1000 + by * DAY_S, 'UTC').slice(0, 10));
  let told = $state.raw<SkyDay>();
  let trouble = $state('');
  let asked = 0;

  $effect(() => {
    if (!known) return;
    const mine = ++asked;
    const query = {
      latitude: place.latitude_deg!,
      longitude: place.longitude_deg!,
      zone: sheet.zone,
      day: date
    };
    api.GET('/api/sky', { params: { query } }).then(
      ({ data, error }) => {
        if (mine !== asked) return;
        told = data ?? told;
        trouble = data ? '' : sentence(error);
      },
      (error: unknown) => (trouble = sentence(error))
    );
  });

  const map = $derived(sheet.evaluation.traces?.map);
  const shoot = $derived<[number, number]>([
    sheet.start,
    sheet.start + elapsedAt(map, Math.max(0, (sheet.evaluation.frames ?? 1) - 1))
  ]);
  const now = $derived(sheet.start + elapsedAt(map, sheet.playhead.at));
  const written = $derived(dayName(Date.parse(`${date}T12:00:00Z`) / 1000, 'UTC', true));

  /** The shoot on this night, at the same hour of its clock. */
  function shootThen() {
    const held = toLocal(Date.parse(sheet.plan.shoot.clock.at) / 1000, sheet.zone);
    const moved = toLocal(Date.parse(`${held}:00Z`) / 1000 + by * DAY_S, 'UTC');
    const at = toInstant(moved, sheet.zone);
    if (at) void sheet.set('shoot.clock.at', at);
    by = 0;
  }
  const WAYS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'];
  const way = (degrees: number) => WAYS[Math.round(degrees / 45) % 8];
</script>

{#if !known}
  <div class="leaf"><Where /></div>
{:else}
  <div class="leaf sky">
    <p class="acts">
      <button type="button" class="small-key" aria-label="The night before" onclick={() => (by -= 1)}
        >‹</button
      >
      <button type="button" class="small-key" aria-label="The next night" onclick={() => (by += 1)}>›</button>
      <b>the night of {written}</b>
      {#if by}
        <button type="button" class="link" onclick={shootThen}>shoot on this night</button>
        <button type="button" class="link" onclick={() => (by = 0)}>back to the shoot’s own</button>
      {/if}
      <a class="link last" href="/files/shoots/{sheet.id}/calendar.ics" download
        >sun, moon and shoot as a calendar</a
      >
    </p>
    {#if trouble}<p role="alert">{trouble}</p>{/if}
    {#if told}
      <SkyDrawing day={told} zone={sheet.zone} {shoot} {now} />
      {#each told.words as words, n (n)}<p class="words">{words}</p>{/each}
      <p class="words">Moon: {told.phase}, {say(told.lit, 'share')} lit.</p>
      <ol>
        {#each told.events as event, n (n)}
          <li>
            <b>{clock(event.at, sheet.zone, false)}</b>
            {event.name}
            <span class="label">{number(event.azimuth_deg, 3)}° {way(event.azimuth_deg)}</span>
          </li>
        {/each}
      </ol>
    {:else}<p class="mono-note" role="status">Looking up the sky …</p>{/if}
  </div>
{/if}

<style>
  .acts {
    margin-bottom: 6px;
  }
  .last {
    margin-left: auto;
  }
  .words {
    font-size: 15px;
  }
  ol {
    columns: 3 200px;
    column-gap: 28px;
    margin-top: 8px;
    border-top: 1px solid var(--hair);
    padding-top: 6px;
  }
  li {
    line-height: 1.7;
    break-inside: avoid;
  }
</style>

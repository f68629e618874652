<script lang="ts">
  /** When somebody comes, with what, for what; and the wishes that are kept as far as they can be. */
  import DayField from '../../parts/DayField.svelte';
  import { number } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const visits = $derived(sheet.evaluation.season.visits ?? []);
  const visiting = $derived(sheet.plan.season!.visiting!);
  const LETTERS = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'];
  const NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
  const minutes = $derived(visiting.at_min ?? 600);
  const hour = $derived(`${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`);
  const camera = $derived(
    sheet.plan.kit?.copies?.some(({ card }) => card.kind === 'body' || card.kind === 'phone') ?? false
  );
  let adding = $state('');
  function arrange() {
    if (adding && !visiting.arranged?.includes(adding))
      sheet.put('season.visiting.arranged', [...(visiting.arranged ?? []), adding].sort());
    adding = '';
  }
  const days = (count: number) => `${number(count)} ${count === 1 ? 'day' : 'days'}`;
  const apart = $derived(
    visits.map((visit, n) => (n ? Math.round((visit.at_s - visits[n - 1]!.at_s) / 86_400) : null))
  );
</script>

<div class="cols">
  <div class="sheet">
    <h2 class="on-paper">{sheet.plan.shoot.name}: visits</h2>
    {#each visits as visit, n (visit.at_s)}
      <article>
        <h3>
          <span class="number">{n + 1}</span>
          {visit.said}
          {#if apart[n] !== null}<span class="label">{days(apart[n]!)} after the last</span>{/if}
        </h3>
        <p class="tasks">
          {#if visit.tasks.length}{visit.tasks.join(', ')}{:else}arranged; nothing is due{/if}{#if visit.off_wish}<span
              class="mind"
            >
              · not on a day that was wished</span
            >{/if}{#if visit.late.length}<span class="stop">
              · too late for: {visit.late.join(', ')}</span
            >{/if}
        </p>
        <p class="label">
          {visit.opens_box ? 'The box is opened.' : ''}
          {visit.camera_out ? 'The camera comes out: reference frames of its own, before and after.' : ''}
        </p>
        {#if visit.entries?.length}
          <p class="entries">
            {#each visit.entries as entry (entry.name)}<span
                ><span class="label">{entry.name}</span> {entry.value}</span
              >{/each}
          </p>
        {/if}
        <div class="lists">
          {#if visit.brings.length}
            <div>
              <b>bring</b>
              <ul>
                {#each visit.brings as thing (thing)}<li>{thing}</li>{/each}
              </ul>
            </div>
          {/if}
          <div>
            <b>look at</b>
            <ul>
              {#each visit.checks as thing (thing)}<li>{thing}</li>{/each}
            </ul>
          </div>
        </div>
      </article>
    {:else}
      <p class="mono-note">
        Nobody has to come: nothing fills up or runs out in this time, and nothing is to be done every so
        often.
      </p>
    {/each}
    {#if visits.length}
      <p class="caution">
        Height and masts are for those trained on them, with a second tether, tools on lanyards, not alone and
        not in wind. Permission of the owner, and what the place asks for people who are filmed, go along on
        paper.
      </p>
    {/if}
  </div>
  <div class="no-print">
    <Rows>
      <FigureRow label="visits" figure="season.visits" />
      <Row label="at"
        ><Editable path="season.visiting.at_min" label="hour of a visit" unit="" shown={hour} /></Row
      >
      <Row label="it takes" path="season.visiting.takes_s" unit="s" />
    </Rows>
    <p class="label">days that suit</p>
    <p class="days" role="group" aria-label="days that suit for a visit">
      {#each LETTERS as letters, day (day)}
        <button
          type="button"
          aria-pressed={(visiting.weekdays ?? []).includes(day)}
          aria-label="{letters}, {NAMES[day]}"
          onclick={() => void sheet.change([{ do: 'weekday', path: 'season.visiting.weekdays', day }])}
          >{letters}</button
        >
      {/each}
    </p>
    <Tick checked={visiting.by_day ?? true} onchange={(on) => sheet.put('season.visiting.by_day', on)}
      >only by daylight</Tick
    >
    <h3>Every so often</h3>
    <Rows>
      <Row label="clean the glass every"
        ><Editable
          path="season.visiting.clean_days"
          label="days between cleanings"
          unit="days"
          empty="never"
          min={1}
        /></Row
      >
      {#if sheet.plan.trigger?.look}
        <Row label="the frames are looked at">from afar</Row>
      {:else}
        <Row label="days of frames that may be lost"
          ><Editable
            path="season.visiting.may_lose_days"
            label="days of frames that may be lost"
            unit="days"
            empty="any"
            min={1}
          /></Row
        >
      {/if}
      <FigureRow label="its clock is off at the end by" figure="season.drift" />
      {#if sheet.figure('season.drift')}
        <Row label="it may be off by" path="season.visiting.clock_off_s" unit="s" />
      {/if}
    </Rows>
    {#if sheet.evaluation.season.fed_by === 'battery'}
      <Tick
        checked={visiting.swaps_battery ?? true}
        onchange={(on) => sheet.put('season.visiting.swaps_battery', on)}
        >the battery is swapped at visits</Tick
      >
    {/if}
    {#if camera}
      <Tick
        checked={visiting.camera_out ?? false}
        onchange={(on) => sheet.put('season.visiting.camera_out', on)}
        >the camera has to come out for card or battery</Tick
      >
    {/if}
    <h3>Arranged anyhow</h3>
    {#each visiting.arranged ?? [] as day, n (day)}
      <p class="arranged">
        {day}
        <button
          type="button"
          class="link"
          aria-label="take it out: the visit of {day}"
          onclick={() => sheet.drop(`season.visiting.arranged.${n}`)}>take it out</button
        >
      </p>
    {/each}
    <p class="arranged">
      <DayField
        label="day of an arranged visit"
        value={adding}
        onday={(day) => (adding = day ?? '')}
        optional
      />
      <button type="button" class="act quiet small" disabled={!adding} onclick={arrange}>Arrange it</button>
    </p>
    {#if visits.length}<p>
        <button type="button" class="act small" onclick={() => print()}>Print the visits</button>
      </p>{/if}
  </div>
</div>

<style>
  button.link {
    min-height: 24px;
    padding: 2px 0;
  }
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1.4fr) minmax(280px, 0.6fr);
    gap: 0 28px;
  }
  article {
    border-top: 1px solid var(--ink);
    padding: 6px 0 10px;
    break-inside: avoid;
  }
  .number {
    display: inline-block;
    min-width: 1.6em;
    font-stretch: 85%;
    color: var(--second);
  }
  .tasks {
    font-size: 16px;
    font-weight: 550;
  }
  .entries {
    display: flex;
    flex-wrap: wrap;
    gap: 0 18px;
    margin: 2px 0;
  }
  .on-paper {
    display: none;
  }
  .lists {
    display: grid;
    grid-template-columns: 1fr 1.4fr;
    gap: 0 20px;
  }
  .lists ul {
    list-style: none;
  }
  .lists li {
    padding-left: 20px;
    text-indent: -20px;
  }
  .lists li::before {
    content: '';
    display: inline-block;
    width: 10px;
    height: 10px;
    margin-right: 10px;
    border: 1px solid var(--second);
  }
  .lists b {
    font-size: 12px;
    font-weight: 400;
    color: var(--second);
  }
  .mind {
    color: var(--mind);
  }
  .stop {
    color: var(--stop);
  }
  .caution {
    border-top: 1px solid var(--ink);
    padding-top: 8px;
    max-width: 74ch;
  }
  .days {
    display: flex;
    gap: 4px;
    margin: 2px 0 6px;
  }
  .days button {
    min-width: 32px;
    min-height: 26px;
    border: 1px solid var(--ink);
    font-size: 13px;
  }
  .days button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
  }
  .arranged {
    display: flex;
    gap: 10px;
    align-items: baseline;
    flex-wrap: wrap;
  }
  h3 {
    margin-top: 8px;
  }
  @media (max-width: 900px) {
    .cols,
    .lists {
      grid-template-columns: minmax(0, 1fr);
    }
    .days button {
      min-width: 44px;
      min-height: 44px;
    }
  }
  @media print {
    .on-paper {
      display: block;
      font-size: 21px;
      margin-bottom: 8px;
    }
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>

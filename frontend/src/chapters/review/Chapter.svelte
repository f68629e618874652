<script lang="ts">
  /** Before the start: every snag, the settings to dial in, the exports, and the field card. */
  import formats from '../../api/formats.json';
  import { router } from '../../router.svelte';
  import { CHAPTERS } from '../chapters';
  import { keyed } from '../../parts/keyed';
  import { clock, day, fill, oneEvery, write } from '../../format';
  import WayArrow from '../../parts/WayArrow.svelte';
  import SnagNote from '../../parts/SnagNote.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { TAKES } from '../../sheet/taken.svelte';

  const sheet = theSheet();
  const review = $derived(sheet.evaluation.review);
  const snags = $derived(sheet.evaluation.snags);
  const ready = $derived(review.ready);
  const NAMES = Object.fromEntries(CHAPTERS.map((one) => [one.key, one.label]));
  const when = $derived(`${day(sheet.start, sheet.zone, true)}, ${clock(sheet.start, sheet.zone, false)}`);
  const finish = $derived(sheet.figure('time.finish'));
  const clip = $derived(sheet.quantity('clip')?.value);
  const rate = $derived(sheet.quantity('rate')?.value);
  const old = $derived(
    sheet.taken
      .old(sheet.plan)
      .map(({ what, at }) => `the ${TAKES[what]} of ${day(at, sheet.zone)}, ${clock(at, sheet.zone, false)}`)
  );
  /** A list that is too long for the card stands on a second sheet of paper. */
  const two = $derived(review.sheets.some((one) => (one.number ?? 1) > 1));
  let waiting = $state('');

  /** What is downloaded or printed is what is kept, so everything is kept first. */
  async function take(what: 'plan' | 'frames' | 'card') {
    waiting = '';
    if (!(await sheet.settle())) {
      waiting = 'Not everything is saved yet, so this would be out of date. See beside undo what keeps it.';
      return;
    }
    sheet.taken.mark(what, sheet.plan);
    if (what === 'card') print();
    else location.assign(`/files/shoots/${sheet.id}/${formats[what].file}`);
  }
</script>

{#snippet sections(number: number)}
  <div class="sheets">
    {#each review.sheets.filter((one) => (one.number ?? 1) === number) as one, i (i)}
      <section class:wide={one.title === 'Pack'} class:list={number > 1}>
        <h3>{one.title}</h3>
        <dl>
          {#each one.settings as setting, j (j)}
            <div>
              <dt>{setting.label}</dt>
              <dd class:number={typeof setting.value.value === 'number'}>
                {#if setting.figure && typeof setting.value.value === 'number'}
                  <Working
                    figure={setting.figure}
                    shown={write(setting.value.value, setting.value.unit, sheet.zone)}
                  />
                {:else}
                  {typeof setting.value.value === 'string'
                    ? setting.value.value
                    : write(setting.value.value, setting.value.unit, sheet.zone)}
                {/if}{#if setting.arrow}<WayArrow way={setting.arrow} />{/if}
              </dd>
            </div>
          {/each}
        </dl>
      </section>
    {/each}
  </div>
{/snippet}

<section class="review">
  <div class="no-print findings">
    <h2>
      {#if ready}{fill(ready.title, ready.slots ?? {}, sheet.zone)}{/if}
    </h2>
    {#if ready?.stands === 'not ready' && snags[0]}
      <p class="first"><b>First:</b> {fill(snags[0].what, snags[0].slots, sheet.zone)}</p>
    {/if}
    {#if ready?.doubts?.length}
      <ul class="doubts">
        {#each ready.doubts as doubt (doubt.what)}
          <li>
            Nobody knows {doubt.what}: for that Bridle needs {doubt.lacks}.
            <a class="link" href="/shoots/{sheet.id}/{doubt.chapter}" onclick={router.follow}
              >Say it under {NAMES[doubt.chapter] ?? doubt.chapter}</a
            >
          </li>
        {/each}
      </ul>
    {/if}
    <div class="snags">
      {#each keyed(snags, (one) => one.code + one.path) as { key, it: snag } (key)}
        <SnagNote {snag} full />
      {/each}
    </div>
    {#if ready?.checked}<p class="mono-note">{ready.checked}</p>{/if}
    <h3>Take along</h3>
    <div class="takes">
      <button type="button" class="act" onclick={() => void take('card')}>Print the field card</button>
      <button
        type="button"
        class="act quiet"
        disabled={!sheet.evaluation.frames}
        onclick={() => void take('frames')}>Frame table, CSV</button
      >
      <button type="button" class="act quiet" onclick={() => void take('plan')}>Plan, JSON</button>
    </div>
    {#if old.length}<p role="status" class="old">
        <b>Out of date:</b>
        {old.join('; ')}. The plan has changed since {old.length === 1 ? 'it was' : 'they were'} taken along.
      </p>{/if}
    {#if waiting}<p role="alert" class="waiting">{waiting}</p>{/if}
    <p class="mono-note">
      The table has a line a frame with its clock time, every axis and the exposure. The plan can be opened
      again from the list of shoots, and read by the command line.
    </p>
  </div>

  <article class="card" aria-label="Field card">
    <header>
      <h2>{sheet.plan.shoot.name}</h2>
      <p>{[sheet.plan.shoot.place.name, when, sheet.plan.shoot.subject].filter(Boolean).join(' · ')}</p>
      {#if two}<p class="only-print">Sheet 1 of 2</p>{/if}
    </header>
    {#if sheet.evaluation.frames && clip && rate}
      <p class="line">
        {write(sheet.evaluation.frames, 'frames')}, {oneEvery(sheet.figure('clip.interval'))}
        {write(sheet.evaluation.interval_s ?? 0, 's')}{finish
          ? `, finished ${write(finish.value, finish.unit, sheet.zone)}`
          : ''}. {write(clip, 's')} of clip at {write(rate, 'rate')}.
      </p>
    {/if}
    {@render sections(1)}
    {#if snags.length}
      <section class="only-print">
        <h3>Open snags</h3>
        {#each snags as snag, i (i)}<p>{fill(snag.what, snag.slots, sheet.zone)}</p>{/each}
      </section>
    {/if}
    <section class="cautions">
      <h3>Take care</h3>
      {#each review.cautions as caution, i (i)}<p>{caution}</p>{/each}
    </section>
    {#if sheet.evaluation.printing.turns?.length}
      <section class="cautions">
        <h3>If the print does not simply go on</h3>
        {#each sheet.evaluation.printing.turns as turn (turn.when)}<p>
            <b>{turn.when}.</b>
            {turn.said}
          </p>{/each}
      </section>
    {/if}
    <section class="only-print ticks">
      <h3>At the start</h3>
      <p>
        {#if sheet.evaluation.drives.length}□ axes where they set off &nbsp;{/if} □ test exposure looked at &nbsp;
        □ card empty, battery full &nbsp; □ one frame fired as in the shoot
      </p>
      <p class="notes">Notes:</p>
    </section>
    {#if two}
      <div class="second">
        <header>
          <h2>{sheet.plan.shoot.name}</h2>
          <p>Sheet 2 of 2</p>
        </header>
        {@render sections(2)}
      </div>
    {/if}
  </article>
</section>

<style>
  .review {
    display: grid;
    grid-template-columns: minmax(0, 0.75fr) minmax(0, 1fr);
    gap: 30px;
    padding: 20px 24px 20px 30px;
  }
  .findings h2 {
    font-size: 19px;
  }
  .first {
    margin-top: 6px;
  }
  .doubts {
    margin: 8px 0 0;
    padding-left: 18px;
    list-style: '– ';
    font-size: 13px;
  }
  .snags {
    display: grid;
    gap: 14px;
    margin: 12px 0 18px;
  }
  .notes {
    border-bottom: 1px solid var(--ink);
  }
  h3 {
    border-top: 1px solid var(--ink);
    padding-top: 6px;
    margin-bottom: 4px;
  }
  .takes {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin: 8px 0;
  }
  .old {
    border-left: 4px double var(--mind);
    padding-left: 8px;
    margin-bottom: 8px;
  }
  .waiting {
    color: var(--stop);
    margin-bottom: 8px;
  }
  .card {
    border: 1px solid var(--ink);
    padding: 16px 18px;
    align-self: start;
  }
  .card header h2 {
    font-size: 19px;
  }
  .card header p {
    color: var(--second);
    font-size: 13px;
  }
  .line {
    font-weight: 600;
    margin: 8px 0 12px;
  }
  .sheets {
    columns: 2;
    column-gap: 24px;
  }
  .sheets section {
    break-inside: avoid;
    margin-bottom: 12px;
  }
  .sheets .list {
    break-inside: auto;
  }
  .second {
    border-top: 1px solid var(--ink);
    margin-top: 12px;
    padding-top: 10px;
  }
  .sheets .wide {
    column-span: all;
  }
  .wide dd {
    text-align: left;
    flex-grow: 1;
  }
  dl div {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    min-height: 24px;
    font-size: 13px;
    border-bottom: 1px solid var(--hair);
  }
  dt {
    flex: 0 0 auto;
    max-width: 62%;
    color: var(--second);
  }
  dd {
    text-align: right;
    text-wrap: balance;
    font-weight: 600;
  }
  .number {
    white-space: nowrap;
  }
  .cautions p {
    font-size: 13px;
    margin-bottom: 5px;
  }
  .only-print {
    display: none;
  }
  @media (max-width: 1000px) {
    .review {
      grid-template-columns: minmax(0, 1fr);
      padding: 16px;
    }
  }
  @media (max-width: 480px) {
    .sheets {
      columns: 1;
    }
    dl div {
      font-size: 16px;
      padding: 4px 0;
    }
    .takes .act {
      flex: 1 1 100%;
    }
  }
  @media print {
    .review {
      display: block;
      padding: 0;
    }
    .card {
      border: 0;
      padding: 0;
    }
    .only-print {
      display: block;
    }
    .second {
      break-before: page;
      border-top: 0;
      margin-top: 0;
    }
    .ticks p {
      margin-top: 5px;
    }
    .card header h2 {
      font-size: 24px;
    }
    .card :global(.figure) {
      min-height: 0;
    }
    .sheets section {
      margin: 2px 0 5px;
    }
    .line {
      margin: 4px 0 6px;
    }
    dl div,
    .ticks p {
      font-size: 12.8px;
      line-height: 1.1;
      min-height: 0;
      padding: 0.6px 0;
    }
    .cautions p {
      font-size: 11.8px;
      line-height: 1.15;
      padding: 0.5px 0;
    }
  }
</style>

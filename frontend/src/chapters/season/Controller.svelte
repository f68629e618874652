<script lang="ts">
  /** What the controller can be told of the windows: entries for each run, and what it takes besides. */
  import { number } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Take from '../../parts/Take.svelte';
  import Tick from '../../parts/Tick.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import PutOnPart from './PutOnPart.svelte';

  const sheet = theSheet();
  const season = $derived(sheet.evaluation.season);
  const telling = $derived(season.telling);
  const at = $derived(sheet.plan.kit?.copies?.findIndex(({ card }) => card.kind === 'trigger') ?? -1);
  const card = $derived.by(() => {
    const one = sheet.plan.kit?.copies?.[at]?.card;
    return one?.kind === 'trigger' ? one : null;
  });
  const path = $derived(`kit.copies.${at}.card`);
  const HOLDS = ['yes', 'no', 'not known'] as const;
  const DAYS = ['any weekdays', 'weekdays or weekends', 'every day alone'] as const;
  const NUMBERS = ['go on', 'start again', 'overwrite', 'not known'] as const;
  const options = <T extends string>(values: readonly T[]) =>
    values.map((value) => ({ value, label: value }));
</script>

{#if !card}
  <p class="mono-note">Nothing is on the rig yet that calls the frames.</p>
  <PutOnPart kinds={['trigger']} label="+ what calls the frames" />
{:else}
  <div class="cols">
    <div>
      {#if telling}
        {#each telling.menus as menu, n (n)}
          <article>
            <h3>{menu.said}</h3>
            <dl>
              {#each menu.entries as entry (entry.name)}
                <div>
                  <dt>{entry.name}</dt>
                  <dd>{entry.value}</dd>
                </div>
              {/each}
            </dl>
          </article>
        {/each}
        <div class="counts">
          <section>
            <h3>Taken besides: {number(sheet.figure('told.surplus')?.value ?? 0, 9)}</h3>
            {#each telling.surplus as one (one.reason)}
              <p>{number(one.frames, 9)} <span class="label">{one.reason}</span></p>
            {:else}<p class="label">none</p>{/each}
          </section>
          <section>
            <h3>Missed: {number(sheet.figure('told.missing')?.value ?? 0, 9)}</h3>
            {#each telling.missing as one (one.reason)}
              <p>{number(one.frames, 9)} <span class="label">{one.reason}</span></p>
            {:else}<p class="label">none</p>{/each}
          </section>
        </div>
        {#if telling.surplus.length || telling.missing.length}
          <p class="no-print"><Take shoot={sheet.id} format="told" /></p>
        {/if}
      {:else}
        <p>
          The {card.name} is told the windows as they are: it runs a program of its own, or one interval goes through
          day and night.
        </p>
      {/if}
    </div>
    <div class="no-print">
      <h3>{card.name}</h3>
      {#if card.schedule}
        <p class="label">it knows</p>
        <Choice
          label="days that it knows"
          options={options(DAYS)}
          value={card.schedule.days ?? 'any weekdays'}
          onchoose={(value) => sheet.put(`${path}.schedule.days`, value)}
          quiet
        />
        <Rows>
          <Row label="times from–to in a day" path="{path}.schedule.spans" min={1} />
          <Row label="in steps of" path="{path}.schedule.step_min" unit="min" min={1} />
        </Rows>
        <Tick
          checked={card.schedule.over_midnight ?? true}
          onchange={(on) => sheet.put(`${path}.schedule.over_midnight`, on)}>may close on the next day</Tick
        >
        <p class="label">follows the change of clocks</p>
        <Choice
          label="follows the change of clocks"
          options={options(HOLDS)}
          value={card.schedule.follows_change ?? 'not known'}
          onchoose={(value) => sheet.put(`${path}.schedule.follows_change`, value)}
          quiet
        />
        <p class="label">file numbers after a power cut</p>
        <Choice
          label="file numbers after a power cut"
          options={options(NUMBERS)}
          value={card.schedule.numbers ?? 'not known'}
          onchoose={(value) => sheet.put(`${path}.schedule.numbers`, value)}
          quiet
        />
        <Rows>
          <Row label="its clock is off by"
            ><Editable
              path="{path}.schedule.clock_ppm"
              label="its clock is off by"
              unit="ppm"
              empty="not known"
            /></Row
          >
          <FigureRow label="at the end, up to" figure="season.drift" />
          <Row label="coin cell lasts"
            ><Editable
              path="{path}.schedule.cell_months"
              label="coin cell lasts"
              unit="months"
              empty="not known"
            /></Row
          >
        </Rows>
        <button type="button" class="link" onclick={() => sheet.put(`${path}.schedule`, null)}
          >it has no hours at all</button
        >
      {:else}
        <p class="mono-note">It cannot be told hours and days, as far as its card says.</p>
        <button type="button" class="act quiet small" onclick={() => sheet.begin(`${path}.schedule`)}
          >It can be told hours and days</button
        >
      {/if}
      <Rows>
        <Row label="runs at most"
          ><Editable
            path="{path}.longest_run_s"
            label="longest run"
            unit="s"
            empty="as long as one likes"
            exactText
          /></Row
        >
        <FigureRow label="planned frames that are taken" figure="told.kept" />
      </Rows>
    </div>
  </div>
{/if}

<style>
  button.link {
    min-height: 24px;
    padding: 2px 0;
  }
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1.3fr) minmax(290px, 0.7fr);
    gap: 0 28px;
  }
  article {
    border-top: 1px solid var(--ink);
    padding: 6px 0 10px;
  }
  dl {
    display: grid;
    grid-template-columns: repeat(4, auto);
    justify-content: space-between;
    gap: 4px 26px;
  }
  dt {
    font-size: 12px;
    font-stretch: 88%;
    color: var(--second);
  }
  dd {
    font-size: 16px;
    font-weight: 550;
    max-width: 17ch;
  }
  .cols > div > h3 {
    margin-top: 8px;
  }
  .counts {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 24px;
    border-top: 1px solid var(--ink);
    padding-top: 6px;
  }
  @media (max-width: 900px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
    dl {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>

<script lang="ts">
  /** When frames are taken: rules as sentences, days off, and the season as cloth. */
  import DayField from '../../parts/DayField.svelte';
  import SeasonCloth from '../../drawings/season/SeasonCloth.svelte';
  import { number } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const season = $derived(sheet.evaluation.season);
  const windows = $derived(sheet.plan.frames?.source === 'windows' ? sheet.plan.frames : null);
  const LETTERS = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'];
  const NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

  const weekday = (rule: number, day: number) =>
    void sheet.change([{ do: 'weekday', path: `frames.rules.${rule}.weekdays`, day }]);
  function first(rule: number) {
    const rules = [...windows!.rules!];
    const [one] = rules.splice(rule, 1);
    sheet.put('frames.rules', [one!, ...rules]);
  }
  const turn = (day: string) => void sheet.change([{ do: 'day', day }]);
  const stretch = (number: number, end: 'first' | 'last', day: string) =>
    day && void sheet.change([{ do: 'stretch', number, end, day }]);
  const oneInterval = () => void sheet.change([{ do: 'changing', on: false }]);
</script>

{#if !windows || !season.scheduled}
  <p class="mono-note">
    This shoot takes its frames at one interval from its start to its finish. Work windows take them only at
    certain hours, on certain days: nothing at night, nothing on a Sunday.
  </p>
  <p>
    <button type="button" class="act" onclick={() => sheet.begin('frames')}
      >Let work windows call the frames</button
    >
  </p>
{:else}
  <div class="cols">
    <div>
      <SeasonCloth {season} onday={turn} />
      <p class="label keys">
        <span><i class="ink"></i>windows</span>
        {#if season.sun?.length}<span><i class="sun"></i>the sun is up</span>{/if}
        <span><i class="off"></i>days off: a day that is clicked is left out, or comes back</span>
      </p>
    </div>
    <div>
      <Rows>
        <Row label="one frame every"
          ><Editable
            path="clip.interval"
            label="one frame every"
            value={sheet.quantity('interval')?.value ?? null}
            unit="s"
            held={sheet.quantity('interval')?.held}
          /></Row
        >
        {#each [{ end: 'first', label: 'from', min: undefined, max: windows.last }, { end: 'last', label: 'to', min: windows.first, max: undefined }] as one (one.end)}
          <Row label={one.label}
            ><DayField
              label="{one.end} day"
              min={one.min}
              max={one.max}
              value={one.end === 'first' ? windows.first : windows.last}
              onday={(day) => sheet.put(`frames.${one.end}`, day)}
            /></Row
          >
        {/each}
      </Rows>
      {#each season.rules ?? [] as told, n (n)}
        {@const rule = windows.rules?.[n]}
        <section aria-label="rule {n + 1}">
          <h3>
            {#if (season.rules?.length ?? 0) > 1}<span class="label">{n + 1}</span>{/if}
            {told.said}
          </h3>
          <p class="days" role="group" aria-label="days on which rule {n + 1} opens">
            {#each LETTERS as letters, day (day)}
              {@const on = (rule?.weekdays ?? [0, 1, 2, 3, 4, 5, 6]).includes(day)}
              <button
                type="button"
                aria-pressed={on}
                aria-label="{letters}, {NAMES[day]}"
                onclick={() => weekday(n, day)}>{letters}</button
              >
            {/each}
          </p>
          <p class="hours">
            <Editable path="frames.rules.{n}.opens" label="rule {n + 1} opens" unit="" shown={told.opens} />
            <span class="label">to</span>
            <Editable
              path="frames.rules.{n}.closes"
              label="rule {n + 1} closes"
              unit=""
              shown={told.closes}
            />
            <select
              class="field"
              aria-label="day on which rule {n + 1} closes"
              value={String(rule?.closes_on ?? '')}
              onchange={(event) =>
                sheet.put(
                  `frames.rules.${n}.closes_on`,
                  event.currentTarget.value === '' ? null : Number(event.currentTarget.value)
                )}
            >
              <option value="">that day or night</option>
              {#each NAMES as name, day (day)}<option value={String(day)}>on {name}</option>{/each}
            </select>
          </p>
          <p class="hours">
            <span class="label">every</span>
            <Editable
              path="frames.rules.{n}.every_s"
              label="interval of rule {n + 1}"
              unit="s"
              exactText
              empty="as above"
            />
            <span class="label"
              >{number(told.frames, 9)} frames in {number(told.has_h)} h{told.claims_h - told.has_h > 0.01
                ? `, of ${number(told.claims_h)} h that it claims`
                : ''}</span
            >
            {#if n}<button type="button" class="link" onclick={() => first(n)}>put it first</button>{/if}
            {#if (season.rules?.length ?? 0) > 1}<button
                type="button"
                class="link"
                onclick={() => sheet.drop(`frames.rules.${n}`)}>take it out</button
              >{/if}
          </p>
        </section>
      {/each}
      {#if windows.off?.length}
        <section aria-label="days off">
          <h3>Days off</h3>
          {#each windows.off as one, n (n)}
            <p class="hours">
              <DayField
                label="first of days off {n + 1}"
                value={one.first}
                onday={(day) => day && stretch(n, 'first', day)}
              />
              <span class="label">to</span>
              <DayField
                label="last of days off {n + 1}"
                value={one.last}
                onday={(day) => day && stretch(n, 'last', day)}
              />
              <input
                class="field name"
                placeholder="why"
                maxlength="200"
                aria-label="why days off {n + 1}"
                value={one.name ?? ''}
                onchange={(event) => sheet.put(`frames.off.${n}.name`, event.currentTarget.value)}
              />
              <button
                type="button"
                class="link"
                aria-label="take them back: days off {n + 1}"
                onclick={() => sheet.drop(`frames.off.${n}`)}>take them back</button
              >
            </p>
          {/each}
        </section>
      {/if}
      <p class="acts">
        <button type="button" class="act quiet small" onclick={() => sheet.begin('frames.rules')}
          >+ a rule</button
        >
        <button type="button" class="act quiet small" onclick={() => sheet.begin('frames.off')}
          >+ days off</button
        >
        <button type="button" class="link" onclick={oneInterval}>one interval, day and night</button>
      </p>
      <Rows>
        <FigureRow label="windows, in all" figure="season.open" />
        <FigureRow label="frames of a day, at most" figure="season.most" />
        <FigureRow label="longest gap" figure="season.gap" />
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
    grid-template-columns: minmax(0, 1.15fr) minmax(300px, 0.85fr);
    gap: 0 28px;
  }
  section {
    border-top: 1px solid var(--hair);
    padding: 6px 0;
  }
  .days {
    display: flex;
    gap: 4px;
    margin: 4px 0;
  }
  .days button {
    min-width: 34px;
    min-height: 26px;
    border: 1px solid var(--ink);
    font-size: 13px;
  }
  .days button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
  }
  .hours,
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: baseline;
  }
  select {
    font: inherit;
    color: inherit;
    background: transparent;
  }
  select {
    width: auto;
  }
  .name {
    width: 11em;
  }
  .keys {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
  }
  .keys i {
    display: inline-block;
    width: 14px;
    height: 12px;
    margin-right: 6px;
    vertical-align: -2px;
    border: 1px solid var(--second);
  }
  .keys .ink {
    background: var(--ink);
  }
  .keys .sun {
    background: var(--wash);
  }
  .keys .off {
    background: repeating-linear-gradient(45deg, transparent 0 3px, var(--second) 3px 4px);
  }
  @media (max-width: 900px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
    .days button {
      min-width: 44px;
      min-height: 44px;
    }
    select {
      min-height: 44px;
    }
  }
</style>

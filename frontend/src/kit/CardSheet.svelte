<script lang="ts">
  /** The card in hand: every figure changed in place, how well each is known, and what follows from it. */
  import DayField from '../parts/DayField.svelte';
  import { date, write } from '../format';
  import { api, got, sentence, type CardThen } from '../api/client';
  import Editable from '../parts/Editable.svelte';
  import { router } from '../router.svelte';
  import Modal from '../parts/Modal.svelte';
  import { numberAt, valueAt } from '../parts/paths';
  import Working from '../parts/Working.svelte';
  import Earlier from '../screens/Earlier.svelte';
  import type { Desk } from './desk.svelte';
  import CardTable from './CardTable.svelte';
  import { DRIVES, groupsOf, KIND_NAMES, turnsLeft, WHOLE, type Field } from './fields';
  import HeadParts from './HeadParts.svelte';
  import MeasureSteps from './MeasureSteps.svelte';
  import Pins from './Pins.svelte';
  import { drivesPin } from './wired';

  interface Props {
    desk: Desk;
    /** The shoot from whose rig the card was taken up. */
    shoot?: number | undefined;
  }
  let { desk, shoot }: Props = $props();

  const line = $derived(desk.card);
  const card = $derived(line?.card);
  let measuring = $state('');
  let earlier = $state(false);
  let then = $state.raw<CardThen>();
  let opened = $state('');

  function known(field: Field) {
    const value = numberAt(card, field.path);
    const last = [...(card?.measured ?? [])].reverse().find((one) => one.field === field.path);
    return last && value !== null && Math.abs(last.value - value) < 1e-6 * Math.max(1, Math.abs(value))
      ? last
      : undefined;
  }
  const history = (field: Field) => card?.measured?.filter((one) => one.field === field.path) ?? [];
  const named = (of: string, field: Field) => (of && of !== WHOLE ? `${of}, ${field.label}` : field.label);
  const how = (field: Field, value: unknown) =>
    value === null ? 'not known' : line?.usual.includes(field.path) ? 'usual' : 'typed';
  const measureOf = (field: Field) => line?.measures.find((measure) => measure.field === field.path);

  async function load(before: number | null) {
    const params = { path: { card_id: desk.held ?? 0 }, query: before === null ? {} : { before } };
    return got(await api.GET('/api/kit/{card_id}/revisions', { params }));
  }

  async function look(version: number): Promise<CardThen | undefined> {
    const path = { card_id: desk.held ?? 0, version };
    try {
      return got(await api.GET('/api/kit/{card_id}/revisions/{version}', { params: { path } }));
    } catch (error) {
      desk.trouble = sentence(error);
      return undefined;
    }
  }

  async function back(version: number) {
    const found = await look(version);
    if (found && (await desk.replace(found.card))) earlier = false;
  }

  const choose = (path: string, value: unknown) =>
    void desk.change({ do: 'set', path, value: value as string | boolean });

  /** The further axes of a head, as they would be. */
  function heads(axes: unknown[]) {
    void desk.change({ do: 'set', path: 'more', value: axes as never });
  }

  function measure(path: string) {
    measuring = line?.measures.find((one) => one.field === path)?.key ?? '';
  }
</script>

{#if line && card}
  <article aria-label="Card {card.name}">
    <header>
      <p class="label">
        {KIND_NAMES[card.kind]}{#if shoot}{@const from = line.used_in.find((one) => one.id === shoot)}
          ·
          <a class="link" href="/shoots/{shoot}/rig" onclick={router.follow}
            >back to the rig{from ? ` of ${from.name}` : ''}</a
          >{/if}
      </p>
      <input
        class="field name"
        value={card.name}
        maxlength="120"
        aria-label="name of the card"
        onchange={(event) => void desk.type('name', event.currentTarget.value)}
      />
      {#if desk.troubles.get('name')}<p role="alert">{desk.troubles.get('name')}</p>{/if}
      <p class="tools">
        <span class="label" role="status">{desk.saved}</span>
        <button type="button" disabled={!desk.undos.length} onclick={desk.undo}>undo</button>
        <button type="button" disabled={!desk.redos.length} onclick={desk.redo}>redo</button>
        <button type="button" class="link" aria-label="earlier versions" onclick={() => (earlier = true)}
          >earlier</button
        >
        <button type="button" class="link" onclick={() => void desk.duplicate(line)}>duplicate</button>
        <button type="button" class="link" onclick={() => void desk.bin(line)}>to the bin</button>
        <button type="button" class="link" onclick={() => desk.hold(null)}>close</button>
      </p>
    </header>

    {#if line.measures.length}
      <section class="measures">
        <h3>Measure it <span class="label">better than any brochure</span></h3>
        <p class="keys">
          {#each line.measures as measure (measure.key)}
            <button
              type="button"
              aria-pressed={measuring === measure.key}
              onclick={() => (measuring = measuring === measure.key ? '' : measure.key)}
              >{measure.label}</button
            >
          {/each}
        </p>
        {#each line.measures.filter((measure) => measure.key === measuring) as one (`${line.id} ${one.key}`)}
          <MeasureSteps
            {card}
            measure={one}
            onkeep={(card) => desk.replace(card)}
            onclose={() => (measuring = '')}
          />
        {/each}
      </section>
    {/if}

    {#if line.figures.length}
      <dl class="made">
        {#each line.figures as figure (figure.key)}
          <div>
            <dt>{figure.label}</dt>
            <dd>
              <Working exact {figure} />
              {#if figure.key === 'card.usable' && card.kind === 'axis' && (card.low !== 0 || card.high !== figure.value)}
                <button type="button" class="link" onclick={() => void desk.change({ do: 'take-travel' })}
                  >take it as what it reaches</button
                >
              {/if}
            </dd>
          </div>
        {/each}
      </dl>
    {/if}

    {#each groupsOf(card) as group (group.title + (group.drive ?? ''))}
      {#if group.title}<h3>
          {group.title}
          {#if group.further !== undefined}
            <button
              type="button"
              class="link"
              onclick={() =>
                heads((card.kind === 'axis' ? (card.more ?? []) : []).filter((_, n) => n !== group.further))}
              >take this axis away</button
            >
          {/if}
        </h3>{/if}
      <table>
        <caption class="sr-only">Figures of the card</caption>
        <tbody>
          {#if group.drive}
            {@const path = `${group.drive}.kind`}
            <tr>
              <th scope="row">drive</th>
              <td colspan="2">
                <select
                  class="field"
                  aria-label={group.title ? `drive of the ${group.title}` : 'drive'}
                  value={String(valueAt(card, path))}
                  onchange={(event) => choose(path, event.currentTarget.value)}
                >
                  {#each Object.entries(DRIVES) as [kind, { name }] (kind)}<option value={kind}>{name}</option
                    >{/each}
                </select>
              </td>
            </tr>
          {/if}
          {#each group.fields as field (field.path)}
            {@const value = valueAt(card, field.path)}
            {@const last = known(field)}
            <tr>
              <th scope="row">{field.label}</th>
              <td>
                {#if field.choices}
                  <select
                    class="field"
                    aria-label={named(group.title, field)}
                    value={String(value)}
                    onchange={(event) => choose(field.path, event.currentTarget.value)}
                  >
                    {#each field.choices as choice (choice)}<option>{choice}</option>{/each}
                  </select>
                {:else if field.yes_no}
                  {@const unsure = line?.usual.includes(field.path)}
                  <select
                    class="field"
                    aria-label={named(group.title, field)}
                    value={unsure ? '' : String(value)}
                    onchange={(event) => choose(field.path, event.currentTarget.value === 'true')}
                  >
                    {#if unsure}<option value="">not checked yet</option>{/if}
                    <option value="true">{field.yes_no[0]}</option>
                    <option value="false">{field.yes_no[1]}</option>
                  </select>
                {:else if field.tick}
                  <input
                    type="checkbox"
                    aria-label={named(group.title, field)}
                    checked={value === true}
                    onchange={(event) => choose(field.path, event.currentTarget.checked)}
                  />
                {:else if field.day}
                  <DayField
                    label={named(group.title, field)}
                    value={value as string | null}
                    onday={(day) => choose(field.path, day)}
                    optional
                  />
                {:else if field.words}
                  <input
                    class="field"
                    maxlength="200"
                    aria-label={named(group.title, field)}
                    value={value ?? ''}
                    onchange={(event) => choose(field.path, event.currentTarget.value.trim())}
                  />
                {:else if field.commands}
                  <textarea
                    class="field commands"
                    rows={Math.max(1, (value as string[] | null)?.length ?? 1)}
                    spellcheck="false"
                    aria-label={named(group.title, field)}
                    value={((value as string[] | null) ?? []).join('\n')}
                    onchange={(event) =>
                      choose(
                        field.path,
                        event.currentTarget.value
                          .split('\n')
                          .map((one) => one.trim())
                          .filter(Boolean)
                      )}></textarea>
                {:else}
                  <Editable
                    path={field.path}
                    label={named(group.title, field)}
                    value={numberAt(card, field.path)}
                    unit={field.unit}
                    min={field.signed || /(^|\.)(low|high)$/.test(field.path) ? -1e6 : 0}
                    empty={field.empty}
                    exactText={typeof value === 'string'}
                  />
                {/if}
              </td>
              <td class="known">
                {#if last}
                  <button
                    type="button"
                    aria-expanded={opened === field.path}
                    onclick={() => (opened = opened === field.path ? '' : field.path)}
                    >± {write(last.spread, field.unit)}, {date(last.on)}</button
                  >
                {:else if measureOf(field)}
                  <button type="button" class="plain" onclick={() => measure(field.path)}
                    >{how(field, value)}; measure it</button
                  >
                {:else if !field.choices && !field.tick && !field.day && !field.commands && value !== null}<span
                    class="label">{how(field, value)}</span
                  >{/if}
              </td>
            </tr>
            {#if opened === field.path}
              {#each [...history(field)].reverse() as one, i (i)}
                <tr class="past">
                  <th scope="row">{date(one.on)}</th>
                  <td colspan="2"
                    >{write(one.value, field.unit)} ± {write(one.spread, field.unit)}, {one.readings.length}
                    {one.readings.length === 1 ? 'reading' : 'readings'}{one.note ? `; ${one.note}` : ''}</td
                  >
                </tr>
              {/each}
            {/if}
          {/each}
        </tbody>
      </table>
      {#each group.tables as table (table.path)}<CardTable {desk} {table} onmeasure={measure} />{/each}
    {/each}
    {#if card.kind === 'trigger' && drivesPin(card)}<Pins {desk} {card} />{/if}
    {#if card.kind === 'printer'}<HeadParts {desk} {card} />{/if}
    {#if card.kind === 'axis' && card.motion === 'rotary' && !['focus', 'zoom'].includes(card.turns ?? '')}
      <p class="acts">
        {#each turnsLeft(card) as turns (turns)}
          <button
            type="button"
            class="link"
            onclick={() => heads([...(card.more ?? []), { turns, drive: card.drive }])}
            >it can {turns} too</button
          >
        {/each}
      </p>
    {/if}
    <table>
      <caption class="sr-only">What else belongs to the card</caption>
      <tbody>
        {#if card.kind === 'axis' && card.motion === 'linear'}
          <tr>
            <th scope="row">rods, for the sag</th>
            <td colspan="2">
              <input
                type="checkbox"
                aria-label="rods, for the sag"
                checked={!!card.beam}
                onchange={(event) => choose('beam', event.currentTarget.checked ? {} : null)}
              />
            </td>
          </tr>
        {/if}
        <tr>
          <th scope="row">note</th>
          <td colspan="2">
            <input
              class="field"
              value={card.note}
              maxlength="400"
              aria-label="note"
              onchange={(event) => void desk.type('note', event.currentTarget.value)}
            />
          </td>
        </tr>
      </tbody>
    </table>
    <p class="label used">
      {#if line.used_in.length}In the plan of {#each line.used_in as one, n (one.id)}{n ? ', ' : ''}<a
            class="link"
            href="/shoots/{one.id}/rig"
            onclick={router.follow}>{one.name}</a
          >{/each}.{:else}In no plan yet.{/if}
      Plans keep their own copy; they offer what has changed here.
    </p>
  </article>
{/if}

<Modal bind:open={earlier} title="Earlier versions of this card" onclose={() => (then = undefined)}>
  <Earlier
    {load}
    looking={then?.version}
    onlook={(version) => void look(version).then((found) => (then = found))}
    onback={(version) => void back(version)}
  />
  {#if then}
    <div class="then" role="status">
      <b>{then.card.name}</b>
      <p class="label">Where it differs from the card as it is:</p>
      {#each then.differences as difference, i (i)}<p>{difference}</p>{/each}
      <dl class="made">
        {#each then.figures as one, i (i)}
          <div>
            <dt>{one.label}</dt>
            <dd><Working exact figure={one} /></dd>
          </div>
        {/each}
      </dl>
    </div>
  {/if}
</Modal>

<style>
  article {
    font-size: 13px;
  }
  header {
    border-bottom: 1px solid var(--ink);
    padding-bottom: 8px;
  }
  .name {
    font-size: 18px;
    font-weight: 650;
    border-bottom-style: dotted;
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    margin-top: 6px;
    align-items: baseline;
  }
  .tools button,
  .keys button,
  .known button {
    min-height: 24px;
  }
  h3 .label {
    margin-left: 8px;
    font-weight: 450;
  }
  .measures {
    margin-top: 10px;
  }
  .keys {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 4px;
  }
  .keys button {
    border: 1px solid var(--ink);
    padding: 2px 10px;
  }
  .keys button:hover {
    background: var(--wash);
  }
  .keys button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
  }
  .made {
    margin: 10px 0;
    border-top: 1px solid var(--hair);
    padding-top: 6px;
  }
  .made div {
    display: flex;
    justify-content: space-between;
  }
  .made dt {
    color: var(--second);
  }
  table {
    width: 100%;
    border-top: 1px solid var(--ink);
    margin-top: 8px;
  }
  th {
    font-weight: 450;
    text-align: left;
    color: var(--second);
    padding: 3px 8px 3px 0;
    width: 38%;
  }
  td {
    padding: 3px 0;
  }
  tr {
    border-top: 1px solid var(--hair);
  }
  select.field {
    padding: 1px 0;
    background: var(--sheet);
  }
  .known {
    text-align: right;
    font-size: 12px;
    font-stretch: 88%;
  }
  .known button {
    font-weight: 600;
  }
  .known .plain {
    font-weight: 450;
    color: var(--second);
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    margin: 6px 0;
  }
  h3 {
    margin-top: 12px;
  }
  h3 .link {
    font-weight: 450;
    margin-left: 10px;
  }
  .past th,
  .past td {
    background: var(--wash);
    padding: 2px 8px;
  }
  .used {
    margin-top: 10px;
  }
  @media (max-width: 760px) {
    th,
    td {
      height: 44px;
    }
    .tools button,
    .keys button,
    .known button {
      min-height: 44px;
    }
  }
</style>

<script lang="ts">
  /** A list on a card as a table: rows named, changed, added and taken away; or all of it as lines of text. */
  import X from '@lucide/svelte/icons/x';
  import { date, write } from '../format';
  import Editable from '../parts/Editable.svelte';
  import { numberAt, valueAt } from '../parts/paths';
  import { reader } from '../reader.svelte';
  import type { Desk } from './desk.svelte';
  import type { Table } from './fields';

  interface Props {
    desk: Desk;
    table: Table;
    /** A figure of a row is to be measured. */
    onmeasure: (path: string) => void;
  }
  let { desk, table, onmeasure }: Props = $props();

  const card = $derived(desk.content);
  const rows = $derived((valueAt(card, table.path) ?? []) as Record<string, unknown>[]);
  const [name, figure] = $derived([table.columns[0]!, table.columns[1]!]);
  let lines = $state<string | null>(null);
  const trouble = $derived(desk.troubles.get(table.path));

  const at = (n: number, path: string) => `${table.path}.${n}.${path}`;
  const last = (path: string) => [...(card?.measured ?? [])].reverse().find((one) => one.field === path);
  const measurable = (path: string) => desk.card?.measures.some((one) => one.field === path);

  function open() {
    lines = rows
      .map((row, n) => `${row[name.path]}  ${write(numberAt(card, at(n, figure.path)) ?? 0, figure.unit)}`)
      .join('\n');
  }

  async function take() {
    const text = lines ?? '';
    const change = { do: 'rows', path: table.path, text, imperial: reader.imperial } as const;
    if (await desk.change(change)) lines = null;
  }

  function leave() {
    desk.troubles.delete(table.path);
    lines = null;
  }
</script>

<section>
  {#if lines !== null}
    <label>
      <span class="label">a line for each {table.label}: what it is called, a blank, its figure</span>
      <textarea
        bind:value={lines}
        rows={Math.min(18, Math.max(4, rows.length + 1))}
        aria-invalid={!!trouble}
        spellcheck="false"></textarea>
    </label>
    {#if trouble}<p role="alert">{trouble}</p>{/if}
    <p class="acts">
      <button type="button" class="act small" onclick={() => void take()}>Take these</button>
      <button type="button" class="link" onclick={leave}>leave it as it was</button>
    </p>
  {:else}
    <table>
      <thead class:hidden={!rows.length}
        ><tr
          ><th scope="col">{name.label}</th><th scope="col">{figure.label}</th><th scope="col" class="known"
            ><span class="sr-only">how it is known</span></th
          ><td></td></tr
        ></thead
      >
      <tbody>
        {#each rows as row, n (n)}
          {@const path = at(n, figure.path)}
          {@const known = last(path)}
          <tr>
            <td>
              {#if typeof row[name.path] === 'string'}
                <input
                  class="field"
                  value={row[name.path]}
                  maxlength="40"
                  aria-label="{table.label} {n + 1}, its name"
                  onchange={(event) => void desk.type(at(n, name.path), event.currentTarget.value)}
                />
              {:else}
                <Editable
                  path={at(n, name.path)}
                  label="{table.label} {n + 1}"
                  unit={name.unit}
                  min={-1000}
                />
              {/if}
            </td>
            <td
              ><Editable {path} label="{figure.label}, {row[name.path]}" unit={figure.unit} min={0.001} /></td
            >
            <td class="known">
              {#if known && known.value === row[figure.path]}± {write(known.spread, figure.unit)}, {date(
                  known.on
                )}
              {:else if measurable(path)}
                <button type="button" class="plain" onclick={() => onmeasure(path)}
                  >{desk.card?.usual.includes(path) ? 'usual' : 'typed'}; measure it</button
                >{/if}
            </td>
            <td class="drop">
              {#if rows.length > table.fewest}
                <button
                  type="button"
                  aria-label="Take {table.label} {row[name.path]} away"
                  onclick={() => void desk.change({ do: 'drop-row', path: table.path, row: n })}
                  ><X size={14} /></button
                >
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if trouble}<p role="alert">{trouble}</p>{/if}
    <p class="acts">
      <button type="button" class="link" onclick={() => void desk.change({ do: 'add-row', path: table.path })}
        >{rows.length ? 'one more' : 'add a'} {table.label}</button
      >
      <button type="button" class="link" class:hidden={!rows.length} onclick={open}
        >write them all as lines</button
      >
    </p>
  {/if}
</section>

<style>
  section {
    border-top: 1px solid var(--hair);
    padding: 6px 0;
  }
  table {
    width: 100%;
  }
  th {
    text-align: left;
    font-weight: 450;
    color: var(--second);
    font-size: 12px;
  }
  td {
    padding: 2px 8px 2px 0;
  }
  td .field {
    width: 7em;
    font-weight: 650;
  }
  textarea {
    width: 100%;
    font: inherit;
    background: var(--wash);
    border: 1px solid var(--ink);
    padding: 6px 8px;
    color: inherit;
    font-variant-numeric: tabular-nums;
  }
  .known {
    text-align: right;
    font-size: 12px;
    font-stretch: 88%;
  }
  .plain {
    color: var(--second);
    text-decoration: underline dotted;
    text-underline-offset: 3px;
    min-height: 24px;
  }
  .drop {
    text-align: right;
    padding-right: 0;
  }
  .drop button {
    min-width: 24px;
    min-height: 24px;
    color: var(--second);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    margin-top: 4px;
  }
  @media (max-width: 760px) {
    .drop button,
    .plain,
    td .field {
      min-width: 44px;
      min-height: 44px;
    }
  }
</style>

<script lang="ts">
  /** Guided measuring: what to do, the readings as they come, and what they say before the card is touched. */
  import { api, sentence, type KitCard, type Measuring, type MeasureLine, type Trouble } from '../api/client';
  import { write } from '../format';
  import Working from '../parts/Working.svelte';
  import { reader } from '../reader.svelte';

  interface Props {
    card: KitCard;
    measure: MeasureLine;
    /** Keep the card with what was measured; whether that went well. */
    onkeep: (card: KitCard) => Promise<boolean>;
    onclose?: () => void;
  }
  let { card, measure, onkeep, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  let rows = $state<string[][]>(Array.from({ length: measure.least }, () => measure.columns.map(() => '')));
  // svelte-ignore state_referenced_locally
  let readWith = $state(measure.read_with[0]?.key ?? '');
  let note = $state('');
  let measured = $state.raw<Measuring | null>(null);
  let trouble = $state('');
  let asked = 0;

  /** What the readings come to, in the order it is told. */
  const SAID = [
    { key: 'mean', said: 'mean' },
    { key: 'spread', said: 'spread' },
    { key: 'steps', said: '' },
    { key: 'offset', said: 'off at every length' },
    { key: 'read.mean', said: 'as read: mean' },
    { key: 'read.spread', said: 'spread as read' },
    { key: 'explained', said: 'scatter that reading explains' }
  ];
  /** What would go onto the card. */
  const puts = $derived.by(() => {
    if (!measured?.accepted) return 'it';
    const play = measured.play ? ` and a play of ${write(measured.play, measured.play_unit)}` : '';
    return `${measure.unit ? '' : 'a correction of '}${write(measured.value, measure.unit)}${play}`;
  });
  const full = (row: string[]) => row.every((text) => text.trim() !== '');
  /** Where each full row stands in the list, since odd readings come back by their number. */
  const filled = $derived(rows.map((row, i) => ({ row, i })).filter(({ row }) => full(row)));
  const odd = $derived(new Set((measured?.odd ?? []).map((at) => filled[at]?.i)));

  async function look() {
    if (!filled.length) {
      measured = null;
      return;
    }
    const mine = ++asked;
    try {
      const answer = await api.POST('/api/kit/measure', {
        body: {
          card,
          key: measure.key,
          readings: filled.map(({ row }) => row),
          read_with: readWith,
          imperial: reader.imperial,
          on: new Date().toISOString().slice(0, 10),
          note
        }
      });
      if (mine !== asked) return;
      measured = answer.data ?? null;
      trouble = answer.data ? '' : whatIsWrong(answer.error as Trouble);
    } catch (error) {
      trouble = sentence(error);
    }
  }

  /** Which reading cannot be read, and what was expected there. */
  function whatIsWrong(trouble: Trouble): string {
    const problem = trouble.problems?.[0];
    const row = /^readings\.(\d+)/.exec(problem?.path ?? '')?.[1];
    if (!problem || row === undefined) return sentence(trouble);
    return `Reading ${(filled[Number(row)]?.i ?? 0) + 1}: expected ${problem.expected}.`;
  }

  async function apply() {
    await look();
    if (measured?.card && (await onkeep(measured.card))) onclose?.();
  }
  function typed() {
    if (rows.every(full)) rows = [...rows, measure.columns.map(() => '')];
    void look();
  }
  function strike(at: number) {
    rows = rows.filter((_, i) => i !== at);
    void look();
  }
</script>

<div class="steps">
  <ol>
    {#each measure.how as step, i (i)}<li>{step}</li>{/each}
  </ol>
  {#if measure.read_with.length > 1}
    <label class="with"
      >read with <select class="field" bind:value={readWith} onchange={() => void look()}>
        {#each measure.read_with as one (one.key)}
          <option value={one.key}>{one.label} (± {write(one.error, one.unit)})</option>
        {/each}
      </select></label
    >
  {/if}
  <table>
    <thead>
      <tr>
        <td></td>
        {#each measure.columns as column, j (j)}<th scope="col"
            >{column.label}{column.unit && column.unit !== 'frames'
              ? `, ${column.unit === 'deg' ? '°' : column.unit}`
              : ''}</th
          >{/each}
        <td></td>
      </tr>
    </thead>
    <tbody>
      {#each rows as row, i (i)}
        <tr class:odd={odd.has(i)}>
          <th scope="row">{i + 1}</th>
          {#each measure.columns as column, j (j)}
            <td>
              <input
                class="field"
                aria-label="{column.label}, reading {i + 1}"
                bind:value={row[j]}
                onchange={typed}
              />
            </td>
          {/each}
          <td>
            {#if odd.has(i)}<b>does not fit</b>{/if}
            {#if rows.length > 1}<button type="button" class="link" onclick={() => strike(i)}
                >strike out</button
              >{/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if trouble}<p role="alert">{trouble}</p>{/if}
  {#if measured}
    {@const figure = (key: string) => measured?.figures.find((figure) => figure.key === key)}
    {@const told = SAID.filter(({ key }) => figure(key))}
    <p class="result">
      {#each told as { said, key }, i (key)}{i ? ', ' : ''}{said}
        <Working exact figure={figure(key)} />{/each}
    </p>
    <p class="verdict" class:refused={!measured.accepted} role="status">{measured.verdict}</p>
  {/if}
  <p class="act-row">
    <input
      class="field"
      placeholder="note: load, lens, wind"
      aria-label="note to this measurement"
      bind:value={note}
    />
    <button type="button" class="act" disabled={!measured?.accepted} onclick={() => void apply()}
      >Put {puts} on the card</button
    >
    {#if onclose}<button type="button" class="link" onclick={onclose}>Leave it</button>{/if}
  </p>
</div>

<style>
  .steps {
    margin-top: 8px;
    border-left: 3px solid var(--ink);
    padding-left: 12px;
  }
  ol {
    list-style: decimal;
    padding-left: 18px;
  }
  table {
    margin-top: 8px;
  }
  thead th {
    font-size: 12px;
    font-stretch: 88%;
    font-weight: 450;
    color: var(--second);
    text-align: left;
    padding-right: 10px;
  }
  tbody th {
    font-weight: 450;
    padding-right: 10px;
  }
  td {
    padding-right: 10px;
  }
  .field {
    width: 7.5em;
  }
  .with {
    display: block;
    margin-top: 8px;
  }
  .with .field {
    width: auto;
  }
  .odd .field {
    border-bottom: 3px double var(--stop);
  }
  .result {
    margin-top: 8px;
  }
  .verdict {
    font-weight: 550;
  }
  .refused {
    border-left: 4px solid var(--stop);
    padding-left: 8px;
  }
  .act-row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: center;
    margin-top: 8px;
  }
  .act-row .field {
    width: 14em;
  }
  .act {
    padding: 3px 14px;
    min-height: 30px;
  }
  .link {
    min-height: 24px;
  }
</style>

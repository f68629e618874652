<script lang="ts">
  /** The head as boxes about the nozzle's tip, and what the printer does at commands of its own. */
  import type { KitCard } from '../api/client';
  import type { Desk } from './desk.svelte';

  interface Props {
    desk: Desk;
    card: Extract<KitCard, { kind: 'printer' }>;
  }
  let { desk, card }: Props = $props();
  const parts = $derived(card.head ?? []);
  const macros = $derived(card.macros ?? []);
  type Part = (typeof parts)[number];
  const SIDES = [
    ['left_mm', 'left'],
    ['right_mm', 'right'],
    ['front_mm', 'front'],
    ['back_mm', 'back'],
    ['low_mm', 'from'],
    ['high_mm', 'up to']
  ] as const;
  const putParts = (next: Part[]) => void desk.set('head', next);
  const change = (n: number, more: Partial<Part>) =>
    putParts(parts.map((part, at) => (at === n ? { ...part, ...more } : part)));
  const putMacros = (next: typeof macros) => void desk.set('macros', next);

  function side(n: number, key: (typeof SIDES)[number][0], input: HTMLInputElement) {
    const value = Number(input.value.replace(',', '.').replace('−', '-'));
    if (Number.isFinite(value) && input.value.trim()) change(n, { [key]: value });
    else input.value = String(parts[n]?.[key] ?? 0);
  }
</script>

<section>
  <h3>The head, about the nozzle’s tip <span class="label">mm; left and front are less than nought</span></h3>
  <div class="wide">
    <table>
      <thead
        ><tr
          ><th scope="col">part</th>{#each SIDES as [key, label] (key)}<th scope="col">{label}</th>{/each}<th
            scope="col">presses</th
          ><td></td></tr
        ></thead
      >
      <tbody>
        {#each parts as part, n (n)}
          <tr>
            <td
              ><input
                class="field name"
                value={part.name}
                maxlength="40"
                aria-label="part {n + 1} of the head, its name"
                onchange={(event) => change(n, { name: event.currentTarget.value.trim() || part.name })}
              /></td
            >
            {#each SIDES as [key, label] (key)}
              <td
                ><input
                  class="field"
                  inputmode="decimal"
                  value={part[key]}
                  aria-label="{part.name}, {label}"
                  onchange={(event) => side(n, key, event.currentTarget)}
                /></td
              >
            {/each}
            <td
              ><input
                type="checkbox"
                checked={part.presses}
                aria-label="{part.name} presses the switch"
                onchange={(event) => change(n, { presses: event.currentTarget.checked })}
              /></td
            >
            <td
              >{#if parts.length > 1}<button
                  type="button"
                  class="link"
                  aria-label="Take the {part.name} away"
                  onclick={() => putParts(parts.filter((_, at) => at !== n))}>drop</button
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if desk.troubles.get('head')}<p role="alert">{desk.troubles.get('head')}</p>{/if}
  <button
    type="button"
    class="link"
    onclick={() =>
      putParts([
        ...parts,
        {
          name: `part ${parts.length + 1}`,
          left_mm: -10,
          right_mm: 10,
          front_mm: -10,
          back_mm: 10,
          low_mm: 10,
          high_mm: 40,
          presses: false
        }
      ])}>+ part</button
  >
</section>
<section>
  <h3>Commands of its own</h3>
  <p class="label">
    What stands behind a command that only this printer knows, word by word from its settings: the proof
    carries it out.
  </p>
  {#each macros as macro, n (n)}
    <div class="macro">
      <input
        class="field"
        value={macro.name}
        maxlength="60"
        aria-label="command {n + 1}, its name"
        onchange={(event) => {
          const name = event.currentTarget.value.trim();
          if (/^[A-Za-z]\w*$/.test(name))
            putMacros(macros.map((one, at) => (at === n ? { ...one, name } : one)));
          else event.currentTarget.value = macro.name;
        }}
      />
      <button
        type="button"
        class="link"
        aria-label="Take {macro.name} away"
        onclick={() => putMacros(macros.filter((_, at) => at !== n))}>drop</button
      >
      <textarea
        class="field"
        rows="3"
        spellcheck="false"
        value={macro.text}
        aria-label="what {macro.name} does"
        onchange={(event) =>
          putMacros(macros.map((one, at) => (at === n ? { ...one, text: event.currentTarget.value } : one)))}
      ></textarea>
    </div>
  {/each}
  <button
    type="button"
    class="link"
    onclick={() => putMacros([...macros, { name: `COMMAND_${macros.length + 1}`, text: '' }])}
    >+ command</button
  >
</section>

<style>
  section {
    margin-top: 12px;
  }
  .wide {
    overflow-x: auto;
  }
  th {
    text-align: left;
    font-weight: 450;
    color: var(--second);
    font-stretch: 86%;
  }
  td .field {
    width: 46px;
  }
  td .name {
    width: 88px;
  }
  .macro {
    margin: 6px 0;
  }
  textarea {
    width: 100%;
    font-family: ui-monospace, monospace;
    font-size: 12px;
  }
</style>

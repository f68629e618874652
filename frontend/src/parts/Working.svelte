<script lang="ts">
  /** A computed figure that opens a slip with its formula and the numbers in it. */
  import { Popover } from 'bits-ui';
  import { sentence, type Figure, type Shown } from '../api/client';
  import { say, write } from '../format';
  import { maybeTheSheet } from '../sheet/sheet.svelte';
  import { working, workingText } from './working';

  interface Props {
    /** The key of a figure of the open sheet, or the figure itself. */
    figure: string | Figure | undefined;
    shown?: string;
    zone?: string;
    /** All digits, as on a card, where a thousandth counts. */
    exact?: boolean;
  }
  let { figure: asked, shown, zone: given, exact = false }: Props = $props();

  const sheet = maybeTheSheet();
  const figure = $derived<Figure | Shown | undefined>(
    typeof asked === 'string' ? sheet?.figure(asked) : asked
  );
  let open = $state(false);
  let fetched = $state.raw<Figure>();
  let trouble = $state('');
  const whole = $derived(figure && 'terms' in figure ? figure : fetched);

  // The working of a figure of the sheet is asked for when it is opened, and again when the figure has changed.
  $effect(() => {
    if (!open || !figure || 'terms' in figure) return;
    void fetchWorking(figure);
  });

  async function fetchWorking(of: Shown) {
    trouble = '';
    try {
      fetched = await sheet?.working(of.key);
    } catch (error) {
      trouble = sentence(error);
    }
  }
  const zone = $derived(given ?? sheet?.zone ?? 'UTC');
  let copied = $state(false);

  async function copy() {
    if (!whole) return;
    await navigator.clipboard.writeText(workingText(whole, zone));
    copied = true;
    setTimeout(() => (copied = false), 2000);
  }
</script>

{#if figure}
  {@const said = shown ?? (exact ? write : say)(figure.value, figure.unit, zone)}
  <Popover.Root bind:open>
    <Popover.Trigger class="figure" aria-label="{figure.label}: {said}. Show the working"
      >{said}</Popover.Trigger
    ><Popover.Portal>
      <Popover.Content
        class="slip"
        sideOffset={6}
        collisionPadding={8}
        aria-label="Working of {figure.label}"
      >
        <p class="head">
          <b>{figure.label}</b> <span>{write(figure.value, figure.unit, zone)}</span>
        </p>
        {#if whole}
          <p class="rule">{working(whole).words}</p>
          <p class="rule numbers">{working(whole, zone).numbers}</p>
          <table>
            <tbody>
              {#each whole.terms as term, i (i)}
                <tr>
                  <th scope="row">{term.label}</th>
                  <td
                    >{write(term.value, term.unit, zone)}{term.exact?.includes('/')
                      ? ` (${term.exact})`
                      : ''}</td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
          <p class="why">{whole.source}</p>
          <button type="button" class="link" onclick={copy}>{copied ? 'Copied' : 'Copy the working'}</button>
        {:else if trouble}<p role="alert" class="rule">{trouble}</p>
        {:else}<p role="status" class="rule">Working it out …</p>{/if}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
{:else}
  <span>{shown ?? '–'}</span>
{/if}

<style>
  :global(.figure) {
    min-width: 24px;
    min-height: 24px;
    font-weight: 650;
    text-align: inherit;
    border-bottom: 1px solid transparent;
  }
  :global(.figure:hover),
  :global(.figure[data-state='open']) {
    border-bottom-color: var(--ink);
  }
  :global(.slip) {
    z-index: 50;
    width: min(380px, calc(100vw - 16px));
    padding: 12px 14px;
    background: var(--sheet);
    color: var(--ink);
    border: 1px solid var(--ink);
    font-size: 13px;
  }
  .head {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    border-bottom: 1px solid var(--ink);
    padding-bottom: 6px;
  }
  .head b::first-letter {
    text-transform: uppercase;
  }
  .rule {
    margin-top: 8px;
    font-weight: 550;
  }
  .numbers {
    margin-top: 2px;
    color: var(--second);
    font-weight: 450;
  }
  table {
    width: 100%;
    margin-top: 8px;
    border-top: 1px solid var(--hair);
  }
  th {
    font-weight: 450;
    text-align: left;
    color: var(--second);
    padding: 2px 8px 2px 0;
  }
  td {
    text-align: right;
  }
  .why {
    margin: 8px 0;
    color: var(--second);
  }
  .why::first-letter {
    text-transform: uppercase;
  }
</style>

<script lang="ts">
  /** A computed figure that opens a slip with its formula and the numbers in it. */
  import { Popover } from 'bits-ui';
  import type { Figure } from '../api/client';
  import { write } from '../format';
  import { maybeTheSheet } from '../sheet/sheet.svelte';
  import { working, workingText } from './working';

  interface Props {
    /** The key of a figure of the open sheet, or the figure itself. */
    figure: string | Figure | undefined;
    shown?: string;
    zone?: string;
  }
  let { figure: asked, shown, zone: given }: Props = $props();

  const sheet = maybeTheSheet();
  const figure = $derived(typeof asked === 'string' ? sheet?.figure(asked) : asked);
  const zone = $derived(given ?? sheet?.zone ?? 'UTC');
  let copied = $state(false);

  async function copy() {
    if (!figure) return;
    await navigator.clipboard.writeText(workingText(figure, zone));
    copied = true;
    setTimeout(() => (copied = false), 2000);
  }
</script>

{#if figure}
  {@const said = shown ?? write(figure.value, figure.unit, zone)}
  <Popover.Root>
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
        <p class="rule">{working(figure).words}</p>
        <p class="rule numbers">{working(figure, zone).numbers}</p>
        <table>
          <tbody>
            {#each figure.terms as term (term.symbol)}
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
        <p class="why">{figure.source}</p>
        <button type="button" class="link" onclick={copy}>{copied ? 'Copied' : 'Copy the working'}</button>
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

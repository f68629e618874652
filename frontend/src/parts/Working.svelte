<script lang="ts">
  /** A computed figure that opens a slip with its formula and the numbers in it. */
  import { Popover } from 'bits-ui';
  import { write } from '../format';
  import { theSheet } from '../sheet/sheet.svelte';
  import { working, workingText } from './working';

  interface Props {
    figure: string;
    shown?: string;
  }
  let { figure: key, shown }: Props = $props();

  const sheet = theSheet();
  const figure = $derived(sheet.figure(key));
  let copied = $state(false);

  async function copy() {
    if (!figure) return;
    await navigator.clipboard.writeText(workingText(figure, sheet.zone));
    copied = true;
    setTimeout(() => (copied = false), 2000);
  }
</script>

{#if figure}
  {@const said = shown ?? write(figure.value, figure.unit, sheet.zone)}
  <Popover.Root>
    <Popover.Trigger class="figure" aria-label="{figure.label}: {said}. Show the working"
      >{said}</Popover.Trigger
    >
    <Popover.Portal>
      <Popover.Content
        class="slip"
        sideOffset={6}
        collisionPadding={8}
        aria-label="Working of {figure.label}"
      >
        <p class="head">
          <b>{figure.label}</b> <span>{write(figure.value, figure.unit, sheet.zone)}</span>
        </p>
        <p class="rule">{working(figure).words}</p>
        <p class="rule numbers">{working(figure, sheet.zone).numbers}</p>
        <table>
          <tbody>
            {#each figure.terms as term (term.symbol)}
              <tr>
                <th scope="row">{term.label}</th>
                <td
                  >{write(term.value, term.unit, sheet.zone)}{term.exact?.includes('/')
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
  <span class="open">–</span>
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

<script lang="ts">
  /** The kit: a shelf of everything that is owned, drawn in outline, with the card in hand beside it. */
  import DamagedRow from '../parts/DamagedRow.svelte';
  import { onMount } from 'svelte';
  import type { CardLine } from '../api/client';
  import PartOutline from '../drawings/part/PartOutline.svelte';
  import { write } from '../format';
  import CardSheet from '../kit/CardSheet.svelte';
  import { Desk } from '../kit/desk.svelte';
  import { headline, LIKES, SHELVES } from '../kit/fields';
  import { router } from '../router.svelte';
  import { handDownEditor } from '../sheet/editor';

  interface Props {
    /** The card that is held when the shelf opens, and the shoot from whose rig it was taken up. */
    card?: number | undefined;
    shoot?: number | undefined;
  }
  let { card, shoot }: Props = $props();
  const desk = new Desk();
  handDownEditor(desk);
  let adding = $state(false);
  onMount(() => {
    void desk
      .look()
      // Whoever has taken another card in hand meanwhile keeps it.
      .then(() => (card === undefined || desk.held !== null ? undefined : desk.hold(card)))
      .then(() => desk.takeUp());
    const leave = (event: BeforeUnloadEvent) => {
      if (desk.unsettled) event.preventDefault();
    };
    addEventListener('beforeunload', leave);
    return () => {
      removeEventListener('beforeunload', leave);
      desk.close();
    };
  });

  const on = (kinds: string[]) => (desk.cards ?? []).filter((one) => kinds.includes(one.card.kind));
  function wordsFor(line: CardLine): string {
    const head = headline(line.card);
    if (!head) return '';
    const unit = head.unit === 'lens' ? '' : head.unit;
    const shown = head.unit === 'lens' ? `${head.value} mm` : write(head.value, unit);
    return `${shown} ${head.after}`.trim();
  }
  const measured = (line: CardLine) => new Set((line.card.measured ?? []).map((one) => one.field)).size;

  /** A card opens at its top, also where it takes the place of the shelf. */
  function atTop(card: HTMLElement) {
    card.scrollTop = 0;
    if (matchMedia('(max-width: 1000px)').matches) scrollTo(0, 0);
  }

  function keys(event: KeyboardEvent) {
    const target = event.target as HTMLElement;
    if (target.matches('input, textarea, select') || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'u') desk.undo();
    else if (event.key === 'U') desk.redo();
    else if (event.key === 'n') adding = true;
    // A slip that is open takes the key for itself.
    else if (event.key === 'Escape' && !document.querySelector('.slip')) desk.hold(null);
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={keys} />
<svelte:head><title>Kit · Bridle</title></svelte:head>

<main class:held={desk.card}>
  <div class="shelves">
    <header>
      <h1>Kit</h1>
      <p>What you own, and how well each figure is known.</p>
      <button type="button" class="act" aria-expanded={adding} onclick={() => (adding = !adding)}
        >New card</button
      >
    </header>
    {#if adding}
      <p class="kinds" role="group" aria-label="Kind of the new card">
        {#each Object.entries(LIKES) as [like, called] (like)}
          <button
            type="button"
            onclick={() => {
              adding = false;
              void desk.make(like as keyof typeof LIKES);
            }}>{called}</button
          >
        {/each}
      </p>
    {/if}
    {#if desk.trouble}<p class="trouble" role="alert">{desk.trouble}</p>{/if}
    {#if desk.gone}
      {@const gone = desk.gone}
      <p role="status">
        {gone.card.name} is in the bin.
        <button type="button" class="link" onclick={() => void desk.back(gone.id)}>Put it back</button>
      </p>
    {/if}
    {#if desk.cards === null}
      <p class="mono-note" role="status">{desk.trouble ? '' : 'Opening the drawer …'}</p>
    {:else if desk.cards.length === 0}
      <p class="empty">
        The shelf is empty. A card has sensible figures from the start; change what differs, measure what
        matters.
        <button type="button" class="link" onclick={() => (adding = true)}>New card</button>
      </p>
    {:else}
      {#each SHELVES as shelf (shelf.title)}
        {@const cards = on(shelf.kinds)}
        {#if cards.length}
          <section aria-label={shelf.title}>
            <h2>{shelf.title}</h2>
            <div class="board">
              {#each cards as line (line.id)}
                <button
                  type="button"
                  class="thing"
                  aria-pressed={desk.held === line.id}
                  onclick={() => desk.hold(desk.held === line.id ? null : line.id)}
                >
                  <PartOutline card={line.card} tall={shelf.tall} />
                  <b>{line.card.name}</b>
                  <span
                    >{[line.card.mass_g ? write(line.card.mass_g, 'g') : '', wordsFor(line)]
                      .filter(Boolean)
                      .join(', ')}</span
                  >
                  <span class="known"
                    >{measured(line)
                      ? `${measured(line)} measured`
                      : line.measures.length
                        ? 'none measured'
                        : ''}</span
                  >
                </button>
              {/each}
            </div>
          </section>
        {/if}
      {/each}
    {/if}
    {#each desk.broken as one (one.id)}<div class="trouble">
        <b>{one.name}</b><DamagedRow kind="card" id={one.id} said={one.said} />
      </div>{/each}
    {#if desk.inBin}<p class="label bin">
        {desk.inBin}
        {desk.inBin === 1 ? 'card lies' : 'cards lie'} in the
        <a class="link" href="/bin" onclick={router.follow}>bin</a>.
      </p>{/if}
  </div>
  {#if desk.card}{#key desk.card.id}<aside use:atTop><CardSheet {desk} {shoot} /></aside>{/key}{/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    min-height: 100dvh;
    background: var(--sheet);
  }
  .held {
    grid-template-columns: minmax(0, 1fr) 430px;
  }
  .shelves {
    padding: 20px 26px;
  }
  aside {
    border-left: 1px solid var(--ink);
    background: var(--film);
    padding: 18px 20px;
    height: 100dvh;
    overflow-y: auto;
    position: sticky;
    top: 0;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 10px;
  }
  h1 {
    font-size: 23px;
    font-stretch: 108%;
  }
  header p {
    color: var(--second);
    margin-right: auto;
  }
  h2 {
    margin-top: 22px;
    font-size: 13px;
    font-stretch: 92%;
    color: var(--second);
    font-weight: 600;
  }
  .kinds {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 10px;
  }
  .kinds button {
    border: 1px solid var(--ink);
    padding: 4px 12px;
    min-height: 30px;
  }
  .kinds button:hover {
    background: var(--wash);
  }
  .board {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(148px, 1fr));
    gap: 6px 0;
  }
  .thing {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    padding: 8px 0;
    text-align: left;
    font-size: 13px;
    line-height: 1.25;
  }
  .thing :global(svg) {
    width: 100%;
    border-bottom: 1px solid var(--ink);
  }
  .thing:hover b {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .thing[aria-pressed='true'] b {
    background: var(--ink);
    color: var(--sheet);
    padding: 0 4px;
    margin-left: -4px;
  }
  .thing b,
  .thing span {
    padding-right: 10px;
  }
  .thing b {
    margin-top: 5px;
    font-weight: 600;
  }
  .thing span {
    color: var(--second);
    font-size: 12px;
    font-stretch: 90%;
  }
  .thing .known {
    font-style: normal;
  }
  .trouble {
    border-left: 6px solid var(--stop);
    padding-left: 12px;
    margin-top: 10px;
  }
  .empty {
    margin-top: 20px;
    font-size: 17px;
    max-width: 60ch;
  }
  .bin {
    margin-top: 24px;
  }
  @media (max-width: 1000px) {
    .held {
      grid-template-columns: minmax(0, 1fr);
    }
    .held .shelves {
      display: none;
    }
    .shelves {
      padding: 16px;
    }
    aside {
      height: auto;
      position: static;
      border-left: 0;
      padding: 16px;
    }
    .kinds button {
      min-height: 44px;
    }
  }
</style>

<script lang="ts">
  /** Cards of the shelf to put on the rig, in a dialog; or, while there is no rig, one to begin with. */
  import PartOutline from '../drawings/part/PartOutline.svelte';
  import type { KitCard } from '../api/client';
  import { LIKES, likesOf, SHELVES } from './fields';
  import Modal from '../parts/Modal.svelte';
  import { router } from '../router.svelte';
  import type { RigShelf } from './shelf.svelte';

  interface Props {
    shelf: RigShelf;
    /** Whether the dialog is open; without it, what to begin with. */
    open?: boolean;
    title?: string;
    /** Which kinds of cards are asked for; all of them without it. */
    kinds?: readonly KitCard['kind'][];
  }
  let { shelf, open = $bindable(), title = 'Put something on the rig', kinds }: Props = $props();
  const lying = $derived(shelf.cards?.filter((line) => wanted(line.card.kind)) ?? []);
  const wanted = (kind: KitCard['kind']) => !kinds || kinds.includes(kind);
</script>

{#if open !== undefined}
  <Modal bind:open {title}>
    {#if shelf.cards === null}<p role="status">Opening the drawer …</p>
    {:else}
      {#if !lying.length}<p>
          {shelf.cards.length ? 'Nothing of this kind lies on the shelf yet.' : 'The shelf is empty.'} Make a card
          here; its figures fit most, and you change them as you find out.
        </p>{/if}
      {#if shelf.refused}<p class="sticky top-0 bg-sheet py-1 text-stop" role="alert">{shelf.refused}</p>{/if}
      {#each SHELVES as board (board.title)}
        {@const cards = shelf.cards.filter(
          (line) => board.kinds.includes(line.card.kind) && wanted(line.card.kind)
        )}
        {#if cards.length}
          <h3>{board.title}</h3>
          <div class="mb-2.5 grid grid-cols-[repeat(auto-fill,minmax(140px,1fr))] gap-1">
            {#each cards as line (line.id)}
              <button
                type="button"
                class="p-1 text-left text-[13px] hover:bg-wash"
                onclick={() => void shelf.putOn([line])}
              >
                <PartOutline card={line.card} tall={board.tall} />
                {line.card.name}
                {#if shelf.standing(line)}<b class="label block"
                    >on the rig{shelf.standing(line) > 1 ? `, ${shelf.standing(line)} times` : ''}</b
                  >{/if}
              </button>
            {/each}
          </div>
        {/if}
      {/each}
      <h3>A new card</h3>
      <p class="likes">
        {#each likesOf(kinds) as like (like)}
          <button type="button" class="link" disabled={shelf.making} onclick={() => void shelf.make(like)}
            >{LIKES[like]}</button
          >
        {/each}
      </p>
    {/if}
  </Modal>
{:else}
  <p class="py-[30px] text-[15px]">
    {#if shelf.cards && shelf.starters.length < shelf.usualNames.length}
      {shelf.cards.length ? 'Not all that a rig needs lies on the shelf.' : 'The shelf is empty.'}
      <button type="button" class="act" disabled={shelf.making} onclick={() => void shelf.usual()}
        >Make the usual cards and put them together</button
      >, {shelf.usualNames.join(', ')}, with figures that fit most, to be changed as you find out; or
      <a class="link" href="/kit" onclick={router.follow}>make cards of what you own</a>, each with sensible
      figures from the start.
    {:else if shelf.starters.length}
      To begin with: {shelf.starters.map((line) => line.card.name).join(', ')}.
      <button type="button" class="act" onclick={() => void shelf.putOn(shelf.starters)}
        >Put these together</button
      >
    {/if}
  </p>
{/if}

<style>
  .likes {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
  }
  .likes .link {
    min-height: 26px;
  }
  @media (max-width: 760px) {
    .likes .link {
      min-height: 44px;
    }
  }
</style>

<script lang="ts">
  /** The parts from the camera down, to be moved and taken off; and what goes along without joining. */
  import { write } from '../../format';
  import { KIND_NAMES } from '../../kit/fields';
  import Working from '../../parts/Working.svelte';
  import { router } from '../../router.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    chosen: number | null;
    onchoose: (index: number) => void;
    onoff: () => void;
  }
  let { chosen, onchoose, onoff }: Props = $props();
  const sheet = theSheet();
  const numbered = $derived(sheet.plan.kit.copies.map((copy, i) => ({ copy, i })));
  const chain = $derived(numbered.filter(({ copy }) => 'above' in copy.card).reverse());
  const others = $derived(numbered.filter(({ copy }) => !('above' in copy.card)));

  /** Up is towards the camera. */
  const move = (key: string, by: 1 | -1) => void sheet.change([{ do: 'part', key, by }]);
  function off(at: number) {
    onoff();
    void sheet.change([{ do: 'fit', copies: sheet.plan.kit.copies.filter((_, i) => i !== at) }]);
  }
  const most = (i: number) =>
    (sheet.figure(`rig.reserve.${i}`)?.value ?? 0) + (sheet.figure(`rig.carried.${i}`)?.value ?? 0);
</script>

<div>
  <h3 class="!justify-start gap-2">The chain <span class="label font-[450]">from the camera down</span></h3>
  <ol>
    {#each chain as { copy, i } (copy.key)}
      <li class={[chosen === i && 'bg-wash']}>
        <button type="button" class="part" onclick={() => onchoose(i)}>{copy.card.name}</button>
        <span class="label">
          {write(copy.card.mass_g ?? 0, 'g')}
          {#if sheet.figure(`rig.reserve.${i}`)}
            · carries <Working figure="rig.carried.{i}" /> of {write(most(i), 'g')}
          {/if}
        </span>
        <span class="tools">
          {@render card(copy)}
          <button type="button" aria-label="{copy.card.name} up" onclick={() => move(copy.key, 1)}>up</button>
          <button type="button" aria-label="{copy.card.name} down" onclick={() => move(copy.key, -1)}
            >down</button
          >
          <button type="button" aria-label="take {copy.card.name} off" onclick={() => off(i)}>off</button>
        </span>
      </li>
    {/each}
  </ol>
  {#if others.length}
    <h3>Goes along</h3>
    <ol>
      {#each others as { copy, i } (copy.key)}
        <li>
          <span>{copy.card.name}</span>
          <span class="label">{KIND_NAMES[copy.card.kind]}, {write(copy.card.mass_g ?? 0, 'g')}</span>
          <span class="tools"
            >{@render card(copy)}<button
              type="button"
              aria-label="take {copy.card.name} off"
              onclick={() => off(i)}>off</button
            ></span
          >
        </li>
      {/each}
    </ol>
  {/if}
</div>

{#snippet card(copy: (typeof numbered)[number]['copy'])}
  {#if copy.card_id}<a
      href="/kit/{copy.card_id}/{sheet.id}"
      aria-label="card of {copy.card.name}"
      onclick={router.follow}>card</a
    >{/if}
{/snippet}

<style>
  ol {
    margin-bottom: 10px;
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 10px;
    border-top: 1px solid var(--hair);
    padding: 3px 0;
  }
  li .label {
    grid-column: 1;
  }
  .part {
    font-weight: 600;
    text-align: left;
    min-height: 24px;
  }
  .tools {
    grid-column: 2;
    grid-row: 1 / 3;
    display: flex;
    gap: 10px;
    align-items: center;
  }
  .tools :is(button, a) {
    min-width: 24px;
    min-height: 24px;
    color: var(--second);
    text-decoration: underline;
    text-underline-offset: 2px;
  }
  .tools :is(button, a):hover {
    color: var(--ink);
  }
  @media (max-width: 760px) {
    .tools :is(button, a),
    .part {
      min-height: 44px;
      min-width: 44px;
    }
  }
</style>

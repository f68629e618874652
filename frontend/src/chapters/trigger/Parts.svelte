<script lang="ts">
  /** The parts of the chain, each one step from its card; and the pin that fires. */
  import type { KitCard } from '../../api/client';
  import { KIND_NAMES } from '../../kit/fields';
  import Editable from '../../parts/Editable.svelte';
  import NameField from '../../parts/NameField.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import { router } from '../../router.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    KINDS: readonly KitCard['kind'][];
  }
  let { KINDS }: Props = $props();
  const sheet = theSheet();
  const copies = $derived(sheet.plan.kit.copies.map((copy, at) => ({ copy, at })));
  const parts = $derived(copies.filter(({ copy }) => KINDS.includes(copy.card.kind)));
  const source = $derived(copies.find(({ copy }) => copy.card.kind === 'trigger'));
  const driven = $derived(sheet.evaluation.trigger.output === 'pin');
  const phone = $derived(copies.some(({ copy }) => copy.card.kind === 'phone'));
  /** A link that can be too long; an app on the phone that takes the pictures has none. */
  const radio = $derived(
    !(phone && sheet.evaluation.trigger.source === 'app') &&
      ['wireless remote', 'app', 'camera board', 'computer'].includes(sheet.evaluation.trigger.source ?? '')
  );
  const off = (at: number) =>
    void sheet.change([{ do: 'fit', copies: sheet.plan.kit.copies.filter((_, n) => n !== at) }]);
</script>

<section>
  <h3>The parts</h3>
  <ul>
    {#each parts as { copy, at } (copy.key)}
      <li>
        <span>{copy.card.name}</span>
        <span class="label">{KIND_NAMES[copy.card.kind]}</span>
        <span class="tools">
          {#if copy.card_id}<a
              class="link"
              href="/kit/{copy.card_id}/{sheet.id}"
              onclick={router.follow}
              aria-label="to the card of {copy.card.name}">card</a
            >{/if}
          <button type="button" class="link" aria-label="take {copy.card.name} off" onclick={() => off(at)}
            >off</button
          >
        </span>
      </li>
    {/each}
  </ul>
  {#if driven && source}
    <h4>The pin</h4>
    <Rows>
      <Row label="which pin"
        ><NameField path="trigger.pin" label="which pin fires" value={sheet.plan.trigger!.pin ?? ''} /></Row
      >
      <Row label="measured on it, while it is on">
        <Editable
          path="kit.copies.{source.at}.card.volts"
          label="measured on the pin while it is on"
          unit="V"
          min={0.1}
          empty="not measured"
        />
      </Row>
    </Rows>
  {/if}
  {#if radio && source}
    <h4>The link</h4>
    <Rows>
      <Row label="from the camera to it">
        <Editable
          path="trigger.distance_mm"
          label="from the camera to what calls it"
          unit="mm"
          empty="not said"
        />
      </Row>
    </Rows>
  {/if}
</section>

<style>
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 10px;
    border-top: 1px solid var(--hair);
    padding: 2px 0;
  }
  .tools {
    display: flex;
    align-items: baseline;
    gap: 12px;
    margin-left: auto;
  }
</style>

<script lang="ts">
  /** The pins of a board, and what each is used for already. */
  import type { KitCard } from '../api/client';
  import type { Desk } from './desk.svelte';

  interface Props {
    desk: Desk;
    card: Extract<KitCard, { kind: 'trigger' }>;
  }
  let { desk, card }: Props = $props();
  const pins = $derived(card.pins ?? []);
  const put = (next: typeof pins) => void desk.set('pins', next);
  const change = (n: number, more: Partial<(typeof pins)[number]>) =>
    put(pins.map((pin, at) => (at === n ? { ...pin, ...more } : pin)));
</script>

<section>
  <h3>Its pins</h3>
  {#if pins.length}
    <table>
      <thead><tr><th scope="col">pin</th><th scope="col">used for</th><td></td></tr></thead>
      <tbody>
        {#each pins as pin, n (n)}
          <tr>
            <td
              ><input
                class="field"
                value={pin.name}
                maxlength="40"
                aria-label="pin {n + 1}, its name"
                onchange={(event) => change(n, { name: event.currentTarget.value.trim() || pin.name })}
              /></td
            >
            <td
              ><input
                class="field"
                value={pin.used_for}
                maxlength="80"
                placeholder="free"
                aria-label="what {pin.name} is used for"
                onchange={(event) => change(n, { used_for: event.currentTarget.value.trim() })}
              /></td
            >
            <td
              ><button
                type="button"
                class="link"
                aria-label="Take pin {pin.name} away"
                onclick={() => put(pins.filter((_, at) => at !== n))}>drop</button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}<p class="label">None is written down: then nothing is said of one that is in use already.</p>{/if}
  <button
    type="button"
    class="link"
    onclick={() => put([...pins, { name: `pin ${pins.length + 1}`, used_for: '' }])}>+ pin</button
  >
</section>

<style>
  section {
    margin-top: 10px;
  }
  th {
    text-align: left;
    font-weight: 450;
    color: var(--second);
  }
  td .field {
    width: 100%;
  }
</style>

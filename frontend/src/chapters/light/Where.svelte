<script lang="ts">
  /** Where the camera stands on earth: as people write it, with the clock that goes there. */
  import { api, sentence } from '../../api/client';
  import type { components } from '../../api/schema';
  import { number } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';

  let { brief = false }: { brief?: boolean } = $props();
  type Found = components['schemas']['PlaceFound'];
  const sheet = theSheet();
  const place = $derived(sheet.plan.shoot.place!);
  const known = $derived(place.latitude_deg !== null && place.longitude_deg !== null);
  let typing = $state(false);
  let text = $state('');
  let trouble = $state('');
  let zone = $state('');
  let remembered = $state.raw<Found[]>([]);

  $effect(() => {
    if (typing || !brief)
      void api.GET('/api/places').then(
        ({ data }) => (remembered = data ?? []),
        () => {}
      );
  });

  const half = (degrees: number, ways: [string, string]) =>
    `${number(Math.abs(degrees), 5)}° ${ways[degrees < 0 ? 1 : 0]}`;
  const written = $derived(
    known ? `${half(place.latitude_deg!, ['N', 'S'])}, ${half(place.longitude_deg!, ['E', 'W'])}` : ''
  );

  async function find(event: SubmitEvent) {
    event.preventDefault();
    trouble = '';
    const answer = await api.POST('/api/places/read', { body: { text } }).catch((error: unknown) => {
      trouble = sentence(error);
      return null;
    });
    if (!answer) return;
    if (answer.data) await take(answer.data);
    else trouble = sentence(answer.error);
  }

  async function take(found: Found) {
    typing = false;
    text = '';
    const edits = [
      { path: 'shoot.place.latitude_deg', value: found.latitude_deg },
      { path: 'shoot.place.longitude_deg', value: found.longitude_deg },
      ...(found.name && !place.name ? [{ path: 'shoot.place.name', value: found.name }] : [])
    ];
    await sheet.apply(edits);
    zone = found.zone && found.zone !== place.zone ? found.zone : '';
  }
</script>

{#if known && brief && !typing}
  <p class="line">
    {place.name || 'the place'},
    <button type="button" class="link" onclick={() => (typing = true)}>{written}</button>
    {#if zone}
      <span class="label">the clock there is {zone}</span>
      <button
        type="button"
        class="link"
        onclick={() => {
          sheet.put('shoot.place.zone', zone);
          zone = '';
        }}>go by it</button
      >{/if}
  </p>
{:else}
  <form onsubmit={find}>
    <label class="label" for="where-text">latitude and longitude</label>
    <input
      id="where-text"
      class="field"
      bind:value={text}
      placeholder="57.32 N, 6.18 W or 57°19′12″ N 6°10′48″ W"
      autocomplete="off"
      aria-invalid={!!trouble}
      aria-describedby={trouble ? 'where-trouble' : undefined}
    />
    <button class="act small" disabled={!text.trim()}>Stand there</button>
    {#if brief}<button type="button" class="link" onclick={() => (typing = false)}>as it was</button>{/if}
    {#if trouble}<p id="where-trouble" role="alert">{trouble}</p>{/if}
  </form>
  {#if remembered.length}
    <p class="label">
      or again at {#each remembered.slice(0, 6) as one, n (n)}{n ? ', ' : ''}<button
          type="button"
          class="link"
          onclick={() => void take(one)}
          >{one.name || `${number(one.latitude_deg, 5)}, ${number(one.longitude_deg, 5)}`}</button
        >{/each}
    </p>
  {/if}
{/if}

<style>
  .line {
    line-height: 1.85;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 4px 12px;
  }
  form .field {
    flex: 1 1 240px;
    width: auto;
  }
  form p {
    flex-basis: 100%;
  }
</style>

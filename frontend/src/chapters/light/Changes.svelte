<script lang="ts">
  /** Every change of setting, with its frame and its clock time. */
  import { clock, number, shortDay, shutter } from '../../format';
  import TakeAlong from '../../parts/TakeAlong.svelte';
  import { router } from '../../router.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { Taken } from '../../sheet/taken.svelte';

  const sheet = theSheet();
  const taken = new Taken(sheet.id);
  const light = $derived(sheet.evaluation.light);
  const changes = $derived(light.changes ?? []);
  const long = $derived((sheet.figure('clip.shoot')?.value ?? 0) > 86_400);
  const filtered = $derived(changes.some(({ density }) => density > 0));
  const now = $derived(changes.filter(({ frame }) => frame <= sheet.playhead.at).length - 1);
</script>

{#if !changes.length}
  <p class="mono-note">
    {#if light.missing?.length}The changes are told as soon as the light is known.
    {:else}One exposure for all frames: there is nothing to change.{/if}
  </p>
{:else}
  <div class="leaf">
    <p class="acts">
      <TakeAlong format="changes" {taken} />
      <a class="link" href="/shoots/{sheet.id}/dark" onclick={router.follow}
        >by hand in the dark: a page for the phone</a
      >
    </p>
    <table>
      <thead>
        <tr>
          <th scope="col">before frame</th>
          <th scope="col">at</th>
          <th scope="col">shutter</th>
          <th scope="col">ISO</th>
          <th scope="col">aperture</th>
          {#if filtered}<th scope="col">filter</th>{/if}
        </tr>
      </thead>
      <tbody>
        {#each changes as change, n (change.frame)}
          {@const moved = (name: string) => n === 0 || change.moved?.includes(name)}
          <tr class:now={n === now}>
            <td
              ><button type="button" class="link" onclick={() => sheet.playhead.to(change.frame)}
                >{number(change.frame + 1, 9)}</button
              ></td
            >
            <td>{long ? `${shortDay(change.moment, sheet.zone)}, ` : ''}{clock(change.moment, sheet.zone)}</td
            >
            <td class:moved={moved('shutter')}>{shutter(change.shutter_s)}</td>
            <td class:moved={moved('iso')}>{number(change.iso, 6)}</td>
            <td class:moved={moved('aperture')}>f/{number(change.aperture)}</td>
            {#if filtered}<td class:moved={moved('filter')}
                >{change.density ? `${number(change.density)} stops` : 'off'}</td
              >{/if}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}

<style>
  td {
    padding: 1px 12px 1px 0;
    color: var(--second);
  }
  .moved {
    color: var(--ink);
    font-weight: 650;
  }
  .now {
    background: var(--wash);
  }
  .now td {
    color: var(--ink);
  }
</style>

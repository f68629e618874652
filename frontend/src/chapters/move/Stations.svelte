<script lang="ts">
  /** The stations that the rig goes round in every interval. */
  import Editable from '../../parts/Editable.svelte';
  import NameField from '../../parts/NameField.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    stations: readonly { name: string }[];
  }
  let { stations }: Props = $props();
  const sheet = theSheet();
  const MOST = 20;
  const STANDS = { slide: 'slide_mm', pan: 'pan_deg', tilt: 'tilt_deg' } as const;
  const axes = $derived(
    (['slide', 'pan', 'tilt'] as const).filter((name) =>
      sheet.plan.rig.axes.some((axis) => axis.name === name)
    )
  );
</script>

<p class="mono-note">
  The rig goes round all of them in every interval; each makes a clip of its own. The keyframes do not count.
</p>
<table>
  <thead
    ><tr
      ><th scope="col">station</th>{#each axes as axis (axis)}<th scope="col" class="!text-right">{axis}</th
        >{/each}<td></td></tr
    ></thead
  >
  <tbody>
    {#each stations as station, n (n)}
      {@const path = `move.visits.stations.${n}`}
      <tr>
        <td><NameField path="{path}.name" label="name of station {n + 1}" value={station.name} /></td>
        {#each axes as axis (axis)}
          <td class="text-right"
            ><Editable
              path="{path}.{STANDS[axis]}"
              label="{axis} at {station.name}"
              unit={axis === 'slide' ? 'mm' : 'deg'}
              min={-1e6}
            /></td
          >
        {/each}
        <td class="text-right">
          {#if stations.length > 1}
            <button
              type="button"
              class="link"
              aria-label="Take {station.name} away"
              onclick={() => sheet.drop(path)}>take away</button
            >
          {/if}
        </td>
      </tr>
    {/each}
  </tbody>
</table>
<button
  type="button"
  class="link"
  disabled={stations.length >= MOST}
  onclick={() => sheet.begin('move.visits.stations')}>+ a station</button
>

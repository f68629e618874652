<script lang="ts">
  /** Both ways to move, side by side. */
  import { number } from '../../format';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const NAMES: Record<string, string> = {
    'shoot-move-shoot': 'Shoot, move, shoot',
    continuous: 'Move all the time'
  };
</script>

<table>
  <caption>Two ways to move</caption>
  <thead>
    <tr>
      <td></td>
      <th scope="col">shortest interval</th>
      <th scope="col">smear</th>
      <th scope="col">blur</th>
      <th scope="col">on site at the least</th>
      <td></td>
    </tr>
  </thead>
  <tbody>
    {#each sheet.evaluation.schools as { school, suits, smear_px, risk, here } (school)}
      <tr class:here>
        <th scope="row">{NAMES[school]}<span class="label block max-w-[46ch] font-[450]">{suits}</span></th>
        <td data-label="shortest interval"><Working figure="school.{school}.shortest" /></td>
        <td data-label="smear"
          >{#if smear_px === null}not known{:else if school === 'continuous' && smear_px}<Working
              figure="beat.smear"
              shown="{number(smear_px, 3)} px"
            /><span class="label block font-[450]"
              >half a pixel with <Working figure="beat.smear.half" /></span
            >{:else}none{/if}</td
        >
        <td data-label="blur">{risk}</td>
        <td data-label="on site at the least"><Working figure="school.{school}.on_site" /></td>
        <td>
          {#if here}<b>in use</b>{:else}<button
              type="button"
              class="act quiet small"
              onclick={() => sheet.put('beat.school', school)}>Switch to it</button
            >{/if}
        </td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    width: 100%;
    margin-top: 10px;
    font-size: 13px;
  }
  caption {
    text-align: left;
    font-weight: 650;
    border-top: 1px solid var(--hair);
    padding-top: 8px;
  }
  thead th {
    font-size: 12px;
    font-stretch: 88%;
    font-weight: 450;
    color: var(--second);
  }
  th,
  td {
    padding: 4px 10px 4px 0;
    vertical-align: top;
    text-align: left;
  }
  tbody tr {
    border-top: 1px solid var(--hair);
  }
  .here th {
    border-left: 4px solid var(--ink);
    padding-left: 8px;
  }
  @media (max-width: 760px) {
    table,
    tbody,
    tr,
    th,
    td {
      display: block;
    }
    thead {
      display: none;
    }
    caption {
      display: block;
      width: 100%;
    }
    td[data-label]::before {
      content: attr(data-label) ': ';
      color: var(--second);
    }
  }
</style>

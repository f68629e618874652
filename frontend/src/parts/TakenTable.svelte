<script lang="ts">
  /** Planned against taken, for one entry of the logbook. */
  import type { LogLine } from '../api/client';
  import { number } from '../format';
  import Working from './Working.svelte';

  let { entry }: { entry: LogLine } = $props();
  const figures = $derived(Object.fromEntries(entry.figures.map((figure) => [figure.key, figure])));
  const rows = [
    { label: 'on site', planned: 'log.planned', taken: 'log.taken' },
    { label: 'clip', planned: 'log.clip_planned', taken: 'log.clip_taken' }
  ];
</script>

<table>
  <thead>
    <tr><td></td><th scope="col">planned</th><th scope="col">taken</th></tr>
  </thead>
  <tbody>
    <tr>
      <th scope="row">frames</th>
      <td>{number(entry.planned_frames, 12)}</td>
      <td>{number(entry.taken_frames, 12)}</td>
    </tr>
    {#each rows as row, i (i)}
      <tr>
        <th scope="row">{row.label}</th>
        <td><Working figure={figures[row.planned]} /></td>
        <td><Working figure={figures[row.taken]} /></td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    width: 100%;
    align-self: start;
    margin: 6px 0 12px;
  }
  th {
    text-align: left;
    font-weight: 450;
    color: var(--second);
    padding: 2px 0;
  }
  td,
  thead th {
    text-align: right;
  }
  tbody tr {
    border-bottom: 1px solid var(--hair);
  }
  td {
    font-weight: 600;
  }
</style>

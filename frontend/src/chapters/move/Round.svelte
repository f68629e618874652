<script lang="ts">
  /** Several pictures in each cycle: stations, a panorama row, a stereo pair. */
  import Choice from '../../parts/Choice.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Stations from './Stations.svelte';

  const sheet = theSheet();
  const visits = $derived(sheet.plan.move.visits);
  const ROUNDS = [
    { value: 'none', label: 'one picture' },
    { value: 'stations', label: 'stations' },
    { value: 'row', label: 'panorama row' },
    { value: 'stereo', label: 'stereo pair' }
  ] as const;
</script>

<h3>In each cycle</h3>
<Choice
  label="Pictures in each cycle"
  options={ROUNDS}
  value={visits?.kind ?? 'none'}
  onchoose={(kind) => sheet.begin('move.visits', kind)}
/>
{#if visits?.kind === 'stations'}<Stations stations={visits.stations} />{/if}
{#if visits}
  <Rows>
    {#if visits.kind === 'row'}
      {#if !visits.closed}
        <Row label="sweep" path="move.visits.sweep_deg" name="sweep of the row" unit="deg" min={1} />
      {/if}
      <Row label="overlap, at the least" path="move.visits.overlap" name="overlap" unit="share" />
      <Row label="">
        <Tick checked={visits.closed} onchange={(on) => sheet.put('move.visits.closed', on)}
          >all the way round</Tick
        >
      </Row>
      <FigureRow label="pictures in a row" figure="round.row" />
      <FigureRow label="true overlap" figure="round.overlap" />
    {:else if visits.kind === 'stereo'}
      <Row label="base" path="move.visits.base_mm" name="stereo base" unit="mm" min={0.1} />
    {/if}
    <FigureRow label="pictures in all" figure="round.pictures" />
    <FigureRow label="one cycle needs" figure="beat.need" />
  </Rows>
{/if}

<script lang="ts">
  /** How this reader wants figures written: metric or imperial, 24 or 12 hours. Typed text is read in any unit. */
  import Choice from '../parts/Choice.svelte';
  import Modal from '../parts/Modal.svelte';
  import { ORDERS, reader, type Order } from '../reader.svelte';
  import { write } from '../format';

  let { open = $bindable() }: { open: boolean } = $props();
</script>

<Modal bind:open title="Units">
  <p class="row">
    <span>Lengths and masses</span>
    <Choice
      label="Lengths and masses"
      value={reader.imperial ? 'imperial' : 'metric'}
      options={[
        { value: 'metric', label: 'millimetres, grams' },
        { value: 'imperial', label: 'feet and inches, pounds' }
      ]}
      onchoose={(value) => reader.choose({ imperial: value === 'imperial' })}
    />
  </p>
  <p class="row">
    <span>The clock</span>
    <Choice
      label="The clock"
      value={reader.twelve ? '12' : '24'}
      options={[
        { value: '24', label: '24 hours' },
        { value: '12', label: '12 hours' }
      ]}
      onchoose={(value) => reader.choose({ twelve: value === '12' })}
    />
  </p>
  <p class="row">
    <span>A day</span>
    <Choice
      label="A day"
      value={reader.order}
      options={(Object.keys(ORDERS) as Order[]).map((value) => ({ value, label: ORDERS[value].label }))}
      onchoose={(order) => reader.choose({ order })}
    />
  </p>
  <p class="label">
    So a rail of {write(900, 'mm')}, a head of {write(1240, 'g')}, a start at {write(
      1_790_532_600,
      'instant'
    )}. A length typed without a unit is in {reader.imperial ? 'inches' : 'millimetres'}; with one (<i
      >1.2 m</i
    >, <i>40in</i>, <i>5' 4 1/2"</i>) it is read as it stands. Focal lengths stay in millimetres.
  </p>
</Modal>

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 16px;
    align-items: center;
    justify-content: space-between;
    margin-bottom: 12px;
  }
  i {
    font-style: normal;
    font-weight: 600;
  }
</style>

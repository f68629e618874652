<script lang="ts">
  /** How far, how fast and how evenly each axis goes; and what the rings of the lens are set to at which turn. */
  import Editable from '../../parts/Editable.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { SHOWN } from './axes';

  const sheet = theSheet();
  type Field = 'low' | 'high' | 'top_speed' | 'acceleration' | 'backlash';
  interface Limit {
    field: Field;
    label: string;
    per: string;
    min: number;
  }
  const ROWS: Limit[] = [
    { field: 'low', label: 'reaches from', per: '', min: -1e6 },
    { field: 'high', label: 'to', per: '', min: -1e6 },
    { field: 'top_speed', label: 'top speed', per: '/s', min: 0.1 },
    { field: 'acceleration', label: 'acceleration', per: '/s²', min: 0.1 },
    { field: 'backlash', label: 'backlash', per: '', min: 0 }
  ];
  const axes = $derived(sheet.plan.rig.axes.map((axis, index) => ({ ...axis, path: `rig.axes.${index}` })));
  const programmed = $derived<string[]>(sheet.evaluation.programmed);
  /** Whether a limit means anything on an axis: a spring has no top speed. */
  const means = (axis: (typeof axes)[number], field: Field) =>
    field === 'low' || field === 'high' || programmed.includes(axis.name) || !!axis[field];
  const rows = $derived(ROWS.filter(({ field }) => axes.some((axis) => means(axis, field))));
  const rings = $derived(axes.filter((axis) => axis.name === 'focus' || axis.name === 'zoom'));
  const LETTERS = ['X', 'Y', 'Z', 'A', 'B', 'C'];
</script>

<h3>The axes</h3>
<table class="limits">
  <thead
    ><tr
      ><td></td>{#each axes as { name } (name)}<th scope="col">{name}</th>{/each}</tr
    ></thead
  >
  <tbody>
    {#if programmed.length}<tr>
        <th scope="row">letter in the program</th>
        {#each axes as { name, path } (name)}
          <td>
            {#if programmed.includes(name)}<select
                class="field"
                aria-label="letter of the {name}"
                value={sheet.evaluation.letters[name]}
                onchange={(event) => void sheet.set(`${path}.letter`, event.currentTarget.value)}
              >
                {#each LETTERS as each (each)}<option>{each}</option>{/each}
              </select>{/if}
          </td>
        {/each}
      </tr>{/if}
    {#each rows as { field, label, per, min } (field)}
      <tr>
        <th scope="row">{label}</th>
        {#each axes as axis (axis.name)}
          {@const { name, path, kind } = axis}
          <td>
            {#if means(axis, field)}<Editable
                path="{path}.{field}"
                label="{name} {label}"
                unit="{kind === 'linear' ? 'mm' : 'deg'}{per}"
                {min}
                empty={field === 'top_speed' || field === 'acceleration' ? 'not known' : undefined}
              />{/if}
          </td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
{#each rings as { name, path, ring } (name)}
  <h4>Ring of the {name}: turned by, set to</h4>
  <p class="acts my-1.5">
    {#each ring.keys() as n (n)}
      <span class="inline-flex gap-2">
        <Editable path="{path}.ring.{n}.turn_deg" label="turn at mark {n + 1}" unit="deg" min={-1e6} />
        <Editable
          path="{path}.ring.{n}.value_mm"
          label="set to at mark {n + 1}"
          unit={SHOWN[name].unit}
          min={1}
        />
      </span>
    {:else}
      <button type="button" class="link" onclick={() => sheet.begin(`${path}.ring`)}
        >read the marks off the lens</button
      >
    {/each}
  </p>
{/each}

<style>
  .limits tbody th {
    font-weight: 450;
    color: var(--second);
  }
  .limits thead th {
    font-size: 13px;
    font-weight: 600;
    color: inherit;
  }
  .limits :is(td, thead th) {
    text-align: right;
  }
  .field {
    width: auto;
    background: var(--sheet);
    min-height: 26px;
    padding: 0;
  }
  @media (max-width: 760px) {
    .field {
      min-width: 44px;
      min-height: 44px;
    }
  }
</style>

<script lang="ts">
  /** How far away a mark is, from aiming at it twice. */
  import type { Plan } from '../../api/client';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    index: number;
    mark: Plan['move']['marks'][number];
  }
  let { index, mark }: Props = $props();
  const sheet = theSheet();
  const path = $derived(`move.marks.${index}.aimed`);
</script>

{#if mark.aimed}
  <h4>
    Aimed at twice <button type="button" class="link" onclick={() => sheet.put(path, null)}>forget it</button>
  </h4>
  <Rows>
    {#each [1, 2] as const as n (n)}
      <Row label="{n === 1 ? 'first' : 'second'}: slide, pan">
        <Editable path="{path}.slide_{n}_mm" label="slide at aim {n}" unit="mm" min={-1e6} />
        <Editable path="{path}.pan_{n}_deg" label="pan at aim {n}" unit="deg" min={-360} />
      </Row>
    {/each}
    <Row
      label="a pan is read to within"
      path="{path}.doubt_deg"
      name="doubt of a pan"
      unit="deg"
      min={0.01}
    />
    <FigureRow label="it stands off the rail" figure="aimed.{index}.away" />
    {#if sheet.figure(`aimed.${index}.near`)}
      <Row label="for all that is known">
        <Working figure="aimed.{index}.near" /> to <Working figure="aimed.{index}.far" />
      </Row>
    {/if}
    <FigureRow label="along the rail" figure="aimed.{index}.along" />
    {#if sheet.figure(`aimed.${index}.left`)}
      <Row label="for all that is known">
        <Working figure="aimed.{index}.left" /> to <Working figure="aimed.{index}.right" />
      </Row>
    {/if}
  </Rows>
{:else}
  <button type="button" class="link" onclick={() => sheet.begin(path)}>measure it by aiming twice</button>
{/if}

<script lang="ts">
  /** Marks to set by hand, as a list to print: at which frame, at what time, the scale of each axis stands where. */
  import { api, sentence, type Plan } from '../../api/client';
  import type { components } from '../../api/schema';
  import { clock, number, write } from '../../format';
  import Outdated from '../../parts/Outdated.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    axes: string[];
  }
  let { axes }: Props = $props();
  type List = components['schemas']['MarksToSet'];
  const sheet = theSheet();
  let list = $state.raw<List>();
  let listed = $state.raw<Plan>();
  let wrong = $state('');
  let busy = $state(false);

  async function make() {
    busy = true;
    wrong = '';
    try {
      await sheet.answered();
      const plan = sheet.plan;
      const answer = await api.POST('/api/marks-to-set', { body: { plan } });
      list = answer.data;
      listed = plan;
      if (!answer.data) wrong = sentence(answer.error);
    } catch (error) {
      wrong = sentence(error);
    }
    busy = false;
  }
</script>

<h3>Marks to set by hand</h3>
<p class="row no-print">
  <button
    type="button"
    class="act quiet"
    disabled={busy || !sheet.evaluation.frames}
    onclick={() => void make()}>{list ? 'List them again' : 'List the marks'}</button
  >
  {#if list}<button type="button" class="link" onclick={() => window.print()}>print the list</button>{/if}
  <span class="label">for {axes.join(', ')}; one line for each new mark of a scale</span>
</p>
{#if wrong}<p role="alert">{wrong}</p>{/if}
{#if list}
  <div class="list print-alone">
    <h4>{sheet.plan.shoot.name}: marks to set</h4>
    <Outdated of={listed} />
    <table>
      <thead
        ><tr
          ><th scope="col">frame</th><th scope="col">before</th>{#each list.axes as axis (axis.name)}<th
              scope="col">{axis.name}</th
            >{/each}</tr
        ></thead
      >
      <tbody>
        {#each list.lines as line, i (i)}
          <tr>
            <td>{number(line.frame, 12)}</td>
            <td>{clock(line.clock, sheet.zone)}</td>
            {#each list.axes as axis, n (axis.name)}<td>{write(line.marks[n] ?? 0, axis.unit)}</td>{/each}
          </tr>
        {/each}
      </tbody>
    </table>
    {#if list.left}<p class="mono-note">
        {number(list.left, 12)} more lines follow the same way; take the table of steps for all of them.
      </p>{/if}
  </div>
{/if}

<style>
  h3 {
    border-top: 1px solid var(--ink);
    padding-top: 4px;
    margin: 14px 0 4px;
    font-size: 14px;
  }
  h4 {
    font-weight: 650;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: center;
  }
  .list {
    max-height: 260px;
    overflow: auto;
    margin-top: 6px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }
  th {
    text-align: right;
    font-weight: 450;
    font-size: 12px;
    color: var(--second);
  }
  td {
    text-align: right;
    border-top: 1px solid var(--hair);
  }
</style>

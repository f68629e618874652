<script lang="ts">
  /** Locked, ramped and automatic over the same light, side by side; one click changes over. */
  import { number, say } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const schools = $derived(sheet.evaluation.light.schools ?? []);
  /** A camera of which nobody has said whether it stays as it is set. */
  const untried = $derived(
    sheet.plan.kit?.copies?.find(
      ({ card }) => 'holds_exposure' in card && card.holds_exposure === 'not known'
    )?.card.name
  );
  const frames = $derived(sheet.evaluation.frames ?? 0);
  const NAMES = { locked: 'Locked', ramped: 'Ramped', automatic: 'Automatic' } as const;
  const off = (stops: number) => (stops < 0.005 ? '0' : say(Number(stops.toFixed(2)), ''));
  const choose = (school: string) => void sheet.set('light.school', school);
</script>

<table>
  <thead>
    <tr>
      <th scope="col">Exposed</th>
      <th scope="col">too bright, at most</th>
      <th scope="col">too dark, at most</th>
      <th scope="col">beyond mending</th>
      <th scope="col">changes</th>
      <th scope="col">flicker</th>
    </tr>
  </thead>
  <tbody>
    {#each schools as one (one.school)}
      <tr class:here={one.here}>
        <th scope="row">
          <label>
            <input
              type="radio"
              name="light-school"
              class="sr-only"
              checked={one.here}
              onchange={() => choose(one.school)}
            /><i class:on={one.here}></i>{NAMES[one.school]}
          </label>
        </th>
        <td data-label="too bright, at most">{off(one.over_stops)} stops</td>
        <td data-label="too dark, at most">{off(one.under_stops)} stops</td>
        <td data-label="beyond mending"
          >{one.outside ? `${number(one.outside, 7)} of ${number(frames, 7)}` : 'none'}</td
        >
        <td data-label="changes">{number(one.changes, 7)}</td>
        <td data-label="flicker">{one.risk}</td>
      </tr>
    {/each}
  </tbody>
</table>
{#if untried}
  <p class="label why">
    Nobody has tried whether the {untried} holds its exposure, white balance and focus. Lock them, cover the lens
    for three frames, and compare: what moves then flickers later. Its card keeps the answer; steady lamps are the
    remedy.
  </p>
{/if}
{#each schools as one (one.school)}
  {#if one.here}
    <p class="label why">
      {one.suits}
      {#if !one.measured}
        No test exposure says what is right: it is taken as right for the first frame.
      {/if}
    </p>
  {/if}
{/each}

<style>
  thead th {
    padding-right: 12px;
  }
  td {
    padding: 1px 12px 1px 0;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 8px;
    min-height: 26px;
    cursor: pointer;
  }
  label:has(:focus-visible) {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  i {
    width: 12px;
    height: 12px;
    border: 1.6px solid var(--ink);
  }
  i.on {
    background: var(--ink);
  }
  .why {
    margin-top: 2px;
    max-width: 110ch;
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
    label {
      min-height: 44px;
    }
    td[data-label]::before {
      content: attr(data-label) ': ';
      color: var(--second);
    }
  }
</style>

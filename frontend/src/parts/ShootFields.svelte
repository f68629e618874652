<script lang="ts" module>
  import type { components } from '../api/schema';

  export type ShootKind = NonNullable<components['schemas']['NewShoot']['kind']>;
  export interface Answers {
    name: string;
    subject: string;
    place: string;
    zone: string;
    start: string;
    kind?: ShootKind;
  }
</script>

<script lang="ts">
  /** The questions about a shoot: what it is called, what is filmed, where and when. */
  import ShootKinds from './ShootKinds.svelte';
  import DayAndTime from './DayAndTime.svelte';
  import { offset, skipped, toInstant, toLocal, zones } from '../time';

  interface Props {
    first: Answers;
    button: string;
    trouble: string;
    onanswer: (answers: Answers) => void;
    /** Whether it is asked what kind of shoot it is to be. */
    asksKind?: boolean;
  }
  let { first, button, trouble, onanswer, asksKind = false }: Props = $props();

  // svelte-ignore state_referenced_locally
  let { name, subject, place, zone } = $state({ ...first });
  // svelte-ignore state_referenced_locally
  let when = $state(toLocal(Date.parse(first.start) / 1000, first.zone));
  let kind = $state<ShootKind>('slide');
  let wrong = $state<{ name?: string; when?: string }>({});
  const all = zones();
  const ahead = $derived.by(() => {
    const start = toInstant(when, zone);
    if (!start) return '';
    const hours = offset(Date.parse(start) / 1000, zone) / 3600;
    return `${hours < 0 ? '−' : '+'}${Math.abs(hours)} h from UTC on that day`;
  });

  function answer(event: SubmitEvent) {
    event.preventDefault();
    const start = toInstant(when, zone);
    wrong = {
      ...(name.trim() ? {} : { name: 'A shoot needs a name to be found by, such as “Harbour at dawn”.' }),
      ...(start ? {} : { when: 'Give a day and a time, such as 27 September 2026, 06:10.' }),
      ...(start && skipped(when, zone)
        ? { when: 'There is no such hour on that day: the clocks go forward over it.' }
        : {})
    };
    if (start && name.trim() && !wrong.when)
      onanswer({ name: name.trim(), subject, place, zone, start, ...(asksKind ? { kind } : {}) });
  }
</script>

<form onsubmit={answer} novalidate>
  {#if asksKind}<ShootKinds bind:kind />{/if}
  <div>
    <label for="shoot-name">What is it called?</label>
    <input
      id="shoot-name"
      class="field"
      bind:value={name}
      maxlength="120"
      autocomplete="off"
      aria-invalid={!!wrong.name}
      aria-describedby="shoot-name-wrong"
    />
    <p class="wrong" id="shoot-name-wrong" role={wrong.name ? 'alert' : undefined}>{wrong.name ?? ''}</p>
  </div>
  <div>
    <label for="shoot-subject">What is filmed?</label>
    <input id="shoot-subject" class="field" bind:value={subject} maxlength="400" autocomplete="off" />
  </div>
  <div class="row">
    <div>
      <label for="shoot-place">Where and when?</label>
      <input
        id="shoot-place"
        class="field"
        bind:value={place}
        maxlength="120"
        placeholder="place"
        autocomplete="off"
      />
    </div>
    <div>
      <DayAndTime
        bind:value={when}
        label="day and time on the clock there"
        invalid={!!wrong.when}
        describedby="shoot-when-wrong"
      />
    </div>
  </div>
  <p class="wrong" id="shoot-when-wrong" role={wrong.when ? 'alert' : undefined}>{wrong.when ?? ''}</p>
  <div>
    <label for="shoot-zone" class="label">time zone</label>
    <select id="shoot-zone" class="field" bind:value={zone}>
      {#each all as one (one)}<option value={one}>{one.replaceAll('_', ' ')}</option>{/each}
    </select>
    <p class="label">{ahead}</p>
  </div>
  {#if trouble}<p class="wrong" role="alert">{trouble}</p>{/if}
  <button class="act" type="submit">{button}</button>
</form>

<style>
  form {
    display: grid;
    gap: 14px;
  }
  label {
    display: block;
    font-weight: 600;
  }
  label.label {
    font-weight: 450;
  }
  .row {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 20px;
    align-items: end;
  }
  .wrong {
    color: var(--stop);
    font-size: 13px;
  }
  .wrong:empty {
    display: none;
  }
  [aria-invalid='true'] {
    border-bottom: 3px double var(--stop);
  }
  option {
    background: var(--sheet);
    color: var(--ink);
  }
  .act {
    justify-self: start;
    margin-top: 4px;
  }
  @media (max-width: 480px) {
    .row {
      grid-template-columns: 1fr;
      gap: 12px;
    }
    input,
    select {
      min-height: 44px;
      font-size: 16px;
    }
  }
</style>

<script lang="ts">
  /** The logbook: what was planned, what was taken, what to do differently. */
  import { onMount } from 'svelte';
  import { api, sentence, type LogLine } from '../api/client';
  import { day, duration, number } from '../format';
  import NoteField from '../parts/NoteField.svelte';
  import { router } from '../router.svelte';
  import { ownZone } from '../zones';

  let entries = $state.raw<LogLine[] | null>(null);
  let trouble = $state('');
  const OUTCOMES: Record<string, string> = { finished: 'all frames taken', stopped: 'stopped early' };

  onMount(async () => {
    try {
      entries = (await api.GET('/api/log')).data?.entries ?? [];
    } catch (error) {
      trouble = sentence(error);
    }
  });

  const rows = (entry: LogLine) => [
    ['frames', number(entry.planned_frames, 12), number(entry.taken_frames, 12)],
    ['on site', duration(entry.planned_s), duration(Math.round(entry.taken_s))],
    ['clip', duration(entry.clip_planned_s), duration(entry.clip_taken_s)]
  ];
</script>

<svelte:head><title>Logbook · Bridle</title></svelte:head>

<main>
  <h1>Logbook</h1>
  {#if trouble}<p role="alert">{trouble}</p>{/if}
  {#each entries ?? [] as entry (entry.id)}
    <article>
      <div>
        <h2>
          {#if entry.shoot_id}<a class="link" href="/shoots/{entry.shoot_id}/run" onclick={router.follow}
              >{entry.name}</a
            >
          {:else}{entry.name}{/if}
        </h2>
        <p class="label">{day(Date.parse(entry.made_at) / 1000, ownZone())}, on the stand-ins</p>
        <p class="outcome">{OUTCOMES[entry.outcome] ?? entry.outcome}</p>
        <p class="label">
          {entry.late_frames} late · {entry.restarts}
          {entry.restarts === 1 ? 'restart' : 'restarts'} · {duration(entry.delayed_s)} delayed
        </p>
      </div>
      <table>
        <thead><tr><td></td><th scope="col">planned</th><th scope="col">taken</th></tr></thead>
        <tbody>
          {#each rows(entry) as [label, planned, taken] (label)}
            <tr><th scope="row">{label}</th><td>{planned}</td><td>{taken}</td></tr>
          {/each}
        </tbody>
      </table>
      <div><NoteField {entry} /></div>
    </article>
  {:else}
    {#if entries}
      <p class="empty">
        Nothing logged yet. A run writes its entry here when it ends; the Run chapter of any shoot starts one.
      </p>
    {:else if !trouble}<p class="mono-note" role="status">Opening the logbook …</p>{/if}
  {/each}
</main>

<style>
  main {
    background: var(--sheet);
    min-height: 100dvh;
    padding: 20px 26px;
  }
  h1 {
    font-size: 23px;
    font-stretch: 108%;
  }
  article {
    display: grid;
    grid-template-columns: 1fr 300px 1.3fr;
    gap: 34px;
    border-top: 1px solid var(--ink);
    padding: 14px 0 18px;
    margin-top: 14px;
  }
  h2 {
    font-size: 18px;
  }
  .outcome {
    margin-top: 8px;
    font-weight: 600;
  }
  table {
    align-self: start;
    width: 100%;
  }
  th {
    font-weight: 450;
    color: var(--second);
    text-align: left;
    padding: 2px 0;
  }
  thead th,
  td {
    text-align: right;
  }
  td {
    font-weight: 600;
  }
  tbody tr {
    border-bottom: 1px solid var(--hair);
  }
  .empty {
    margin-top: 20px;
    font-size: 17px;
    max-width: 60ch;
  }
  @media (max-width: 1000px) {
    main {
      padding: 16px;
    }
    article {
      grid-template-columns: 1fr;
      gap: 14px;
    }
  }
</style>

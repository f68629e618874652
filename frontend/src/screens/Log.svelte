<script lang="ts">
  /** The logbook: what was planned, what was taken, what to do differently. */
  import { onMount } from 'svelte';
  import { api, got, sentence, type LogLine } from '../api/client';
  import { day, duration } from '../format';
  import DamagedRow from '../parts/DamagedRow.svelte';
  import NoteField from '../parts/NoteField.svelte';
  import TakenTable from '../parts/TakenTable.svelte';
  import { router } from '../router.svelte';
  import { ownZone } from '../time';

  let entries = $state.raw<LogLine[] | null>(null);
  let damaged = $state.raw<{ id: number; said: string }[]>([]);
  /** Where the logbook goes on; nothing at its end. */
  let before = $state<number | null>(null);
  let trouble = $state('');
  const OUTCOMES: Record<string, string> = {
    finished: 'rehearsed, all frames taken',
    stopped: 'rehearsal stopped early'
  };

  onMount(() => void look());

  /** The next page, after those that are shown. */
  async function look() {
    try {
      const page = got(await api.GET('/api/log', { params: { query: { before } } }));
      entries = [...(entries ?? []), ...page.entries];
      damaged = [...damaged, ...page.damaged];
      before = page.before;
      trouble = '';
    } catch (error) {
      trouble = sentence(error);
    }
  }
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
      <TakenTable {entry} />
      <div><NoteField {entry} /></div>
    </article>
  {:else}
    {#if entries && !damaged.length}
      <p class="empty">
        Nothing logged yet. A run writes its entry here when it ends; the Run chapter of any shoot starts one.
      </p>
    {:else if !trouble && !entries}<p class="mono-note" role="status">Opening the logbook …</p>{/if}
  {/each}
  {#each damaged as one (one.id)}<article class="damaged">
      <DamagedRow kind="log" id={one.id} said={one.said} />
    </article>{/each}
  {#if before !== null}
    <button type="button" class="act quiet earlier" onclick={() => void look()}>Show earlier entries</button>
  {/if}
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
  .damaged {
    display: block;
  }
  .earlier {
    margin-top: 16px;
  }
</style>

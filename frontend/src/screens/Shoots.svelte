<script lang="ts">
  /** The start: every shoot as a line with its span drawn small on its own time. */
  import { onMount } from 'svelte';
  import { api, got, importPlan, sentence, type ShootLine } from '../api/client';
  import { day, number } from '../format';
  import Modal from '../parts/Modal.svelte';
  import ShootFields, { type Answers } from '../parts/ShootFields.svelte';
  import { router } from '../router.svelte';
  import { imported } from '../sheet/imported';
  import { ownZone } from '../time';
  import ClockNotice from './ClockNotice.svelte';
  import ShootRow from './ShootRow.svelte';

  const GROUPS = [
    { state: 'running', title: 'Running' },
    { state: 'planned', title: 'Planned' },
    { state: 'rehearsed', title: 'Rehearsed' }
  ] as const;
  const LARGEST = 1_000_000;

  let shoots = $state.raw<ShootLine[] | null>(null);
  let inBin = $state(0);
  let binDays = $state(30);
  let find = $state('');
  let trouble = $state('');
  /** Why the list could not be had; it goes by itself, and takes nothing else that is told with it. */
  let unreached = $state('');
  let problems = $state.raw<string[]>([]);
  let asking = $state(false);
  let refused = $state('');
  let gone = $state.raw<ShootLine | null>(null);
  let findField = $state<HTMLInputElement>();
  let fileField = $state<HTMLInputElement>();
  let looking = 0;

  const coming = $derived(
    [...(shoots ?? [])]
      .flatMap((one) => (one.state !== 'running' && one.start ? [{ ...one, start: one.start }] : []))
      .filter((one) => Date.parse(one.start) > Date.now())
      .sort((a, b) => a.start.localeCompare(b.start))[0]
  );

  onMount(() => {
    void look();
    const changing = (one: ShootLine) => one.state === 'running' || one.stale;
    const timer = setInterval(() => shoots?.some(changing) && void look(), 2000);
    return () => clearInterval(timer);
  });

  async function look() {
    const mine = ++looking;
    try {
      const answer = await api.GET('/api/shoots', { params: { query: { find } } });
      if (mine !== looking) return;
      const found = got(answer);
      shoots = found.shoots;
      inBin = found.in_bin;
      binDays = found.bin_days;
      unreached = '';
    } catch (error) {
      unreached = sentence(error);
    }
  }

  function firstAnswers(): Answers {
    const tomorrow = new Date(Date.now() + 86_400_000);
    tomorrow.setMinutes(0, 0, 0);
    return { name: '', subject: '', place: '', zone: ownZone(), start: tomorrow.toISOString() };
  }

  async function make(answers: Answers) {
    try {
      const answer = await api.POST('/api/shoots', { body: { kind: 'slide', ...answers } });
      // A print begins with its file.
      const begins = answers.kind === 'print' ? 'print/file' : 'clip';
      if (answer.data) router.go(`/shoots/${answer.data.id}/${begins}`);
      else refused = sentence(answer.error);
    } catch (error) {
      refused = sentence(error);
    }
  }

  async function duplicate(shoot: ShootLine) {
    const path = { shoot_id: shoot.id };
    await tried(async () => {
      const made = got(await api.POST('/api/shoots/{shoot_id}/duplicate', { params: { path } }));
      await look();
      // Whoever has gone on to something else meanwhile is not pulled back.
      const still = [`shoot-${shoot.id}`, ''].includes(document.activeElement?.id ?? '');
      if (still) document.getElementById(`shoot-${made.id}`)?.focus();
    });
  }

  async function bin(shoot: ShootLine) {
    await tried(async () => {
      got(await api.POST('/api/shoots/{shoot_id}/bin', { params: { path: { shoot_id: shoot.id } } }));
      gone = shoot;
      await look();
    });
  }

  /** Do something, and say what went wrong if it could not be done. */
  async function tried(work: () => Promise<void>) {
    try {
      await work();
    } catch (error) {
      trouble = sentence(error);
    }
  }

  async function back() {
    const shoot_id = gone?.id;
    if (shoot_id === undefined) return;
    await tried(async () => {
      got(await api.POST('/api/shoots/{shoot_id}/back', { params: { path: { shoot_id } } }));
      gone = null;
      await look();
    });
  }

  async function take(file: File | undefined) {
    problems = [];
    trouble = '';
    if (!file) return;
    if (file.size > LARGEST) {
      trouble = `“${file.name}” has ${number(file.size / 1e6, 3)} MB; a plan has at most 1 MB. Nothing was kept.`;
      return;
    }
    try {
      const opened = await importPlan(file);
      imported(opened.id, opened.changed);
      router.go(`/shoots/${opened.id}/clip`);
    } catch (error) {
      trouble = `“${file.name}”: ${sentence(error)} Nothing was kept.`;
      problems = ((error as { problems?: { expected: string }[] }).problems ?? []).map((one) => one.expected);
    }
  }

  function keys(event: KeyboardEvent) {
    const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement;
    if (typing || asking || event.ctrlKey || event.metaKey || event.altKey) return;
    const focused = shoots?.find((one) => document.activeElement?.id === `shoot-${one.id}`);
    if (event.key === 'n') asking = true;
    else if (event.key === '/') findField?.focus();
    else if (event.key === 'd' && focused) void duplicate(focused);
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={keys} />
<svelte:head><title>Shoots · Bridle</title></svelte:head>

<main class="shoots">
  <header>
    <h1>Shoots</h1>
    <p>
      {day(Date.now() / 1000, ownZone(), true)}.
      {#if coming}Next: {coming.name}, {day(Date.parse(coming.start) / 1000, coming.zone ?? 'UTC')}.{/if}
    </p>
    <span class="tools">
      <input
        bind:this={findField}
        class="field find"
        type="search"
        placeholder="Find"
        aria-label="Find a shoot"
        bind:value={find}
        oninput={() => void look()}
      />
      <button type="button" class="act quiet" onclick={() => fileField?.click()}>Open a plan file</button>
      <input
        bind:this={fileField}
        type="file"
        accept=".json,application/json"
        aria-label="Plan file"
        class="sr-only"
        tabindex="-1"
        onchange={(event) => {
          void take(event.currentTarget.files?.[0]);
          event.currentTarget.value = '';
        }}
      />
      <button type="button" class="act" onclick={() => (asking = true)}>New shoot</button>
    </span>
  </header>

  {#if trouble || unreached}
    <div class="trouble" role="alert">
      {#if trouble}<p>{trouble}</p>{/if}
      {#if unreached}<p>{unreached}</p>{/if}
      {#each problems as problem, i (i)}<p class="problem">{problem}</p>{/each}
      <button type="button" class="link" onclick={() => ((trouble = ''), (problems = []), void look())}
        >All right</button
      >
    </div>
  {/if}
  <ClockNotice />
  {#if gone}
    <p class="gone" role="status">
      {gone.name} is in the bin.
      <button type="button" class="link" onclick={() => void back()}>Put it back</button>
    </p>
  {/if}

  {#if shoots === null}
    <p class="mono-note" role="status">{unreached ? '' : 'Looking for shoots …'}</p>
  {:else if shoots.length === 0}
    <p class="empty">
      {#if find}Nothing is called or placed “{find}”.
        <button type="button" class="link" onclick={() => ((find = ''), void look())}>Show all shoots</button>
      {:else}No shoot yet. Three questions make one; everything else has a sound default and can be changed on
        its sheet.
        <button type="button" class="link" onclick={() => (asking = true)}>New shoot</button>{/if}
    </p>
  {:else}
    {#each GROUPS as group (group.state)}
      {@const members = shoots.filter((shoot) => shoot.state === group.state)}
      {#if members.length}
        <section>
          <h2>{group.title}</h2>
          {#each members as shoot (shoot.id)}
            <ShootRow {shoot} onduplicate={() => void duplicate(shoot)} onbin={() => void bin(shoot)} />
          {/each}
        </section>
      {/if}
    {/each}
  {/if}

  <footer>
    <span>
      {#if inBin}<a class="link" href="/bin" onclick={router.follow}
          >The bin keeps {inBin} {inBin === 1 ? 'shoot' : 'shoots'}</a
        >, each for {binDays} days{:else}The bin is empty{/if}
    </span>
    <span class="hints">n new &nbsp; / find &nbsp; enter opens &nbsp; d duplicates</span>
  </footer>
</main>

<Modal bind:open={asking} title="New shoot" onclose={() => (refused = '')}>
  <ShootFields
    first={firstAnswers()}
    button="Make the sheet"
    asksKind
    trouble={refused}
    onanswer={(answers) => void make(answers)}
  />
</Modal>

<style>
  .shoots {
    display: flex;
    flex-direction: column;
    min-height: 100dvh;
    background: var(--sheet);
    padding: 20px 26px 14px;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 10px;
  }
  h1 {
    font-size: 23px;
    font-stretch: 108%;
  }
  header p {
    color: var(--second);
  }
  .tools {
    display: flex;
    gap: 12px;
    margin-left: auto;
  }
  .find {
    width: 150px;
  }
  section h2 {
    display: flex;
    align-items: center;
    gap: 14px;
    margin-top: 24px;
    font-size: 13px;
    font-stretch: 92%;
    color: var(--second);
    font-weight: 600;
  }
  section h2::after {
    content: '';
    flex: 1;
    border-top: 1.5px solid var(--second);
  }
  .trouble,
  .gone,
  .empty {
    margin-top: 18px;
  }
  .trouble {
    border-left: 6px solid var(--stop);
    padding-left: 12px;
  }
  .problem {
    font-size: 13px;
    color: var(--second);
  }
  .empty {
    max-width: 60ch;
    font-size: 17px;
  }
  footer {
    display: flex;
    justify-content: space-between;
    margin-top: auto;
    padding-top: 24px;
    font-size: 13px;
    color: var(--second);
  }
  @media (max-width: 1000px) {
    .shoots {
      min-height: auto;
      padding: 16px;
    }
    .hints {
      display: none;
    }
    .tools {
      margin: 8px 0 0;
      width: 100%;
      flex-wrap: wrap;
    }
    .tools .act {
      flex: 1;
      padding: 6px 10px;
    }
    .find {
      width: 100%;
      min-height: 44px;
    }
  }
</style>

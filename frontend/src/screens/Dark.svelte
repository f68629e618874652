<script lang="ts">
  /**
   * By hand in the dark: the next change large, and how long it is until then. Always in Safelight, whatever the look
   * is elsewhere; once it is loaded it needs no server.
   */
  import { onMount } from 'svelte';
  import { api, sentence, type Opened } from '../api/client';
  import { clock, number, shortDay, shutter } from '../format';
  import { look } from '../looks/look.svelte';
  import { router } from '../router.svelte';
  import { frameAt } from '../sheet/series';
  import { browser } from '../sheet/store';
  import { countdown, dueAt, type Hand } from './dark';

  let { id }: { id: number } = $props();
  let opened = $state.raw<Opened>();
  let trouble = $state('');
  let now = $state(Date.now() / 1000);
  /** When the first frame was really taken, where that was another moment than planned. */
  let started = $state<number | null>(null);
  // svelte-ignore state_referenced_locally
  const KEY = `bridle.started.${id}`;

  const evaluation = $derived(opened?.evaluation);
  const planned = $derived(evaluation?.figures['time.first']?.value ?? 0);
  const zone = $derived(opened?.plan.shoot.place?.zone ?? 'UTC');
  const shift = $derived(started === null ? 0 : started - planned);
  const map = $derived(evaluation?.traces?.map);
  const length = $derived(map?.elapsed_s.at(-1) ?? 0);
  const elapsed = $derived(now - planned - shift);
  const changes = $derived(evaluation?.light.changes ?? []);
  const hand = $derived<Hand>(dueAt(changes, planned, elapsed));
  const running = $derived(elapsed >= 0 && elapsed <= length);
  const frame = $derived(running && map ? Math.floor(frameAt(map, elapsed)) + 1 : 0);
  const SOON_S = 20;

  onMount(() => {
    document.documentElement.dataset.look = 'safelight';
    const kept = Number(browser.get(KEY));
    started = Number.isFinite(kept) && kept > 0 ? kept : null;
    const tick = setInterval(() => (now = Date.now() / 1000), 250);
    let awake: WakeLockSentinel | undefined;
    const stay = () =>
      void navigator.wakeLock
        ?.request('screen')
        .then((lock) => (awake = lock))
        .catch(() => {});
    stay();
    document.addEventListener('visibilitychange', stay);
    void open();
    return () => {
      clearInterval(tick);
      document.removeEventListener('visibilitychange', stay);
      void awake?.release();
      document.documentElement.dataset.look = look.now;
    };
  });

  async function open() {
    trouble = '';
    try {
      const answer = await api.GET('/api/shoots/{shoot_id}', { params: { path: { shoot_id: id } } });
      if (answer.data) opened = answer.data;
      else trouble = sentence(answer.error);
    } catch (error) {
      trouble = sentence(error);
    }
  }

  function start(at: number | null) {
    started = at;
    if (at === null) browser.remove(KEY);
    else browser.set(KEY, String(at));
  }

  // A phone in a pocket says so when it is time.
  let called = -1;
  $effect(() => {
    const due = hand.next?.frame ?? -1;
    if (running && hand.until <= 3 && due !== called) {
      called = due;
      navigator.vibrate?.([200, 100, 200]);
    }
  });
</script>

<main class="dark">
  {#if trouble}
    <p role="alert">{trouble}</p>
    <button type="button" class="act" onclick={() => void open()}>Try again</button>
  {:else if !opened}<p role="status">Unrolling the list …</p>
  {:else if !changes.length}
    <p class="big">Nothing to change by hand.</p>
    <p>One exposure for all frames, or the light is not known yet.</p>
  {:else}
    <p class="head">
      {opened.plan.shoot.name}
      <span>{clock(now, zone)}{frame ? `, frame ${number(frame, 9)}` : ''}</span>
    </p>
    {#if hand.now}
      <p class="now">
        now {shutter(hand.now.shutter_s)} · ISO {number(hand.now.iso, 6)} · f/{number(hand.now.aperture)}{hand
          .now.density
          ? ` · filter ${number(hand.now.density)}`
          : ''}
      </p>
    {/if}
    {#if elapsed > length}
      <p class="big">All done.</p>
    {:else if hand.next}
      <section class:soon={hand.until < SOON_S} aria-live="polite">
        <p class="label">
          {elapsed < 0 ? 'to begin with' : `before frame ${number(hand.next.frame + 1, 9)}`}
        </p>
        {#each hand.sets as set (set)}<p class="big">{set}</p>{/each}
      </section>
      <p class="count" role="timer" aria-label="until then">{countdown(hand.until)}</p>
      <ol>
        {#each hand.after as one (one.frame)}
          <li>
            <b>{clock(one.moment + shift, zone)}</b>
            {one.sets.join(', ')}
          </li>
        {/each}
      </ol>
    {:else}
      <p class="big">No more changes.</p>
      <p class="count">{countdown(length - elapsed)}</p>
      <p class="label">until the last frame</p>
    {/if}
    <footer>
      {#if started === null}
        <span>
          first frame planned {shortDay(planned, zone)}, {clock(planned, zone)}
        </span>
        <button type="button" class="act" onclick={() => start(Date.now() / 1000)}>It starts now</button>
      {:else}
        <span>first frame taken at {clock(started, zone)}</span>
        <button type="button" class="act quiet" onclick={() => start(null)}>By the plan again</button>
      {/if}
      <a class="link" href="/shoots/{id}/light" onclick={router.follow}>to the sheet</a>
    </footer>
  {/if}
</main>

<style>
  .dark {
    display: flex;
    flex-direction: column;
    gap: 10px;
    min-height: 100dvh;
    max-width: 560px;
    margin: 0 auto;
    padding: 14px 18px 20px;
    font-size: 17px;
  }
  .head {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    color: var(--second);
    font-size: 15px;
  }
  .now {
    border-bottom: 1px solid var(--hair);
    padding-bottom: 8px;
  }
  section {
    margin-top: 10px;
  }
  section.soon {
    outline: 3px solid var(--ink);
    outline-offset: 8px;
  }
  .big {
    font-size: clamp(52px, 18vw, 84px);
    line-height: 1.02;
    font-weight: 700;
    font-stretch: 86%;
  }
  .count {
    font-size: clamp(40px, 13vw, 64px);
    font-weight: 600;
    line-height: 1.1;
  }
  ol {
    border-top: 1px solid var(--hair);
    padding-top: 8px;
  }
  li {
    line-height: 1.8;
  }
  footer {
    display: grid;
    gap: 10px;
    margin-top: auto;
    font-size: 15px;
    color: var(--second);
  }
  .act {
    min-height: 64px;
    font-size: 18px;
  }
</style>

<script lang="ts">
  /**
   * A snag in plain words: what, why, and each fix as a button that says what it will change. A fix is tried when the
   * hand rests; until then it cannot be pressed, and one that leaves as much wrong elsewhere is not shown.
   */
  import { sentence, type ForeseenLine, type Snag } from '../api/client';
  import { WORKS } from '../bench/works';
  import { fill } from '../format';
  import { foresee } from '../sheet/foreseen';
  import { theSheet } from '../sheet/sheet.svelte';

  interface Props {
    snag: Snag;
    full?: boolean;
  }
  let { snag, full = false }: Props = $props();

  const sheet = theSheet();
  const WAIT_MS = 350;
  /** What was found of this snag's fixes; nothing of them where the server gave no answer. */
  let tried = $state.raw<ForeseenLine | 'waiting' | 'unknown'>('waiting');
  const brings = (n: number) => (typeof tried === 'string' ? [] : (tried.brings[n] ?? []));
  const shown = $derived(
    snag.fixes
      .map((fix, n) => ({ fix, n }))
      .filter(({ n }) => typeof tried === 'string' || tried.helps[n] !== false)
  );

  /** Once nothing changes any more: what each fix would bring with it. */
  $effect(() => {
    const { plan, evaluation } = sheet;
    const { code, path, fixes } = snag;
    tried = 'waiting';
    if (!fixes.length) return;
    let here = true;
    const timer = setTimeout(async () => {
      const lines = await foresee(plan, evaluation);
      if (here) tried = lines.find((line) => line.code === code && line.path === path) ?? 'unknown';
    }, WAIT_MS);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  });
  /** Where the work has a button of its own beside this, it needs none here. */
  const there = $derived(sheet.chapter === 'print' && sheet.leaf === 'file');
  const work = $derived(there ? undefined : WORKS[snag.work ?? '']);
  let trouble = $state('');
  const WORDS = { stop: 'Stop.', mind: 'Mind.', note: 'Note.' };
</script>

<div class="snag {snag.severity}" data-snag={snag.code}>
  <p>
    <b class="word">{WORDS[snag.severity]}</b>
    {fill(snag.what, snag.slots, sheet.zone)}
    {#if full}<span class="why">{fill(snag.why, snag.slots, sheet.zone)}</span>{/if}
  </p>
  {#if work}
    <p class="fix">
      <button
        type="button"
        class="link"
        title={work.consequence}
        onclick={() => work.begin(sheet).catch((error) => (trouble = sentence(error)))}>{work.label}</button
      >
      <span class="consequence">{work.consequence}</span>
      {#if trouble}<span role="alert" class="consequence">{trouble}</span>{/if}
    </p>
  {/if}
  {#each shown as { fix, n } (n)}
    {@const label = fill(fix.label, fix.slots, sheet.zone)}
    {@const consequence = fill(fix.consequence, fix.slots, sheet.zone)}
    <p class="fix">
      <button
        type="button"
        class="link"
        title={consequence}
        disabled={tried === 'waiting'}
        onclick={() => void sheet.apply(fix.edits)}>{label}</button
      >
      <span class="consequence">{consequence}</span>
      {#each brings(n) as brought, j (j)}
        <span class="consequence brings {brought.severity}"
          ><b class="word">{WORDS[brought.severity as keyof typeof WORDS]}</b>
          then: {fill(brought.what, brought.slots, sheet.zone)}</span
        >
      {/each}
    </p>
  {:else}
    {#if snag.fixes.length && !work}
      <p class="consequence">
        Every way out that Bridle knows would leave as much wrong elsewhere. Change by hand what is named
        here.
      </p>
    {/if}
  {/each}
</div>

<style>
  .snag {
    border-left: 3px solid var(--ink);
    padding-left: 10px;
    font-size: 13px;
    line-height: 1.35;
  }
  .stop {
    border-left: 6px solid var(--stop);
    padding-left: 7px;
  }
  .mind {
    border-left-color: var(--mind);
    border-left-style: double;
    border-left-width: 5px;
    padding-left: 8px;
  }
  .stop .word {
    color: var(--stop);
  }
  .mind .word {
    color: var(--mind);
  }
  .why {
    display: block;
    color: var(--second);
    margin-top: 3px;
  }
  .fix {
    margin-top: 5px;
  }
  .fix button {
    font-weight: 550;
    min-height: 24px;
  }
  .fix button:disabled {
    color: var(--second);
    text-decoration-style: dotted;
    cursor: progress;
  }
  .consequence {
    display: block;
    color: var(--second);
    font-size: 12px;
  }
  .brings {
    border: 0;
    padding-left: 10px;
  }
  @media (max-width: 760px) {
    .fix button {
      min-height: 44px;
    }
  }
</style>

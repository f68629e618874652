<script lang="ts">
  /** The head: what the shoot is, whether it is saved, undo and redo, and the chapters in working order. */
  import { api, got, sentence } from '../api/client';
  import { clock, day } from '../format';
  import { Calmly } from '../parts/calmly.svelte';
  import { download, fileName } from '../parts/download';
  import Modal from '../parts/Modal.svelte';
  import ShootFields, { type Answers } from '../parts/ShootFields.svelte';
  import { router } from '../router.svelte';
  import { chaptersFor } from '../chapters/chapters';
  import { theSheet } from '../sheet/sheet.svelte';
  import { ownZone } from '../time';
  import Earlier from './Earlier.svelte';

  interface Props {
    chapter: string;
  }
  let { chapter }: Props = $props();

  const sheet = theSheet();
  let asking = $state(false);
  let earlier = $state(false);
  const shoot = $derived(sheet.plan.shoot);
  const finish = $derived(sheet.figure('time.finish')?.value);
  /** The end of a shoot, with its day where that is another one. */
  function until(at: number): string {
    const same = day(at, sheet.zone) === day(sheet.start, sheet.zone) || at - sheet.start < 86_400;
    return same ? clock(at, sheet.zone, false) : `${day(at, sheet.zone)}, ${clock(at, sheet.zone, false)}`;
  }
  const when = $derived(
    [
      shoot.place.name,
      `${day(sheet.start, sheet.zone, true)}, ${clock(sheet.start, sheet.zone, false)}` +
        (finish ? ` to ${until(finish)}` : '')
    ]
      .filter(Boolean)
      .join(', ')
  );
  const passed = $derived((sheet.figure('time.finish')?.value ?? Infinity) < Date.now() / 1000);
  const saved = $derived.by(() => {
    if (sheet.then) return 'looking at an earlier version';
    if (sheet.offline) return 'not saved';
    const { state, at } = sheet.saving;
    if (state === 'waiting') return 'not saved, trying again';
    if (state === 'refused') return 'not saved';
    if (state === 'stale') return 'two versions';
    if (state === 'saving') return 'saving';
    return at
      ? `saved ${clock(at.getTime() / 1000, Intl.DateTimeFormat().resolvedOptions().timeZone)}`
      : 'saved';
  });
  const trouble = $derived(
    sheet.offline || (['waiting', 'refused'].includes(sheet.saving.state) ? sheet.saving.trouble : '')
  );

  // Nothing that comes in above a drawing pushes it away under a hand that holds something of it.
  const shown = new Calmly(() => ({ trouble, said: sheet.said }));
  const refused = $derived(!sheet.offline && sheet.saving.state === 'refused');

  const at = (made: string) => {
    const seconds = Date.parse(made) / 1000;
    return `${day(seconds, ownZone())}, ${clock(seconds, ownZone())}`;
  };

  async function load(before: number | null) {
    const params = { path: { shoot_id: sheet.id }, query: before === null ? {} : { before } };
    return got(await api.GET('/api/shoots/{shoot_id}/revisions', { params }));
  }

  async function look(version: number) {
    earlier = false;
    try {
      await sheet.lookAt(version);
    } catch (error) {
      sheet.said = sentence(error);
    }
  }

  async function back(version: number) {
    earlier = false;
    try {
      const done = await sheet.bringBack(version);
      sheet.said = done
        ? 'It stands as it did then. Undo takes that back.'
        : 'This could not be brought back.';
    } catch (error) {
      sheet.said = sentence(error);
    }
  }

  async function rename(answers: Answers) {
    const edits = [
      { path: 'shoot.name', value: answers.name },
      { path: 'shoot.subject', value: answers.subject },
      { path: 'shoot.place.name', value: answers.place },
      { path: 'shoot.place.zone', value: answers.zone },
      { path: 'shoot.clock.at', value: answers.start }
    ];
    if (await sheet.apply(edits)) asking = false;
  }
</script>

<header class="head">
  <div class="title">
    <h1>{shoot.name}</h1>
    <button
      type="button"
      class="when"
      onclick={() => (asking = true)}
      title="Change what it is called, where and when">{when}</button
    >
    {#if passed}<span class="label no-print">its day has passed</span>{/if}
    <span class="state no-print">
      <span role="status" class="saved" data-saved={sheet.saving.state}>{saved}</span>
      <button
        type="button"
        disabled={!sheet.undos.length || !!sheet.then}
        onclick={() => void sheet.undo()}
        aria-keyshortcuts="u">undo</button
      >
      <button
        type="button"
        disabled={!sheet.redos.length || !!sheet.then}
        onclick={() => void sheet.redo()}
        aria-keyshortcuts="Shift+U">redo</button
      >
      <button type="button" onclick={() => (earlier = true)}>earlier versions</button>
    </span>
  </div>
  {#if shown.value.trouble}<p class="trouble" role="alert">
      {shown.value.trouble}
      {#if !sheet.keeps}This browser keeps nothing for later: its store is full, or closed to this page. Leave
        this window open until everything is saved, or take the plan along.
      {:else if refused}What you changed is kept in this browser.
      {:else}What you changed is kept in this browser, and saved by itself as soon as that is possible.{/if}
      {#if refused || !sheet.keeps}<button
          type="button"
          class="link"
          onclick={() => download(fileName(shoot.name), JSON.stringify(sheet.plan, null, 2))}
          >Take it along as a plan file</button
        >{/if}
    </p>{/if}
  {#if sheet.then}
    {@const then = sheet.then}
    <p class="then no-print" role="status">
      <b>As it stood on {at(then.made_at)}.</b> Nothing can be changed here.
      <button type="button" class="act" onclick={() => void back(then.version)}>Bring this back</button>
      <button type="button" class="act quiet" onclick={() => void sheet.lookAt(null)}>Back to now</button>
    </p>
  {/if}
  {#if shown.value.said}<p class="then no-print" role="status">
      {shown.value.said}
      <button type="button" class="link" onclick={() => (sheet.said = '')}>All right</button>
    </p>{/if}
  {#if sheet.changed.length}<div class="then older no-print" role="status">
      <p>
        This plan was written by an older Bridle, and some of its figures are others now.
        <button type="button" class="link" onclick={() => (sheet.changed = [])}>All right</button>
      </p>
      <ul>
        {#each sheet.changed as one (one)}<li>{one}</li>{/each}
      </ul>
    </div>{/if}
  <nav aria-label="Chapters" class="no-print">
    {#each chaptersFor(sheet.evaluation.standing, chapter) as one, i (one.key)}
      {@const open = sheet.evaluation.snags.filter((snag) => snag.chapter === one.key).length}
      {@const here = one.key === chapter}
      <a
        href="/shoots/{sheet.id}/{one.key}"
        class:here
        aria-current={here ? 'page' : undefined}
        onclick={router.follow}
        ><span class="n">{i + 1}</span>
        {one.label}
        {#if open}<span class="count" aria-label="{open} open {open === 1 ? 'snag' : 'snags'}">{open}</span
          >{/if}</a
      >
    {/each}
  </nav>
</header>

<Modal bind:open={asking} title="This shoot">
  <ShootFields
    first={{
      name: shoot.name,
      subject: shoot.subject,
      place: shoot.place.name,
      zone: shoot.place.zone,
      start: shoot.clock.tied ? new Date(sheet.start * 1000).toISOString() : shoot.clock.at
    }}
    button="Put it on the sheet"
    trouble={sheet.troubles.get('shoot.name') ?? sheet.offline}
    onanswer={(answers) => void rename(answers)}
  />
</Modal>

<Modal bind:open={earlier} title="Earlier versions">
  <Earlier
    {load}
    looking={sheet.then?.version}
    onlook={(version) => void look(version)}
    onback={(version) => void back(version)}
  />
</Modal>

<style>
  .then {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: center;
    padding: 6px 0;
    border-top: 1px solid var(--hair);
  }
  .head {
    border-bottom: 1px solid var(--ink);
    padding: 12px 20px 0 24px;
  }
  .title {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 4px 16px;
  }
  h1 {
    font-size: 21px;
    font-stretch: 110%;
    overflow-wrap: anywhere;
  }
  .when {
    color: var(--second);
    text-align: left;
    min-height: 24px;
  }
  .when:hover {
    color: var(--ink);
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .state {
    display: flex;
    align-items: baseline;
    gap: 18px;
    margin-left: auto;
    font-size: 13px;
  }
  .saved {
    color: var(--second);
  }
  .state button {
    min-height: 24px;
    min-width: 24px;
  }
  .state button:not(:disabled) {
    font-weight: 600;
  }
  .trouble {
    border-left: 6px solid var(--stop);
    padding-left: 10px;
    margin: 6px 0;
    font-size: 13px;
  }
  nav {
    display: flex;
    gap: 26px;
    margin-top: 12px;
  }
  nav a {
    padding: 5px 0 9px;
    border-bottom: 4px solid transparent;
    color: var(--second);
    font-size: 15px;
    white-space: nowrap;
  }
  nav a:hover {
    color: var(--ink);
  }
  .here {
    color: var(--ink);
    font-weight: 650;
    border-bottom-color: var(--ink);
  }
  .n {
    font-size: 12px;
    font-weight: 450;
    margin-right: 3px;
  }
  .count {
    display: inline-block;
    min-width: 17px;
    margin-left: 4px;
    border: 1px solid currentColor;
    text-align: center;
    font-size: 11px;
    line-height: 16px;
    font-weight: 600;
  }
  @media (max-width: 760px) {
    .head {
      padding: 10px 16px 0;
    }
    nav {
      flex-wrap: wrap;
      gap: 0;
      justify-content: space-between;
      margin-top: 4px;
    }
    nav a {
      padding: 12px 3px 9px;
    }
    /* No keys to press there, and room for the names. */
    .n {
      display: none;
    }
    .state {
      margin-left: 0;
      width: 100%;
    }
    .state button {
      min-height: 44px;
      min-width: 44px;
    }
    .saved {
      margin-right: auto;
    }
  }
  @media print {
    .head {
      display: none;
    }
  }
  .older {
    display: block;
  }
  .older ul {
    font-size: 13px;
  }
</style>

<script lang="ts">
  /** The sheet of one shoot: head, chapter, margin and foot around one plan and one playhead. */
  import { onMount, untrack } from 'svelte';
  import type { Opened } from '../api/client';
  import { followPrint } from '../bench/own.svelte';
  import { chapterOf, chaptersFor, CHAPTERS } from '../chapters/chapters';
  import { leafOf } from '../chapters/entry';
  import Fault from '../parts/Fault.svelte';
  import Span from '../drawings/span/Span.svelte';
  import { router } from '../router.svelte';
  import { theOpen } from '../sheet/open.svelte';
  import { handDown, Sheet } from '../sheet/sheet.svelte';
  import Head from './Head.svelte';
  import Margin from './Margin.svelte';
  import TwoVersions from './TwoVersions.svelte';

  interface Props {
    opened: Opened;
    chapter: string;
    leaf: string | undefined;
  }
  let { opened, chapter, leaf }: Props = $props();

  // The sheet is made once, from what was opened; another shoot makes another sheet.
  // svelte-ignore state_referenced_locally
  const sheet = new Sheet(opened);
  handDown(sheet);
  followPrint(sheet);
  const SOON_MS = 1500;
  const known = $derived(chapterOf(chapter));
  // Whoever comes back to a chapter finds it as it was left.
  $effect.pre(() => {
    const open = leafOf(known, leaf ?? sheet.leaves.get(chapter));
    if (open) sheet.leaves.set(chapter, open.key);
    sheet.chapter = chapter;
    sheet.leaf = open?.key ?? '';
    // On a chapter without leaves whole answers stand on the page, and on some of the leaves.
    sheet.brief = open !== undefined && !open.whole;
    sheet.lit = open?.lit ?? false;
    sheet.windows = open?.windows ?? false;
  });

  let middle = $state<HTMLElement>();
  // Each chapter starts at its top; turning a leaf of one leaves the eye where it is.
  $effect(() => {
    void chapter;
    untrack(() => middle?.scrollTo(0, 0));
  });

  onMount(() => {
    const leave = (event: BeforeUnloadEvent) => {
      sheet.leave();
      if (sheet.unsettled) event.preventDefault();
    };
    addEventListener('beforeunload', leave);
    theOpen.identity = sheet.identity;
    void sheet.takeUp();
    // The others come soon after, so that each opens at once, and with the server away too.
    const soon = setTimeout(() => CHAPTERS.forEach((one) => void one.load().catch(() => {})), SOON_MS);
    return () => {
      clearTimeout(soon);
      removeEventListener('beforeunload', leave);
      sheet.close();
      if (theOpen.identity === sheet.identity) theOpen.identity = null;
    };
  });

  function keys(event: KeyboardEvent) {
    const target = event.target as HTMLElement;
    if (event.ctrlKey || event.metaKey || event.altKey || target.closest('[role=dialog]')) return;
    if (target.matches('input:not([type=radio], [type=checkbox]), textarea, select')) return;
    const page = chaptersFor(sheet.evaluation.standing, chapter)[Number(event.key) - 1];
    if (/^[1-9]$/.test(event.key) && page) router.go(`/shoots/${sheet.id}/${page.key}`);
    else if (event.key === ',') sheet.playhead.by(-1);
    else if (event.key === '.') sheet.playhead.by(1);
    else if (event.key === ' ' && !target.matches('button, summary, input')) sheet.playhead.play();
    else if (event.key === 'u') void sheet.undo();
    else if (event.key === 'U') void sheet.redo();
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={keys} />
<svelte:head><title>{sheet.plan.shoot.name} · Bridle</title></svelte:head>

<div class="sheet" class:move={chapter === 'move'}>
  <Head {chapter} />
  <main class="middle" bind:this={middle}>
    {#if known}
      {#key chapter}
        <Fault name={known.label}>
          {#await known.load() then { default: Open }}
            <Open />
          {:catch}
            <p role="alert" class="p-8">
              “{known.label}” could not be loaded. Bridle’s server may be away, or newer than this page: load
              the page again. Nothing is lost.
            </p>
          {/await}
        </Fault>
      {/key}
    {:else}
      <p class="p-8">
        This sheet has no chapter “{chapter}”.
        <a class="link" href="/shoots/{sheet.id}/clip" onclick={router.follow}>To the clip</a>
      </p>
    {/if}
  </main>
  <div class="aside no-print"><Fault name="The margin"><Margin /></Fault></div>
  <footer class="foot no-print" aria-label="Span">
    <Fault name="The span"><Span lanes={CHAPTERS.flatMap((chapter) => chapter.lanes)} /></Fault>
  </footer>
</div>
<Fault name="The two versions"><TwoVersions /></Fault>

<style>
  .sheet {
    display: grid;
    grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr) 276px;
    grid-template-areas: 'head head' 'middle aside' 'foot foot';
    height: 100dvh;
  }
  .sheet > :global(.head) {
    grid-area: head;
  }
  .middle {
    grid-area: middle;
    background: var(--sheet);
    overflow-y: auto;
    overflow-x: hidden;
  }
  .aside {
    grid-area: aside;
    display: grid;
    min-height: 0;
  }
  .foot {
    grid-area: foot;
    border-top: 1px solid var(--ink);
  }
  @media (max-width: 1000px) {
    .sheet {
      display: block;
      height: auto;
    }
    .middle {
      overflow: visible;
    }
  }
  @media (max-width: 760px) {
    .sheet {
      display: flex;
      flex-direction: column;
    }
    .middle {
      display: contents;
    }
    .middle > :global(*) {
      background: var(--sheet);
    }
    .aside {
      order: 2;
    }
    .foot {
      order: 4;
    }
    /* Where the finder stays in sight, so does what turns the time. */
    .move .foot {
      position: sticky;
      bottom: 0;
      z-index: 6;
      background: var(--film);
    }
  }
  @media print {
    .sheet {
      display: block;
      height: auto;
    }
    .middle {
      overflow: visible;
    }
  }
</style>

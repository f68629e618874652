<script lang="ts">
  /** The print bench: every file that is here as its core, what is done on it, and the shoot that it belongs to. */
  import { onMount } from 'svelte';
  import { Prints, type PrintLine } from '../bench/prints.svelte';
  import DamagedRow from '../parts/DamagedRow.svelte';
  import Progress from '../bench/Progress.svelte';
  import Putting from '../bench/Putting.svelte';
  import { duration, filed, number } from '../format';
  import { router } from '../router.svelte';

  const prints = new Prints();
  onMount(() => {
    void prints.look();
    return () => prints.close();
  });
  let leaving = $state<number>();
  const going = (print: PrintLine) => print.works.find((work) => ['waiting', 'running'].includes(work.state));
  const proof = (print: PrintLine) => print.works.find((work) => work.kind === 'change' && work.result);
</script>

<svelte:head><title>Print bench · Bridle</title></svelte:head>

<main>
  <header>
    <h1>Print bench</h1>
    <p>One frame a layer: a print’s file is read, given its stops, and proven before filament is spent.</p>
  </header>
  <Putting label="Put a file on the bench" ondone={() => prints.look()} />
  {#if prints.trouble}<p role="alert">{prints.trouble}</p>{/if}
  {#if prints.all === null}
    <p class="mono-note" role="status">{prints.trouble ? '' : 'Opening the bench …'}</p>
  {:else if !prints.all.length}
    <p class="empty">
      Nothing is on the bench. Put the file in that your slicer exports: it becomes a shoot whose frames are
      called by its layers.
    </p>
  {/if}
  <ul>
    {#each prints.all ?? [] as print (print.id)}
      {@const work = going(print)}
      {@const proven = proof(print)}
      <li aria-label={print.name}>
        <svg viewBox="0 0 26 92" aria-hidden="true">
          <rect x="3" y="2" width="20" height="88" />
          {#each Array.from({ length: Math.min(29, print.layers ?? 0) }, (_, n) => n) as n (n)}<path
              d="M3 {88 - n * 3}h20"
            />{/each}
        </svg>
        <div>
          <h2>
            {#if print.shoot_id}<a class="link" href="/shoots/{print.shoot_id}/print" onclick={router.follow}
                >{print.name}</a
              >{:else}{print.name}{/if}
          </h2>
          {#if print.state !== 'damaged'}<p>
              {[
                filed(print.size),
                print.layers ? `${number(print.layers)} layers` : '',
                print.height_mm ? `${number(print.height_mm)} mm high` : '',
                print.seconds ? `prints for about ${duration(Math.round(print.seconds / 60) * 60)}` : '',
                print.shoot_name ? `of the shoot ${print.shoot_name}` : ''
              ]
                .filter(Boolean)
                .join(', ')}
            </p>{/if}
          {#if print.twin}
            <p>The very same file lies here already: {print.twin}. One of them is enough.</p>
          {/if}
          {#if print.state === 'damaged'}<DamagedRow kind="print" id={print.id} said={print.said} />
          {:else if print.state === 'asleep'}<p class="label">The demo’s file is about to be made.</p>
          {:else if work}<Progress {work} onstop={() => void prints.stop(work)} />
          {:else if print.state === 'arriving'}
            <p>
              {number(print.here / 1e6, 3)} of {number(print.size / 1e6, 3)} MB are here; the rest never came. What
              is here is cleared after a day.
            </p>
          {:else if print.state === 'refused'}<p role="alert" class="wrong">{print.said}</p>
          {:else if print.state === 'read' && !print.layers}<p class="wrong">
              No layers were found in it: it is one spiral, or nothing is printed.
            </p>
          {:else if proven?.result}<p>
              {proven.result.said}
            </p>
          {:else if print.state === 'read'}<p class="label">No stops are written yet.</p>{/if}
        </div>
        <p class="acts">
          {#if print.state === 'refused' || (print.state === 'read' && !print.shoot_id)}<button
              type="button"
              class="link"
              onclick={() => void prints.begin(print, 'read', null)}>read it again</button
            >{/if}
          {#if proven?.result && !work}<a class="link" href="/api/prints/{print.id}/file/change" download
              >take it along{proven.result.stands === 'proven' ? '' : ', unproven'}</a
            >{/if}
          {#if leaving === print.id}
            <button type="button" class="link" onclick={() => void prints.drop(print)}
              >take it away for good</button
            >
            <button type="button" class="link" onclick={() => (leaving = undefined)}>keep it</button>
          {:else}<button
              type="button"
              class="link"
              aria-label="take {print.name} off the bench"
              onclick={() => (leaving = print.id)}>off the bench</button
            >{/if}
        </p>
      </li>
    {/each}
  </ul>
</main>

<style>
  main {
    padding: 20px 26px;
    min-height: 100dvh;
    background: var(--sheet);
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
  li {
    display: grid;
    grid-template-columns: 30px minmax(0, 1fr) auto;
    gap: 0 18px;
    border-top: 1px solid var(--ink);
    padding: 10px 0;
  }
  svg {
    width: 26px;
    height: 92px;
  }
  rect,
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 0.8;
  }
  path {
    stroke-width: 0.5;
  }
  h2 {
    font-size: 18px;
    font-weight: 650;
  }
  .acts {
    display: flex;
    flex-direction: column;
    align-items: flex-end;
    gap: 4px;
  }
  .wrong {
    color: var(--stop);
  }
  .empty {
    font-size: 17px;
    max-width: 60ch;
    margin: 14px 0;
  }
  @media (max-width: 760px) {
    main {
      padding: 16px;
    }
    li {
      grid-template-columns: 30px minmax(0, 1fr);
    }
    .acts {
      grid-column: 2;
      flex-direction: row;
      flex-wrap: wrap;
    }
    .acts .link {
      min-height: 44px;
    }
  }
</style>

<script lang="ts">
  /** What something was before: when, and what changed; each can be looked at and brought back. */
  import { sentence, type RevisionLine } from '../api/client';
  import { clock, day, number } from '../format';
  import { ownZone } from '../time';

  interface Page {
    revisions: RevisionLine[];
    before: number | null;
  }
  interface Props {
    load: (before: number | null) => Promise<Page>;
    onlook: (version: number) => void;
    onback: (version: number) => void;
    looking?: number | undefined;
  }
  let { load, onlook, onback, looking }: Props = $props();

  let lines = $state.raw<RevisionLine[] | null>(null);
  let before = $state<number | null>(null);
  let trouble = $state('');

  async function more(from: number | null) {
    trouble = '';
    try {
      const page = await load(from);
      lines = [...(from === null ? [] : (lines ?? [])), ...page.revisions];
      before = page.before;
    } catch (error) {
      trouble = sentence(error);
    }
  }
  void more(null);

  const when = (line: RevisionLine) => {
    const at = Date.parse(line.made_at) / 1000;
    return `${day(at, ownZone())}, ${clock(at, ownZone())}`;
  };
</script>

<p class="mono-note">
  Every save is kept: all of a day, then one an hour, one a day, one a week. Bringing one back is a change
  like any other, and can be undone.
</p>
{#if trouble}<p role="alert">{trouble}</p>{/if}
<ol aria-label="Earlier versions">
  {#each lines ?? [] as line (line.version)}
    <li class:on={looking === line.version}>
      <span class="when">{when(line)}{line.now ? ', as it is now' : ''}</span>
      <span class="what">
        {#each line.changed as one, i (i)}<span>{one}</span>{/each}
        {#if line.more}<span class="label">and {number(line.more, 12)} more</span>{/if}
      </span>
      <span class="does">
        {#if !line.now}
          <button type="button" class="link" onclick={() => onlook(line.version)}>Look at it</button>
          <button type="button" class="link" onclick={() => onback(line.version)}>Bring it back</button>
        {/if}
      </span>
    </li>
  {:else}
    {#if !trouble}<li class="mono-note" role="status">Looking …</li>{/if}
  {/each}
</ol>
{#if lines?.length === 1 && before === null}<p class="mono-note">Nothing has been changed yet.</p>{/if}
{#if before !== null}
  <button type="button" class="act quiet" onclick={() => void more(before)}>Show earlier ones</button>
{/if}

<style>
  ol {
    margin: 10px 0;
    border-top: 1px solid var(--ink);
    max-height: 60vh;
    overflow-y: auto;
  }
  li {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr) auto;
    gap: 4px 14px;
    padding: 6px 0;
    border-bottom: 1px solid var(--hair);
    font-size: 13px;
  }
  li.on {
    background: var(--wash2);
  }
  .what span {
    display: block;
    overflow-wrap: anywhere;
  }
  .does {
    display: flex;
    gap: 14px;
    align-items: start;
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: 1fr;
    }
    .does button {
      min-height: 44px;
    }
  }
</style>

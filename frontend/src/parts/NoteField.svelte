<script lang="ts">
  /** A note in the logbook, saved by itself; another window's note is never overwritten. */
  import { onMount } from 'svelte';
  import { api, sentence, type LogLine } from '../api/client';
  import { browser } from '../sheet/store';

  interface Props {
    entry: LogLine;
    onsaved?: (entry: LogLine) => void;
  }
  let { entry, onsaved }: Props = $props();

  // The field starts from the entry it was made for; what is typed after that is the field's own.
  // svelte-ignore state_referenced_locally
  let text = $state(entry.note);
  // svelte-ignore state_referenced_locally
  let version = entry.version;
  let said = $state('');
  let theirs = $state<string | null>(null);
  let timer = 0;
  let keeps = true;

  /**
   * What is not saved yet is kept in the browser, and saved when the note is opened again, if not before. Under the
   * entry's own moment: its number may be another entry's in other data.
   */
  // svelte-ignore state_referenced_locally
  const draft = `bridle.note.${entry.id}.${entry.made_at}`;
  const AGAIN_MS = 2500;

  onMount(() => {
    const left = browser.get(draft);
    if (left !== null && left !== text) {
      text = left;
      void save();
    }
    const leave = (event: BeforeUnloadEvent) => {
      if (browser.get(draft) !== null) event.preventDefault();
    };
    addEventListener('beforeunload', leave);
    return () => {
      removeEventListener('beforeunload', leave);
      clearTimeout(timer);
      if (said === 'saving') void save();
    };
  });

  function soon() {
    said = 'saving';
    keeps = browser.set(draft, text);
    clearTimeout(timer);
    timer = window.setTimeout(() => void save(), 500);
  }

  async function save() {
    clearTimeout(timer);
    const sent = text;
    try {
      const path = { entry_id: entry.id };
      const answer = await api.PUT('/api/log/{entry_id}', {
        params: { path },
        body: { version, note: sent }
      });
      if (answer.data) {
        version = answer.data.version;
        said = 'saved';
        theirs = null;
        if (text === sent) browser.remove(draft);
        onsaved?.(answer.data);
      } else if (answer.response.status === 409) {
        const kept = (answer.error as { kept: LogLine }).kept;
        version = kept.version;
        theirs = kept.note;
        said =
          'Another window wrote here in the meantime. Its note stands below; your next save replaces it.';
      } else said = sentence(answer.error);
    } catch (error) {
      said = keeps
        ? `${sentence(error)} Your note is kept in this browser, and saved by itself.`
        : `${sentence(error)} Leave this window open: this browser keeps nothing for later.`;
      timer = window.setTimeout(() => void save(), AGAIN_MS);
    }
  }
</script>

<label class="label" for="note-{entry.id}">What to do differently next time</label>
<textarea
  id="note-{entry.id}"
  class="field"
  rows="3"
  maxlength="20000"
  placeholder="Wind from the left, ballast on the second leg, start ten minutes earlier …"
  bind:value={text}
  oninput={soon}
  onblur={() => said === 'saving' && void save()}></textarea>
<p class="label" role="status">{said}</p>
{#if theirs !== null}<blockquote>{theirs}</blockquote>{/if}

<style>
  textarea {
    border: 1px solid var(--hair);
    padding: 8px;
    min-height: 70px;
  }
  textarea:focus {
    border-color: var(--ink);
  }
  blockquote {
    border-left: 3px solid var(--ink);
    padding-left: 10px;
    white-space: pre-wrap;
  }
</style>

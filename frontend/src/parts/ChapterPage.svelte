<script lang="ts">
  /** A chapter with leaves: what it says of the shoot, the leaves, and the one that lies open. */
  import type { Snippet } from 'svelte';
  import type { Chapter } from '../chapters/entry';
  import { theSheet } from '../sheet/sheet.svelte';
  import Leaves from './Leaves.svelte';

  interface Props {
    chapter: Chapter;
    title: string;
    /** What stands beside the title, smaller. */
    beside?: string;
    children: Snippet;
  }
  let { chapter, title, beside = '', children }: Props = $props();
  const sheet = theSheet();
</script>

<section>
  <header>
    <h2>
      {title}
      {#if beside}<span class="label">{beside}</span>{/if}
    </h2>
    <Leaves
      label="Parts of the {chapter.label.toLowerCase()}"
      at="/shoots/{sheet.id}/{chapter.key}"
      leaves={chapter.leaves.filter(
        ({ key, folds }) => !folds || sheet.evaluation.standing.includes(`${chapter.key}/${key}`)
      )}
      open={sheet.leaf}
    />
  </header>
  {@render children()}
</section>

<style>
  section {
    padding: 10px 22px 12px 26px;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    justify-content: space-between;
    gap: 0 24px;
    margin-bottom: 8px;
  }
  @media (max-width: 1000px) {
    section {
      padding: 14px 16px;
    }
  }
</style>

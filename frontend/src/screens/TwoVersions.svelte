<script lang="ts">
  /** Two windows changed one shoot: both sides are shown, and nothing goes without being asked. */
  import { router } from '../router.svelte';
  import { sentence } from '../api/client';
  import Modal from '../parts/Modal.svelte';
  import { theSheet } from '../sheet/sheet.svelte';

  const sheet = theSheet();
  const stale = $derived(sheet.saving.stale);
  let trouble = $state('');

  async function both() {
    try {
      const id = await sheet.saving.keepBoth();
      await sheet.takeTheirs();
      router.go(`/shoots/${id}/clip`);
    } catch (error) {
      trouble = sentence(error);
    }
  }
</script>

<Modal open={stale !== null} firm title="Two windows have changed this shoot">
  {#if stale}
    <p>{stale.message} Which one goes on?</p>
    <table>
      <thead
        ><tr><th scope="col">where</th><th scope="col">this window</th><th scope="col">the other</th></tr
        ></thead
      >
      <tbody>
        {#each stale.sides as side (side.path)}
          <tr><th scope="row">{side.place}</th><td>{side.mine}</td><td>{side.theirs}</td></tr>
        {/each}
      </tbody>
    </table>
    {#if trouble}<p role="alert">{trouble}</p>{/if}
    <div class="choices">
      <button type="button" class="act" onclick={() => void sheet.takeTheirs()}
        >Take the other’s; mine is an undo away</button
      >
      <button type="button" class="act quiet" onclick={() => void sheet.saving.keepMine()}
        >Keep mine; the other’s stays as a revision</button
      >
      <button type="button" class="act quiet" onclick={() => void both()}
        >Keep both; mine becomes a shoot of its own</button
      >
    </div>
  {/if}
</Modal>

<style>
  table {
    width: 100%;
    margin: 12px 0 16px;
    font-size: 13px;
  }
  th,
  td {
    text-align: left;
    padding: 3px 10px 3px 0;
    border-bottom: 1px solid var(--hair);
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  tbody th {
    font-weight: 450;
    color: var(--second);
  }
  .choices {
    display: grid;
    gap: 8px;
  }
</style>

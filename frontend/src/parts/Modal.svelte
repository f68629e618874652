<script lang="ts">
  /** A slip laid over the sheet: title, contents, and a way out. */
  import { Dialog } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    open: boolean;
    title: string;
    children: Snippet;
    onclose?: () => void;
    firm?: boolean;
  }
  let { open = $bindable(), title, children, onclose, firm = false }: Props = $props();
</script>

<Dialog.Root bind:open onOpenChange={(now) => !now && onclose?.()}>
  <Dialog.Portal>
    <Dialog.Overlay class="veil" />
    <Dialog.Content
      class="modal"
      aria-describedby={undefined}
      escapeKeydownBehavior={firm ? 'ignore' : 'close'}
      interactOutsideBehavior={firm ? 'ignore' : 'close'}
    >
      <div class="top">
        <Dialog.Title class="title" level={2}>{title}</Dialog.Title>
        {#if !firm}<Dialog.Close class="link close">Close</Dialog.Close>{/if}
      </div>
      {@render children()}
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>

<style>
  :global(.veil) {
    position: fixed;
    inset: 0;
    z-index: 60;
    background: var(--film);
    opacity: 0.72;
  }
  :global(.modal) {
    position: fixed;
    z-index: 61;
    left: 50%;
    top: 50%;
    transform: translate(-50%, -50%);
    width: min(560px, calc(100vw - 24px));
    max-height: calc(100dvh - 24px);
    overflow-y: auto;
    background: var(--sheet);
    border: 1px solid var(--ink);
    padding: 22px 26px 24px;
  }
  .top {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    border-bottom: 1px solid var(--ink);
    padding-bottom: 8px;
    margin-bottom: 14px;
  }
  :global(.modal .title) {
    font-size: 19px;
    font-weight: 650;
  }
  :global(.modal .close) {
    min-height: 24px;
  }
</style>

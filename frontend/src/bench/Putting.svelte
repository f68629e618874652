<script lang="ts">
  /** Putting a file in: chosen or dropped, sent with its progress, stopped. */
  import { duration, number } from '../format';
  import { Upload } from './upload.svelte';

  interface Props {
    label: string;
    shoot?: number | null;
    /** Before the first byte is sent; and when all are here. */
    ondone: (print: number) => void | Promise<void>;
  }
  let { label, shoot = null, ondone }: Props = $props();
  const upload = new Upload();
  let over = $state(false);

  async function send(files: FileList | null | undefined) {
    const file = files?.[0];
    if (!file || upload.going) return;
    const print = await upload.send(file, shoot);
    if (print !== null) await ondone(print);
  }
</script>

<div
  class="putting"
  class:over
  role="group"
  aria-label={label}
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(event) => {
    event.preventDefault();
    over = false;
    void send(event.dataTransfer?.files);
  }}
>
  {#if upload.going}
    <p role="status">
      {upload.name}: {number(upload.sent / 1e6, 3)} of {number(upload.size / 1e6, 3)} MB are here{#if upload.left !== null && upload.left >= 1},
        about {duration(Math.ceil(upload.left))} to go{/if}
      <button type="button" class="link" onclick={() => upload.stop()}>stop</button>
    </p>
    <progress max={upload.size} value={upload.sent} aria-label="bytes that are here"></progress>
  {:else}
    <label class="act small"
      >{label}<input
        type="file"
        class="sr-only"
        accept=".gcode,.gco,.g,.nc,.txt"
        onchange={(event) => void send(event.currentTarget.files)}
      /></label
    >
    <span class="label">or drop it here: G-code as text, up to 300 MB</span>
  {/if}
  {#if upload.trouble}<p role="alert">{upload.trouble}</p>{/if}
</div>

<style>
  .putting {
    border: 1px dashed var(--second);
    padding: 10px 14px;
    margin: 10px 0;
  }
  .over {
    background: var(--wash);
    border-style: solid;
  }
  label {
    cursor: pointer;
    margin-right: 10px;
  }
  label:has(:focus-visible) {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  progress {
    width: 100%;
    height: 8px;
    appearance: none;
    border: 1px solid var(--ink);
    background: transparent;
  }
  progress::-webkit-progress-bar {
    background: transparent;
  }
  progress::-webkit-progress-value {
    background: var(--ink);
  }
</style>

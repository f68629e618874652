<script lang="ts">
  /**
   * A figure that is changed where it stands: typed, stepped with the arrow keys, or dragged sideways.
   * What is typed is read by the server; a figure it cannot read keeps the text and says what was expected.
   */
  import { tick } from 'svelte';
  import { write } from '../format';
  import { theEditor } from '../sheet/editor';
  import { grasp, type Grip, type Size } from './grasp';
  import { numberAt, valueAt } from './paths';
  import { stepped, stepsFor } from './steps';

  interface Props {
    path: string;
    label: string;
    /** What is shown; what stands at the path, where nothing else is given. */
    value?: number | null;
    unit: string;
    shown?: string;
    min?: number;
    onpeg?: (() => void) | undefined;
    held?: boolean | undefined;
    id?: string;
    /** It is being typed over, or not any more. */
    onedit?: ((typing: boolean) => void) | undefined;
    /** The value is kept exactly, as text, though nothing stands there yet that tells so. */
    exactText?: boolean;
    /** What is said where nothing is known; a blank brings that back. */
    empty?: string | undefined;
  }
  let {
    path,
    label,
    value: given,
    unit,
    shown,
    min = 0,
    onpeg,
    held,
    id,
    onedit,
    exactText = false,
    empty
  }: Props = $props();

  const PX_A_STEP = 6;
  const editor = theEditor();
  let editing = $state(false);
  let text = $state('');
  let input = $state<HTMLInputElement>();
  let button = $state<HTMLElement>();
  let sent: string | null = null;
  let opened = 0;

  /** What the arrow keys have asked for last, until it stands there: the next press steps on from it. */
  let steppedTo = $state<number | null>(null);
  let presses = 0;

  const value = $derived(given === undefined ? numberAt(editor.content, path) : given);
  const said = $derived.by(() => {
    if (steppedTo !== null) return write(steppedTo, unit, editor.zone);
    return shown ?? (value === null ? (empty ?? '–') : write(value, unit, editor.zone));
  });
  const trouble = $derived(editor.troubles.get(path));

  async function edit(first = '') {
    text = first || (value === null ? '' : said);
    opened += 1;
    sent = null;
    editing = true;
    onedit?.(true);
    await tick();
    input?.focus();
    if (!first) input?.select();
  }

  async function commit() {
    // Leaving the field while its text is on its way would send it once more.
    if (!editing || sent === text) return;
    const blank = text.trim() === '';
    if (text.trim() === said || (blank && (empty === undefined || value === null))) return cancel();
    sent = text;
    const mine = opened;
    const accepted = await (blank ? editor.set(path, null) : editor.type(path, text));
    // Opened anew while the first text was on its way: what is being typed there now stays.
    if (mine !== opened) return;
    sent = null;
    if (accepted) await close();
  }

  async function cancel() {
    editor.troubles.delete(path);
    await close();
  }

  /** The figure takes the focus back, unless the person has gone on to something else meanwhile. */
  async function close() {
    const here = document.activeElement === input;
    editing = false;
    onedit?.(false);
    await tick();
    if (here) button?.focus();
  }

  function put(next: number, merge: string) {
    return editor.set(path, storedLike(Math.max(min, next)), merge);
  }

  /** Exact quantities travel as decimal text, the others as numbers. */
  function storedLike(next: number): number | string {
    if (unit === 'instant') return new Date(Math.round(next) * 1000).toISOString();
    const kept = valueAt(editor.content, path);
    return exactText || kept === undefined || typeof kept === 'string' ? String(next) : next;
  }

  const stepOf = (of: number, size: Size) => stepsFor(unit, of)[size];
  let from = 0;
  const grip = $derived<Grip>({
    name: path,
    slack: PX_A_STEP,
    // A finger scrolls the page; it types, and does not drag.
    take: (_, event) => {
      from = value ?? 0;
      return event.pointerType !== 'touch' && value !== null;
    },
    drag: ({ by, size, merge }) => {
      const notches = Math.trunc(by.x / PX_A_STEP);
      void put(Number((from + notches * stepOf(from, size)).toFixed(6)), merge);
    },
    atOnce: true,
    nudge: ({ way, size, merge }) => {
      const at = steppedTo ?? value;
      if (at === null) return;
      const mine = ++presses;
      steppedTo = Math.max(min, stepped(at, stepOf(at, size), way));
      void put(steppedTo, merge).finally(() => {
        if (mine === presses) steppedTo = null;
      });
    },
    tap: () => void edit()
  });

  function keys(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey) return;
    if (event.key === 'Enter' || event.key === ' ' || event.key === 'F2') void edit();
    else if (event.key === 'p' && onpeg) onpeg();
    else if (/^[\d.\-−+]$/.test(event.key)) void edit(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  function inputKeys(event: KeyboardEvent) {
    event.stopPropagation();
    if (event.key === 'Enter') void commit();
    else if (event.key === 'Escape') void cancel();
    else return;
    event.preventDefault();
  }
</script>

<span class="editable" class:held class:bad={trouble}>
  {#if editing}
    <input
      bind:this={input}
      bind:value={text}
      size={Math.max(4, text.length)}
      aria-label={label}
      aria-invalid={!!trouble}
      aria-describedby={trouble ? `trouble-${path}` : undefined}
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      enterkeyhint="done"
      onkeydown={inputKeys}
      onblur={() => void commit()}
    />
  {:else}
    <span
      bind:this={button}
      {id}
      role="spinbutton"
      tabindex="0"
      aria-label={label}
      aria-valuenow={Number.isFinite(value) ? value! : undefined}
      aria-valuetext={said}
      aria-keyshortcuts={onpeg ? 'p Enter' : 'Enter'}
      onkeydown={keys}
      use:grasp={grip}>{said}</span
    >
  {/if}
  {#if trouble}<span class="trouble" id="trouble-{path}" role="alert">{trouble}</span>{/if}
</span>

<style>
  .editable {
    position: relative;
    display: inline-block;
    font-weight: 650;
  }
  [role='spinbutton'],
  input {
    border-bottom: 2px dotted var(--second);
    padding: 0 3px;
    white-space: nowrap;
    user-select: none;
  }
  .held [role='spinbutton'] {
    border-bottom: 2px solid var(--ink);
  }
  [role='spinbutton'] {
    display: inline-block;
    min-width: 24px;
    min-height: 24px;
    /* The line stays close under the figure, however small it is. */
    align-content: end;
    line-height: 1.18;
  }
  [role='spinbutton']:hover {
    background: var(--wash);
  }
  input {
    font: inherit;
    letter-spacing: inherit;
    field-sizing: content;
    min-width: 2.5em;
    max-width: 12em;
    background: var(--wash2);
    border-bottom: 2px solid var(--ink);
    user-select: text;
  }
  .bad input,
  .bad [role='spinbutton'] {
    border-bottom-color: var(--stop);
    border-bottom-style: double;
  }
  .trouble {
    position: absolute;
    z-index: 20;
    left: 0;
    top: calc(100% + 4px);
    width: max-content;
    max-width: min(320px, 80vw);
    padding: 5px 8px;
    background: var(--sheet);
    border: 1px solid var(--stop);
    border-left-width: 4px;
    color: var(--ink);
    font-size: 13px;
    line-height: 1.3;
    font-weight: 450;
    letter-spacing: 0;
    white-space: normal;
  }
</style>

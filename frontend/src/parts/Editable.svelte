<script lang="ts">
  /**
   * A figure that is changed where it stands: typed, stepped with the arrow keys, or dragged sideways.
   * What is typed is read by the server; a figure it cannot read keeps the text and says what was expected.
   */
  import { tick } from 'svelte';
  import { write } from '../format';
  import { stepped, stepsFor } from './steps';
  import { theEditor } from '../sheet/editor';

  interface Props {
    path: string;
    label: string;
    value: number | null;
    unit: string;
    shown?: string;
    min?: number;
    onpeg?: (() => void) | undefined;
    held?: boolean | undefined;
    id?: string;
    /** The value is kept exactly, as text; sheets tell it from the path. */
    exactText?: boolean;
  }
  let { path, label, value, unit, shown, min = 0, onpeg, held, id, exactText = false }: Props = $props();

  const PX_A_STEP = 6;
  const sheet = theEditor();
  let editing = $state(false);
  let text = $state('');
  let input = $state<HTMLInputElement>();
  let button = $state<HTMLElement>();
  let sent: string | null = null;
  let opened = 0;
  let drag: { x: number; value: number; moved: boolean; merge: string } | null = null;

  const said = $derived(shown ?? (value === null ? '–' : write(value, unit, sheet.zone)));
  const trouble = $derived(sheet.troubles.get(path));

  async function edit(first = '') {
    text = first || (value === null ? '' : said);
    opened += 1;
    sent = null;
    editing = true;
    await tick();
    input?.focus();
    if (!first) input?.select();
  }

  async function commit() {
    // Leaving the field while its text is on its way would send it once more.
    if (!editing || sent === text) return;
    if (text.trim() === said || text.trim() === '') return cancel();
    sent = text;
    const mine = opened;
    const accepted = await sheet.type(path, text);
    // Opened anew while the first text was on its way: what is being typed there now stays.
    if (mine !== opened) return;
    sent = null;
    if (accepted) await close();
  }

  async function cancel() {
    sheet.troubles.delete(path);
    await close();
  }

  /** The figure takes the focus back, unless the person has gone on to something else meanwhile. */
  async function close() {
    const here = document.activeElement === input;
    editing = false;
    await tick();
    if (here) button?.focus();
  }

  function put(next: number, merge: string) {
    const kept = Math.max(min, next);
    return sheet.set(path, storedLike(kept), merge);
  }

  /** Exact quantities travel as decimal text, the others as numbers. */
  function storedLike(next: number): number | string {
    if (unit === 'instant') return new Date(Math.round(next) * 1000).toISOString();
    return exactText || /^(clip\.|beat\.)/.test(path) ? String(next) : next;
  }

  function keys(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey) return;
    const direction = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (direction && value !== null) {
      const steps = stepsFor(unit, value);
      const step = event.shiftKey ? steps.coarse : event.altKey ? steps.fine : steps.usual;
      void put(stepped(value, step, direction), `key ${path}`);
    } else if (event.key === 'Enter' || event.key === ' ' || event.key === 'F2') void edit();
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

  function down(event: PointerEvent) {
    if (event.button !== 0) return;
    if (event.pointerType !== 'touch' && value !== null) {
      (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
      drag = { x: event.clientX, value, moved: false, merge: `drag ${path} ${event.timeStamp}` };
    }
  }

  function moved(event: PointerEvent) {
    if (!drag) return;
    const notches = Math.trunc((event.clientX - drag.x) / PX_A_STEP);
    if (!drag.moved && notches === 0) return;
    drag.moved = true;
    const steps = stepsFor(unit, drag.value);
    const step = event.shiftKey ? steps.coarse : event.altKey ? steps.fine : steps.usual;
    void put(Number((drag.value + notches * step).toFixed(6)), drag.merge);
  }

  function up(event: PointerEvent) {
    const wasDrag = drag?.moved;
    drag = null;
    if (event.button === 0 && !wasDrag) void edit();
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
      aria-valuenow={value ?? undefined}
      aria-valuetext={said}
      aria-keyshortcuts={onpeg ? 'p Enter' : 'Enter'}
      onkeydown={keys}
      onpointerdown={down}
      onpointermove={moved}
      onpointerup={up}
      onpointercancel={() => (drag = null)}>{said}</span
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
  @media (max-width: 760px) {
    /* A larger place to hit than the figure that is drawn. */
    [role='spinbutton'] {
      position: relative;
    }
    [role='spinbutton']::after {
      content: '';
      position: absolute;
      inset: -8px 0;
    }
  }
</style>

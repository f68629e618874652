<script lang="ts">
  /** A day in the reader's own order: each part typed or stepped; it counts once the field is left, or on Enter. */
  import { parseDate, type DateValue } from '@internationalized/date';
  import { DateField } from 'bits-ui';
  import { ORDERS, reader } from '../reader.svelte';

  interface Props {
    /** `2026-09-27`; nothing where no day is said. */
    value: string | null | undefined;
    label: string;
    /** The day that was put in; nothing where it was taken out. */
    onday: (day: string | null) => void;
    /** Days before or after these are not taken. */
    min?: string | undefined;
    max?: string | undefined;
    /** Whether it may be left empty. */
    optional?: boolean;
  }
  let { value, label, onday, min, max, optional = false }: Props = $props();

  const standing = $derived(value ? parseDate(value) : undefined);
  /** What is being typed; nothing of it is asked for until the field is left. */
  let typed = $state.raw<DateValue | undefined>();
  let touched = $state(false);
  let part = $state<HTMLElement>();
  const outside = $derived.by(() => {
    const day = touched && typed ? typed.toString() : '';
    return day !== '' && ((!!min && day < min) || (!!max && day > max));
  });

  function type(next: DateValue | undefined) {
    typed = next;
    touched = true;
  }

  function leave() {
    if (!touched) return;
    const day = typed?.toString() ?? null;
    const wrong = day === null ? !optional : outside;
    touched = false;
    if (!wrong && day !== (value ?? null)) onday(day);
  }
</script>

<span
  class="day"
  bind:this={part}
  onfocusout={(event) => {
    if (!part?.contains(event.relatedTarget as Node | null)) leave();
  }}
  onkeydown={(event) => event.key === 'Enter' && leave()}
  role="presentation"
>
  <DateField.Root
    value={touched ? typed : standing}
    onValueChange={type}
    granularity="day"
    locale={ORDERS[reader.order].locale}
  >
    <DateField.Input class="day-field" aria-label={label} aria-invalid={outside}>
      {#snippet children({ segments })}
        {#each segments as { part, value: said }, n (n)}
          {#if part === 'literal'}<DateField.Segment {part} class="between">{said}</DateField.Segment>
          {:else}<DateField.Segment {part} class="digits" aria-label="{label}: {part}"
              >{said}</DateField.Segment
            >{/if}
        {/each}
      {/snippet}
    </DateField.Input>
  </DateField.Root>
</span>

<style>
  .day {
    display: inline-block;
  }
  .day :global(.day-field) {
    display: inline-flex;
    align-items: center;
    min-height: 26px;
    border-bottom: 1px solid var(--ink);
    font-variant-numeric: tabular-nums;
  }
  .day :global(.day-field[aria-invalid='true']) {
    border-bottom: 3px double var(--stop);
  }
  .day :global(.digits) {
    padding: 1px 2px;
    min-width: 1.4em;
    text-align: center;
    font-weight: 600;
    caret-color: transparent;
  }
  .day :global(.digits:focus) {
    outline: 2px solid var(--ink);
    outline-offset: -1px;
    background: var(--wash2);
  }
  .day :global(.between) {
    color: var(--second);
    white-space: pre;
  }
  @media (max-width: 760px) {
    .day :global(.day-field),
    .day :global(.digits) {
      min-height: 44px;
      align-content: center;
      font-size: 16px;
    }
  }
</style>

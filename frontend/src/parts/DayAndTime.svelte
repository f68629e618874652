<script lang="ts">
  /** A day and a time on the clock of a place, in the reader's own order and hours: each part typed or stepped. */
  import { parseDateTime, type DateValue } from '@internationalized/date';
  import { DateField } from 'bits-ui';
  import { ORDERS, reader } from '../reader.svelte';

  interface Props {
    /** `2026-09-27T06:10`; nothing while a part of it is missing. */
    value: string;
    label: string;
    invalid?: boolean;
    describedby?: string;
  }
  let { value = $bindable(), label, invalid = false, describedby }: Props = $props();

  let held = $state.raw<DateValue | undefined>(value ? parseDateTime(value) : undefined);

  function take(next: DateValue | undefined) {
    held = next;
    value = next ? next.toString().slice(0, 16) : '';
  }
</script>

<DateField.Root
  value={held}
  onValueChange={take}
  granularity="minute"
  locale={ORDERS[reader.order].locale}
  hourCycle={reader.twelve ? 12 : 24}
  hideTimeZone
>
  <DateField.Label class="label block">{label}</DateField.Label>
  <DateField.Input class="day-and-time" aria-invalid={invalid} aria-describedby={describedby}>
    {#snippet children({ segments })}
      {#each segments as { part, value: said }, n (n)}
        {#if part === 'literal'}<DateField.Segment {part} class="day-between">{said}</DateField.Segment>
        {:else}<DateField.Segment {part} class="day-part">{said}</DateField.Segment>{/if}
      {/each}
    {/snippet}
  </DateField.Input>
</DateField.Root>

<style>
  :global(.day-and-time) {
    display: flex;
    align-items: center;
    min-height: 32px;
    border-bottom: 1px solid var(--ink);
  }
  :global(.day-and-time[aria-invalid='true']) {
    border-bottom: 3px double var(--stop);
  }
  :global(.day-and-time .day-part) {
    padding: 3px 2px;
    min-width: 1.4em;
    text-align: center;
    font-weight: 600;
    caret-color: transparent;
  }
  :global(.day-and-time .day-part:focus) {
    outline: 2px solid var(--ink);
    outline-offset: -1px;
    background: var(--wash2);
  }
  :global(.day-and-time .day-between) {
    color: var(--second);
    white-space: pre;
  }
  @media (max-width: 760px) {
    :global(.day-and-time) {
      min-height: 44px;
      font-size: 16px;
    }
    :global(.day-and-time .day-part) {
      min-height: 44px;
      align-content: center;
    }
  }
</style>

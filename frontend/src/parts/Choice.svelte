<script lang="ts" generics="T extends string">
  /** A few ways of which one holds, side by side; arrow keys move between them as between radio buttons. */
  interface Props {
    label: string;
    options: readonly { value: T; label: string; title?: string }[];
    value: T;
    onchoose: (value: T) => void;
    quiet?: boolean;
  }
  let { label, options, value, onchoose, quiet = false }: Props = $props();
  const name = $props.id();
</script>

<fieldset class:quiet>
  <legend class="sr-only">{label}</legend>
  {#each options as option (option.value)}
    <label class:on={option.value === value} title={option.title}>
      <input
        type="radio"
        class="sr-only"
        {name}
        value={option.value}
        checked={option.value === value}
        onchange={() => onchoose(option.value)}
      />
      {option.label}
    </label>
  {/each}
</fieldset>

<style>
  fieldset {
    display: inline-flex;
    flex-wrap: wrap;
    border: 1px solid var(--ink);
    padding: 0;
    margin: 0;
    min-width: 0;
  }
  label {
    position: relative;
    padding: 3px 12px;
    min-height: 26px;
    font-size: 13px;
    cursor: pointer;
  }
  label + label {
    border-left: 1px solid var(--ink);
  }
  label:hover {
    background: var(--wash);
  }
  .on {
    background: var(--ink);
    color: var(--sheet);
    font-weight: 600;
  }
  .on:hover {
    background: var(--ink);
  }
  label:has(:focus-visible) {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
    z-index: 1;
  }
  @media (max-width: 760px) {
    label {
      min-height: 44px;
      padding: 11px 14px;
    }
  }
</style>

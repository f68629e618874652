<script lang="ts">
  /** Where the rig stands on one axis: typed it goes there, pulled sideways or by the arrow keys it goes a little. */
  import { tick } from 'svelte';
  import { write } from '../../format';
  import { grasp, sized, type Grip } from '../../parts/grasp';
  import type { AxisName } from './axes';
  import type { JogRig } from '../../sheet/jog.svelte';

  interface Props {
    rig: JogRig;
    name: AxisName;
    linear: boolean;
  }
  let { rig, name, linear }: Props = $props();
  const PX_A_STEP = 6;
  const unit = $derived(linear ? 'mm' : 'deg');
  const at = $derived(rig.at[name]);
  /** Where it will be sent when the hand lets go. */
  let aimed = $state<number | null>(null);
  const value = $derived(aimed ?? at);
  const said = $derived(
    value === undefined ? 'not known' : write(Number(value.toFixed(linear ? 1 : 2)), unit)
  );
  let editing = $state(false);
  let text = $state('');
  let input = $state<HTMLInputElement>();

  const grip = $derived<Grip>({
    name: `rig ${name}`,
    slack: PX_A_STEP,
    take: () => at !== undefined && !rig.busy,
    drag: ({ by, size }) => {
      const step = sized(size, 0.5, 5, 0.1);
      aimed = Number(((at ?? 0) + Math.trunc(by.x / PX_A_STEP) * step).toFixed(3));
    },
    release: () => {
      const to = aimed;
      aimed = null;
      if (to !== null) void rig.go({ [name]: to });
    },
    atOnce: true,
    nudge: ({ way, size }) => {
      if (at !== undefined && !rig.busy) void rig.by(name, way * sized(size, 1, 10, 0.1));
    },
    tap: () => void edit()
  });

  async function edit() {
    if (at === undefined) return;
    text = said;
    editing = true;
    await tick();
    input?.select();
  }

  async function commit() {
    if (!editing) return;
    editing = false;
    if (text.trim() && text.trim() !== said) await rig.type(name, text);
  }
</script>

{#if editing}
  <input
    bind:this={input}
    bind:value={text}
    size={7}
    aria-label="rig, {name}"
    enterkeyhint="go"
    onblur={() => void commit()}
    onkeydown={(event) => {
      event.stopPropagation();
      if (event.key === 'Enter') void commit();
      else if (event.key === 'Escape') editing = false;
    }}
  />
{:else}
  <span
    role="spinbutton"
    tabindex="0"
    aria-label="rig, {name}"
    aria-valuenow={value}
    aria-valuetext={said}
    aria-disabled={at === undefined}
    onkeydown={(event) => {
      if (event.key !== 'Enter') return;
      event.preventDefault();
      void edit();
    }}
    use:grasp={grip}
    >{said}{#if rig.state?.at_end.includes(name)}<i title="It stands at its end">|</i>{/if}</span
  >
{/if}

<style>
  span,
  input {
    display: inline-block;
    min-height: 24px;
    padding: 0 2px;
    font-weight: 600;
    border-bottom: 2px dashed var(--second);
    user-select: none;
  }
  span[aria-disabled='true'] {
    border-bottom-color: transparent;
    font-weight: 450;
    color: var(--second);
  }
  span:hover {
    background: var(--wash);
  }
  i {
    font-style: normal;
    margin-left: 2px;
  }
  input {
    background: var(--wash2);
    width: 5.5em;
  }
</style>

<script lang="ts">
  /** What kind of shoot it is to be, as small drawings to choose from: it decides what the sheet begins with. */
  import type { ShootKind } from './ShootFields.svelte';

  let { kind = $bindable() }: { kind: ShootKind } = $props();
  const KINDS: { key: ShootKind; label: string }[] = [
    { key: 'slide', label: 'sliding past something' },
    { key: 'turn', label: 'turning on the spot' },
    { key: 'night', label: 'into the night' },
    { key: 'grow', label: 'growing for days' },
    { key: 'site', label: 'on site for months' },
    { key: 'print', label: 'a print, layer by layer' },
    { key: 'video', label: 'a film, sped up' }
  ];
</script>

<fieldset>
  <legend>What kind of shoot?</legend>
  <div class="kinds">
    {#each KINDS as { key, label } (key)}
      <label class:on={kind === key}>
        <input type="radio" name="kind" value={key} bind:group={kind} class="sr-only" />
        <svg viewBox="0 0 84 48" aria-hidden="true">
          {#if key === 'slide'}
            <path d="M8 40H76M12 40v4M72 40v4M18 34h12v6H18zM54 34h12v6H54z" />
            <path class="thin" d="M24 34L46 8L60 34" /><circle cx="46" cy="8" r="4" />
            <path class="thin" d="M33 37h16m0 0l-4-2.5m4 2.5l-4 2.5" />
          {:else if key === 'turn'}
            <path d="M42 40L18 12M42 40L66 12" /><path class="thin" d="M18 12A37 37 0 0 1 66 12" />
            <circle cx="42" cy="40" r="5" /><path
              class="thin"
              d="M32 22a18 18 0 0 1 20 0m0 0l-5 .6m5 -.6l-1.6-4.4"
            />
          {:else if key === 'night'}
            <path d="M4 12C20 12 26 14 34 24S54 41 80 41" />
            <path class="thin" d="M6 20h14v4h10v6h12v6h12v5h24" /><path
              d="M66 8a7 7 0 1 0 8 9a6 6 0 0 1-8-9z"
            />
          {:else if key === 'grow'}
            <path d="M8 43H76" />
            <path d="M16 43v-5M34 43v-12M52 43v-20M70 43V14" />
            <path
              class="thin"
              d="M34 33q6-1 7-6M52 30q7-1 8-8M52 26q-7-1-8-7M70 30q-8-1-9-9M70 22q7-1 8-8M70 15q-7-1-7-8"
            />
          {:else if key === 'site'}
            <path d="M10 43V8h7M6 43h10M17 5h9v7h-9z" />
            <path class="thin" d="M26 12L74 43M26 8L74 12" />
            <path d="M44 43V30h8V20h8V12h10v31z" /><path class="thin" d="M44 37h26M52 30h18M60 20h10" />
          {:else if key === 'print'}
            <path d="M10 42H74" /><path d="M30 42v-3h24v3M32 39v-3h20v3M34 36v-3h16v3M33 33v-3h18v3" />
            <path class="thin" d="M36 30v-3h12" /><path d="M46 8h10v9l-5 8l-5-8z" /><path
              class="thin"
              d="M14 12H46M56 12H74"
            />
          {:else}
            <path d="M8 12h42v24H8z" /><path class="thin" d="M15 12v24M22 12v24M29 12v24M36 12v24M43 12v24" />
            <path d="M56 14h20v20H56z" /><path class="thin" d="M66 14v20" /><path d="M50 24h5" />
          {/if}
        </svg>
        <span>{label}</span>
      </label>
    {/each}
  </div>
</fieldset>

<style>
  legend {
    font-weight: 600;
    margin-bottom: 4px;
  }
  .kinds {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(92px, 1fr));
    gap: 4px 8px;
  }
  label {
    display: grid;
    justify-items: center;
    gap: 2px;
    padding: 4px 2px;
    font-size: 12px;
    font-stretch: 90%;
    line-height: 1.2;
    text-align: center;
    cursor: pointer;
    border-bottom: 2px solid transparent;
  }
  label:hover {
    background: var(--wash);
  }
  label:has(:focus-visible) {
    outline: 2px solid var(--ink);
    outline-offset: 1px;
  }
  .on {
    border-bottom-color: var(--ink);
    font-weight: 650;
  }
  svg {
    width: 84px;
    height: 48px;
  }
  svg * {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  svg .thin {
    stroke: var(--second);
    stroke-width: 1;
  }
</style>

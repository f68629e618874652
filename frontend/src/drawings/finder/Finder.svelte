<script lang="ts">
  /** What the camera sees at the playhead; plays the clip at its real rate. The model loads when it is first needed. */
  import Download from '@lucide/svelte/icons/download';
  import Maximize from '@lucide/svelte/icons/maximize-2';
  import Minimize from '@lucide/svelte/icons/minimize-2';
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import Repeat from '@lucide/svelte/icons/repeat';
  import { onDestroy, untrack } from 'svelte';
  import { number, write } from '../../format';
  import { look } from '../../looks/look.svelte';
  import { download, plainName } from '../../parts/download';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { lines, paint, skins, type Shown } from './film';
  import { isExposed, poseAt, waysOf } from './pose';
  import type { Inks, Model } from './scene';

  interface Props {
    big?: boolean;
    onbig?: () => void;
  }
  let { big = false, onbig }: Props = $props();

  const sheet = theSheet();
  const head = sheet.playhead;
  let canvas = $state<HTMLCanvasElement>();
  let model = $state.raw<Model>();
  let failed = $state('');
  let shown = $state<Shown>({ thirds: true, level: false, safe: false, onion: false });
  let width = $state(300);
  let recording = $state<'no' | 'yes' | 'stop'>('no');
  let refused = $state('');
  let share = $state(0);
  let measured = $state(0);
  let ticks: number[] = [];
  /** A picture that takes longer is drawn coarsely while it moves; it rests when nothing has come for so long. */
  const SLOW_MS = 22;
  const REST_MS = 120;
  const COARSE = 0.6;
  let works: number[] = [];
  let slow = false;
  let scaled = 1;
  let shownAt = 0;
  let rest = 0;
  let work = $state(0);

  const view = $derived(sheet.evaluation.view);
  const frames = $derived(sheet.evaluation.frames ?? 1);
  const aspect = $derived(view ? (view.delivered_px[0] ?? 3) / (view.delivered_px[1] ?? 2) : 1.5);
  const drawn = $derived.by(() => {
    const wide = Math.min(aspect >= 1 ? width : width * 0.62, big ? 1280 : 640);
    return { width: Math.max(16, Math.round(wide)), height: Math.max(16, Math.round(wide / aspect)) };
  });
  const pose = $derived(poseAt(sheet.evaluation, head.frame));
  /** What is drawn: under another weather the pictures come out as that has them. */
  const told = $derived(
    sheet.weathered
      ? { ...sheet.evaluation, light: { ...sheet.evaluation.light, bright: sheet.weathered } }
      : sheet.evaluation
  );

  function inks(): Inks {
    const style = getComputedStyle(document.documentElement);
    const read = (name: string) => style.getPropertyValue(name).trim();
    return { sheet: read('--sheet'), ink: read('--ink'), dark: look.now !== 'paper' };
  }

  // The look changes the inks: the model is made anew with them.
  $effect(() => {
    const name = look.now;
    let gone = false;
    void import('./scene').then(
      ({ Model }) => {
        if (gone || name !== look.now) return;
        try {
          model = new Model(inks());
        } catch {
          failed = 'This browser cannot draw the scene. All figures are there without it.';
        }
      },
      () => (failed = 'The finder could not be loaded. Load the page again.')
    );
    return () => {
      gone = true;
      model?.dispose();
      model = undefined;
    };
  });

  // The model is made anew only when something in the scene has changed, not at every step of a drag.
  const scene = $derived(
    JSON.stringify([
      sheet.plan.move.marks,
      sheet.plan.rig.normal_bearing_deg,
      sheet.plan.rig.standing?.lens_height_mm
    ])
  );
  const exposed = $derived(isExposed(sheet.evaluation));
  $effect(() => {
    if (scene)
      model?.build(
        untrack(() => sheet.plan),
        exposed
      );
  });
  $effect(() => {
    if (scene && exposed !== undefined) model?.ways(waysOf(sheet.evaluation, frames));
  });
  $effect(() => {
    model?.size(drawn.width, drawn.height);
    // How long a picture takes depends on its size.
    works = [];
    slow = false;
    scaled = 1;
  });
  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!model || !context || recording !== 'no') return;
    const { width, height } = drawn;
    const [frame, ...seen] = [head.frame, told, scene, exposed, { ...shown }];
    const draw = () => {
      if (!seen.length || !canvas) return;
      canvas.width = width;
      canvas.height = height;
      show(context, frame);
    };
    if (head.playing) return draw();
    // Everything else that follows from a change is drawn first; changes that come together make one picture.
    const handle = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(handle);
  });

  function show(context: CanvasRenderingContext2D, frame: number) {
    if (!model) return;
    const began = performance.now();
    const moving = head.playing || began - shownAt < REST_MS;
    scale(moving ? (slow ? COARSE : 1) : model.fine);
    paint(context, model, sheet.plan, told, frame);
    if (shown.onion) skins(context, model, told, frames);
    lines(context, shown, inks().ink, sheet.plan.rig.standing?.level_error_deg ?? 0);
    shownAt = performance.now();
    count(shownAt - began);
    clearTimeout(rest);
    if (scaled !== model.fine)
      rest = window.setTimeout(() => !head.playing && show(context, head.frame), REST_MS * 2);
  }

  /** Without a graphics card a picture in motion is drawn with fewer pixels, and finely when it rests. */
  function scale(wanted: number) {
    if (wanted === scaled) return;
    scaled = wanted;
    model?.size(Math.round(drawn.width * scaled), Math.round(drawn.height * scaled));
  }

  /** How many pictures a second are drawn while it plays, and how long the work for one takes (median, ms). */
  function count(took: number) {
    // What is drawn finely takes its time, and may.
    if (scaled > 1) return;
    works = [...works, took].slice(-31);
    work = [...works].sort((a, b) => a - b)[works.length >> 1] ?? 0;
    if (works.length > 4 && scaled === 1 && work > SLOW_MS) {
      slow = true;
      works = [];
    }
    if (!head.playing) return;
    const now = performance.now();
    ticks = [...ticks.filter((tick) => now - tick < 1000), now];
    measured = ticks.length;
  }

  async function save() {
    if (!model || !view) return;
    head.stop();
    // A finer picture of the rest would change the model's size in the middle of the film.
    clearTimeout(rest);
    const film = document.createElement('canvas');
    film.width = 2 * Math.round(Math.min(1280, view.delivered_px[0] ?? 1280) / 2);
    film.height = 2 * Math.round(film.width / aspect / 2);
    const context = film.getContext('2d')!;
    model.size(film.width * model.fine, film.height * model.fine);
    share = 0;
    recording = 'yes';
    refused = '';
    let blob: Blob | null = null;
    try {
      const { encode } = await import('./webm');
      blob = await encode(
        film,
        frames,
        head.rate(),
        (frame) =>
          model && paint(context, model, sheet.plan, told, head.backwards() ? frames - 1 - frame : frame),
        (now) => (share = now),
        () => recording === 'stop'
      );
    } catch (error) {
      refused = error instanceof Error ? error.message : 'The film could not be saved.';
    }
    recording = 'no';
    model?.size(drawn.width, drawn.height);
    scaled = 1;
    if (blob) download(`${plainName(sheet.plan.shoot.name)}-preview.webm`, blob);
  }

  onDestroy(() => {
    recording = 'stop';
    clearTimeout(rest);
  });

  const LINES = [
    ['thirds', 'thirds'],
    ['level', 'level'],
    ['safe', 'safe area'],
    ['onion', 'both ends']
  ] as const;
</script>

<div class="finder" role="group" aria-label="Finder" class:big>
  <div class="seen">
    <div
      class="frame"
      bind:clientWidth={width}
      style:aspect-ratio={aspect}
      style:max-width={aspect < 1 ? '62%' : '100%'}
    >
      {#if failed}<p class="mono-note">{failed}</p>
      {:else if !view}<p class="mono-note">The finder sees something as soon as the clip is closed.</p>
      {:else}
        <canvas
          bind:this={canvas}
          aria-label="What the camera sees at frame {number(head.at + 1, 12)}: pan {write(
            pose?.pan ?? 0,
            'deg'
          )}, tilt {write(pose?.tilt ?? 0, 'deg')}"
          data-rate={measured}
          data-work={work}
          data-ready={model ? 'yes' : 'no'}
        ></canvas>
        {#if !model}<p class="mono-note">Setting up the scene …</p>{/if}
      {/if}
    </div>
    <div class="caption">
      <button
        type="button"
        class="icon"
        aria-label={head.playing ? 'Pause' : 'Play'}
        onclick={() => head.play()}
      >
        {#if head.playing}<Pause size={16} />{:else}<Play size={16} />{/if}
      </button>
      <button
        type="button"
        class="icon"
        aria-label="Play round and round"
        aria-pressed={head.loops}
        onclick={() => (head.loops = !head.loops)}><Repeat size={15} /></button
      >
      <b>Finder</b>
      <span class="label"
        >frame {number(head.at + 1, 12)} of {number(frames, 12)}{pose
          ? `, ${write(pose.focal, 'focal')}`
          : ''}</span
      >
      {#if recording === 'no'}
        <button
          type="button"
          class="icon last"
          aria-label="Save the preview as a WebM film"
          title="Save the preview as a WebM film"
          disabled={!model || !view}
          onclick={() => void save()}><Download size={15} /></button
        >
      {/if}
      {#if onbig}
        <button type="button" class="icon" aria-label={big ? 'Smaller' : 'Larger'} onclick={onbig}>
          {#if big}<Minimize size={15} />{:else}<Maximize size={15} />{/if}
        </button>
      {/if}
    </div>
  </div>
  {#if refused}<p role="alert">{refused}</p>{/if}
  <div class="tools">
    {#each LINES as [key, label] (key)}
      <label><input type="checkbox" bind:checked={shown[key]} />{label}</label>
    {/each}
    {#if recording !== 'no'}
      <span class="saving">
        <progress value={share} aria-label="Saving the preview"></progress>
        <span class="label">{write(share, 'share')}</span>
        <button type="button" class="link" onclick={() => (recording = 'stop')}>stop here</button>
      </span>
    {/if}
  </div>
</div>

<style>
  .finder {
    margin: 0;
  }
  .frame {
    position: relative;
    border: 1.6px solid var(--ink);
    margin-inline: auto;
  }
  canvas {
    display: block;
    width: 100%;
    height: 100%;
  }
  .frame p {
    position: absolute;
    inset: 0;
    display: grid;
    place-items: center;
    padding: 12px;
    text-align: center;
  }
  .caption {
    display: flex;
    align-items: center;
    gap: 8px;
    margin-top: 4px;
    min-height: 28px;
  }
  .icon {
    display: inline-grid;
    place-items: center;
    width: 28px;
    height: 28px;
    border: 1px solid transparent;
  }
  .icon:hover {
    background: var(--wash);
  }
  .icon[aria-pressed='true'] {
    border-color: var(--ink);
  }
  .last {
    margin-left: auto;
    font-size: 13px;
    min-height: 24px;
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0 12px;
    font-size: 13px;
    border-top: 1px solid var(--hair);
    padding-top: 2px;
  }
  .tools label {
    display: inline-flex;
    align-items: center;
    gap: 2px;
    margin-left: -5px;
  }
  .saving {
    display: inline-flex;
    gap: 8px;
    align-items: center;
    margin-left: auto;
  }
  progress {
    appearance: none;
    width: 90px;
    height: 6px;
    border: 1px solid var(--ink);
    background: transparent;
  }
  progress::-webkit-progress-bar {
    background: transparent;
  }
  progress::-webkit-progress-value {
    background: var(--ink);
  }
  progress::-moz-progress-bar {
    background: var(--ink);
  }
  /* It stays in sight while what it shows is changed further down: on a phone small, at the head of the page. */
  .finder:not(.big) {
    display: contents;
  }
  .finder:not(.big) .seen {
    position: sticky;
    top: 0;
    z-index: 5;
    background: var(--sheet);
  }
  @media (max-width: 760px) {
    .icon {
      width: 44px;
      height: 44px;
    }
    .finder:not(.big) .seen {
      order: -1;
      display: grid;
      grid-template-columns: minmax(0, 186px) minmax(0, 1fr);
      gap: 0 10px;
      align-items: center;
      margin: 0 -16px;
      padding: 4px 16px;
      border-bottom: 1px solid var(--ink);
    }
    .finder:not(.big) .frame {
      max-width: 100% !important;
      max-height: 132px;
      width: 100%;
    }
    .finder:not(.big) .caption {
      flex-wrap: wrap;
      gap: 0 6px;
    }
    .finder:not(.big) .caption b {
      display: none;
    }
    .finder:not(.big) .last {
      margin-left: 0;
    }
  }
</style>

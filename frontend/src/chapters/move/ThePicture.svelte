<script lang="ts">
  /** What is kept of each frame: shape, size, levelling, reserve; and a move that is made by cropping. */
  import Tick from '../../parts/Tick.svelte';
  import Take from '../../parts/Take.svelte';
  import CropDrawing from '../../drawings/crop/CropDrawing.svelte';
  import { number } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Suffers from './Suffers.svelte';

  const sheet = theSheet();
  const picture = $derived(sheet.plan.picture);
  const post = $derived(sheet.plan.move.post);
  const view = $derived(sheet.evaluation.view);
  const SHAPES = (['as shot', '3:2', '4:3', '16:9', '1:1', '9:16'] as const).map((value) => ({
    value,
    label: value
  }));
</script>

<div class="leaf grid grid-cols-[minmax(0,1fr)_330px] gap-5 max-narrow:grid-cols-1">
  <div>
    <CropDrawing />
    <p class="label">
      The frame as it is shot, what is kept of it, and the crop at the playhead. Drag a crop, or its corner;
      arrow keys move the one that has the focus.
    </p>
  </div>
  <div>
    <h3>The clip's picture</h3>
    <Choice
      label="Shape of the clip"
      options={SHAPES}
      value={picture.shape}
      onchoose={(shape) => sheet.put('picture.shape', shape)}
    />
    <Tick checked={sheet.plan.camera.upright} onchange={(on) => sheet.put('camera.upright', on)}
      >the camera stands upright</Tick
    >
    <Tick checked={sheet.plan.clip.backwards} onchange={(on) => sheet.put('clip.backwards', on)}
      >the footage is played in reverse: what moves in it goes backwards</Tick
    >
    <Rows>
      <Row label="delivered, across"
        >{#if picture.width_px === null || picture.width_px === undefined}
          <button
            type="button"
            class="link"
            onclick={() => sheet.put('picture.width_px', view?.delivered_px[0] ?? 3840)}
            >{number(view?.delivered_px[0] ?? 0, 12)} px, all there is</button
          >
        {:else}
          <Editable path="picture.width_px" label="width of the clip" unit="px" min={16} />
          <button type="button" class="link" onclick={() => sheet.put('picture.width_px', null)}
            >all there is</button
          >
        {/if}</Row
      >
      <Row label="upright">{number(view?.delivered_px[1] ?? 0, 12)} px</Row>
      <FigureRow label="headroom" figure="picture.headroom" />
      {#if post}<FigureRow label="tightest crop" figure="picture.tightest" />{/if}
      <Row label="turned level by" path="picture.level_deg" unit="deg" min={-45} />
      <FigureRow label="leaves of each side" figure="picture.levelled" />
      <Row label="left for stabilising" path="picture.reserve" name="reserve for stabilising" unit="share" />
      <Row
        label="left once distortion is out"
        path="camera.corrected"
        name="left of each side once distortion is out"
        unit="share"
      />
      <Row label="the lens fills, across"
        >{#if sheet.plan.camera.lens_px}<Editable
            path="camera.lens_px"
            label="pixels that the lens fills"
            unit="px"
            min={16}
          />
        {:else}<button
            type="button"
            class="link"
            onclick={() => sheet.put('camera.lens_px', sheet.plan.camera.picture_width_px)}>not known</button
          >{/if}</Row
      >
      <Row label="field of view"
        ><Working figure="view.across" /> × <Working
          figure="view.upright"
        />{#if sheet.figure('view.across.narrowest')}, zoomed in <Working figure="view.across.narrowest" /> × <Working
            figure="view.upright.narrowest"
          />{/if}</Row
      >
      <Row label="focal length" path="camera.focal_mm" unit="focal" min={1} />
    </Rows>
    <h3>A move in post</h3>
    {#if post}
      <p class="mono-note">
        Eased as the move is. What is cropped comes from the frame: the camera need not move at all.
      </p>
      <Rows>
        {#each ['start', 'end'] as const as end (end)}
          <Row label="{end}: across, down, width"
            >{#each ['across', 'down', 'width'] as const as field (field)}
              <Editable
                path="move.post.{end}.{field}"
                label="{field} of the crop at the {end}"
                unit="share"
              />
            {/each}</Row
          >
        {/each}
      </Rows>
      <p class="acts">
        <button type="button" class="link" onclick={() => sheet.put('move.post', null)}>no crop</button>
        <Take shoot={sheet.id} format="crops" />
      </p>
    {:else}
      <p class="mono-note">A still camera, and the move cropped from its frames.</p>
      <p class="acts">
        <button type="button" class="link" onclick={() => sheet.begin('move.post')}>crop a move</button>
        <Take shoot={sheet.id} format="crops" />
      </p>
    {/if}
    <Suffers />
  </div>
</div>

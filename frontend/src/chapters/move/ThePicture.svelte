<script lang="ts">
  /** What is kept of each frame: shape, size, levelling, reserve; and a move that is made by cropping. */
  import Take from '../../parts/Take.svelte';
  import type { Edit } from '../../api/client';
  import CropDrawing from '../../drawings/crop/CropDrawing.svelte';
  import { number } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Suffers from './Suffers.svelte';

  const sheet = theSheet();
  const picture = $derived(sheet.plan.picture ?? {});
  const post = $derived(sheet.plan.move.post);
  const view = $derived(sheet.evaluation.view);
  const SHAPES = (['as shot', '3:2', '4:3', '16:9', '1:1', '9:16'] as const).map((value) => ({
    value,
    label: value
  }));
  const put = (path: string, value: unknown) => void sheet.apply([{ path, value: value as Edit['value'] }]);
</script>

<div class="picture">
  <div>
    <CropDrawing />
    <p class="label">
      The frame as it is shot, what is kept of it, and the crop at the playhead. Drag a crop, or its corner;
      arrow keys move the one that has the focus.
    </p>
  </div>
  <div class="right">
    <h3>The clip's picture</h3>
    <Choice
      label="Shape of the clip"
      options={SHAPES}
      value={picture.shape ?? 'as shot'}
      onchoose={(shape) => put('picture.shape', shape)}
    />
    <label
      ><input
        type="checkbox"
        checked={sheet.plan.camera.upright}
        onchange={(e) => put('camera.upright', e.currentTarget.checked)}
      />the camera stands upright</label
    >
    <dl>
      <div>
        <dt>delivered, across</dt>
        <dd>
          {#if picture.width_px === null || picture.width_px === undefined}
            <button
              type="button"
              class="link"
              onclick={() => put('picture.width_px', view?.delivered_px[0] ?? 3840)}
              >{number(view?.delivered_px[0] ?? 0, 12)} px, all there is</button
            >
          {:else}
            <Editable
              path="picture.width_px"
              label="width of the clip"
              value={picture.width_px}
              unit="px"
              min={16}
            />
            <button type="button" class="link" onclick={() => put('picture.width_px', null)}
              >all there is</button
            >
          {/if}
        </dd>
      </div>
      <div>
        <dt>upright</dt>
        <dd>{number(view?.delivered_px[1] ?? 0, 12)} px</dd>
      </div>
      <div>
        <dt>headroom</dt>
        <dd><Working figure="picture.headroom" /></dd>
      </div>
      {#if post}<div>
          <dt>tightest crop</dt>
          <dd><Working figure="picture.tightest" /></dd>
        </div>{/if}
      <div>
        <dt>turned level by</dt>
        <dd>
          <Editable
            path="picture.level_deg"
            label="turned level by"
            value={picture.level_deg ?? 0}
            unit="deg"
            min={-45}
          />
        </dd>
      </div>
      {#if sheet.figure('picture.levelled')}<div>
          <dt>leaves of each side</dt>
          <dd><Working figure="picture.levelled" /></dd>
        </div>{/if}
      <div>
        <dt>left for stabilising</dt>
        <dd>
          <Editable
            path="picture.reserve"
            label="reserve for stabilising"
            value={picture.reserve ?? 0}
            unit="share"
          />
        </dd>
      </div>
      <div>
        <dt>left once distortion is out</dt>
        <dd>
          <Editable
            path="camera.corrected"
            label="left of each side once distortion is out"
            value={sheet.plan.camera.corrected ?? 1}
            unit="share"
          />
        </dd>
      </div>
      <div>
        <dt>the lens fills, across</dt>
        <dd>
          {#if sheet.plan.camera.lens_px}<Editable
              path="camera.lens_px"
              label="pixels that the lens fills"
              value={sheet.plan.camera.lens_px}
              unit="px"
              min={16}
            />
          {:else}<button
              type="button"
              class="link"
              onclick={() => put('camera.lens_px', sheet.plan.camera.picture_width_px)}>not known</button
            >{/if}
        </dd>
      </div>
      <div>
        <dt>field of view</dt>
        <dd><Working figure="view.across" /> × <Working figure="view.upright" /></dd>
      </div>
      <div>
        <dt>focal length</dt>
        <dd>
          <Editable
            path="camera.focal_mm"
            label="focal length"
            value={sheet.plan.camera.focal_mm}
            unit="focal"
            min={1}
          />
        </dd>
      </div>
    </dl>
    <h3>A move in post</h3>
    {#if post}
      <p class="mono-note">
        Eased as the move is. What is cropped comes from the frame: the camera need not move at all.
      </p>
      <dl>
        {#each ['start', 'end'] as const as end (end)}
          <div>
            <dt>{end}: across, down, width</dt>
            <dd>
              {#each ['across', 'down', 'width'] as const as field (field)}
                <Editable
                  path="move.post.{end}.{field}"
                  label="{field} of the crop at the {end}"
                  value={post[end]?.[field] ?? 0}
                  unit="share"
                />
              {/each}
            </dd>
          </div>
        {/each}
      </dl>
      <p class="acts">
        <button type="button" class="link" onclick={() => put('move.post', null)}>no crop</button>
        <Take shoot={sheet.id} format="crops" />
      </p>
    {:else}
      <p class="mono-note">A still camera, and the move cropped from its frames.</p>
      <p class="acts">
        <button
          type="button"
          class="link"
          onclick={() => put('move.post', { start: { width: 1 }, end: { width: 0.7 } })}>crop a move</button
        >
        <Take shoot={sheet.id} format="crops" />
      </p>
    {/if}
    <Suffers />
  </div>
</div>

<style>
  .picture {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 330px;
    gap: 20px;
  }
  h3 {
    border-top: 1px solid var(--ink);
    padding-top: 4px;
    margin: 8px 0 4px;
  }
  h3:first-child {
    margin-top: 0;
  }
  label {
    display: flex;
    align-items: center;
    gap: 4px;
    margin: 4px 0 4px -5px;
    font-size: 13px;
  }
  dl div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    font-size: 13px;
    gap: 8px;
  }
  dt {
    color: var(--second);
  }
  dd {
    text-align: right;
  }
  .acts {
    display: flex;
    gap: 16px;
    font-size: 13px;
    margin: 4px 0;
  }
  .link {
    min-height: 24px;
  }
  p.label {
    margin-top: 6px;
  }
  @media (max-width: 1000px) {
    .picture {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>

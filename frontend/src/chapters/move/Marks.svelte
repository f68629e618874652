<script lang="ts">
  /** What stands on the drawing: place, height, size; which mark is followed; two aims; when each is in the picture. */
  import X from '@lucide/svelte/icons/x';
  import Finder from '../../drawings/finder/Finder.svelte';
  import PlanDrawing from '../../drawings/plan/PlanDrawing.svelte';
  import SideView from '../../drawings/side/SideView.svelte';
  import { number, write } from '../../format';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import OneMark from './OneMark.svelte';
  import Sights from './Sights.svelte';

  const sheet = theSheet();
  const marks = $derived(sheet.plan.move.marks);
  const follow = $derived(sheet.plan.move.follow);
  const slides = $derived(sheet.plan.rig.axes.some(({ name }) => name === 'slide'));
  let open = $state(0);
  const chosen = $derived(marks[open]);

  function add() {
    open = marks.length;
    sheet.begin('move.marks');
  }

  function drop(index: number) {
    open = Math.max(0, index - 1);
    sheet.drop(`move.marks.${index}`);
  }
</script>

<div
  class="leaf grid grid-cols-[minmax(0,1fr)_316px] gap-5 max-narrow:grid-cols-1 max-phone:flex max-phone:flex-col"
>
  <div>
    <PlanDrawing height={300} />
    <SideView />
    <Sights />
  </div>
  <div class="max-phone:contents">
    <Finder />
    <h3>
      Marks <button type="button" class="link" onclick={add} disabled={marks.length >= 40}>+ a mark</button>
    </h3>
    <ul>
      {#each marks as mark, index (index)}
        {@const here = index === open}
        <li class={['flex border-b border-hair', here && 'bg-wash']}>
          <button
            type="button"
            class="min-h-[26px] flex-1 px-1 py-0.5 text-left font-[550] max-phone:min-h-11"
            aria-current={here ? 'true' : undefined}
            onclick={() => (open = index)}
            >{mark.name}
            <span class={['label', here && 'text-ink']}
              >{mark.form === 'bearing'
                ? mark.body === 'sun' || mark.body === 'moon'
                  ? `the ${mark.body}`
                  : write(mark.bearing_deg, 'deg')
                : `${number((slides ? mark.y_mm : Math.hypot(mark.x_mm, mark.y_mm)) / 1000, 3)} m`}{follow?.mark ===
              index
                ? ', followed'
                : ''}</span
            ></button
          >
          <button
            type="button"
            class="grid w-[26px] place-items-center text-second max-phone:w-11"
            aria-label="Take {mark.name} away"
            onclick={() => drop(index)}><X size={14} /></button
          >
        </li>
      {:else}
        <li class="mono-note">
          No mark yet. A mark is something in the scene: what is filmed, what is near, who walks in.
        </li>
      {/each}
    </ul>
    {#if chosen}<OneMark index={open} mark={chosen} />{/if}
    <div class="border-t border-ink pt-1">
      <Rows>
        {#if sheet.plan.rig.normal_bearing_deg === null}
          <Row label={slides ? 'the rail faces' : 'straight ahead is'}>
            <button type="button" class="link" onclick={() => sheet.begin('rig.normal_bearing_deg')}
              >set its bearing</button
            >
          </Row>
        {:else}
          <Row
            label={slides ? 'the rail faces' : 'straight ahead is'}
            path="rig.normal_bearing_deg"
            name={slides ? 'bearing square to the rail' : 'bearing straight ahead'}
            unit="deg"
          />
        {/if}
        <Row label="lens above the ground" path="rig.standing.lens_height_mm" unit="mm" />
        {#each ['first', 'last'] as const as at (at)}
          {#if sheet.figure(`sun.azimuth.${at}`)}
            <Row label="sun at the {at} frame">
              <Working figure="sun.azimuth.{at}" />, <Working figure="sun.altitude.{at}" /> high
            </Row>
          {/if}
        {/each}
      </Rows>
    </div>
  </div>
</div>

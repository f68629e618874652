<script lang="ts">
  /** One mark: what it is, where it stands, whether the camera keeps it in its place. */
  import type { Plan } from '../../api/client';
  import { skyAt } from '../../drawings/finder/pose';
  import { number, write } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import NameField from '../../parts/NameField.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import AimedTwice from './AimedTwice.svelte';

  interface Props {
    index: number;
    mark: Plan['move']['marks'][number];
  }
  let { index, mark }: Props = $props();
  const sheet = theSheet();
  const follow = $derived(sheet.plan.move.follow);
  const path = $derived(`move.marks.${index}`);

  const FORMS = (['point', 'post', 'block', 'person', 'bearing'] as const).map((value) => ({
    value,
    label: value
  }));
  const BODIES = [
    { value: 'still', label: 'stands still' },
    { value: 'sun', label: 'the sun' },
    { value: 'moon', label: 'the moon' },
    { value: 'star', label: 'a star' }
  ] as const;
  const body = $derived(mark.form === 'bearing' ? (mark.body ?? 'still') : 'still');
  const standing = $derived(skyAt(sheet.evaluation, index, sheet.playhead.frame));
  const ACROSS = (['left third', 'centre', 'right third'] as const).map((value) => ({ value, label: value }));
  const FAR = -1e6;
  /** What is asked for of each form. */
  const PLACE = [
    { field: 'x_mm', label: 'along the rail', name: (of: string) => `${of}, along the rail`, min: FAR },
    { field: 'y_mm', label: 'away from it', name: (of: string) => `${of}, away from the rail`, min: FAR },
    { field: 'z_mm', label: 'top, above the lens', name: (of: string) => `${of}, above the lens`, min: FAR }
  ];
  const WIDTH = { field: 'width_mm', label: 'width', name: (of: string) => `width of ${of}`, min: 0 };
  const DEPTH = { field: 'depth_mm', label: 'depth', name: (of: string) => `depth of ${of}`, min: 0 };
  const BEARING = [
    { field: 'bearing_deg', label: 'bearing', name: (of: string) => `bearing of ${of}`, min: -360 },
    { field: 'altitude_deg', label: 'above the horizon', name: (of: string) => `altitude of ${of}`, min: -90 }
  ];
  const FIELDS = {
    point: PLACE,
    person: PLACE,
    post: [...PLACE, WIDTH],
    block: [...PLACE, WIDTH, DEPTH],
    bearing: BEARING
  };
  const slides = $derived(sheet.plan.rig.axes.some(({ name }) => name === 'slide'));
  const fields = $derived(
    body === 'sun' || body === 'moon'
      ? []
      : FIELDS[mark.form].filter(({ field }) => slides || (field !== 'x_mm' && field !== 'y_mm'))
  );
  /** A camera that stands on one spot has marks around it: so far off, in such a direction. */
  const turn = $derived((Math.atan2(mark.x_mm, mark.y_mm) * 180) / Math.PI);
  const ahead = $derived(sheet.plan.rig.normal_bearing_deg ?? null);
  const aim = (keyframe: number | null) => void sheet.change([{ do: 'aim', mark: index, keyframe }]);
</script>

<div class="my-2 grid gap-1 border-t border-ink pt-1">
  <NameField
    path="{path}.name"
    label="name of mark {index + 1}"
    value={mark.name}
    class="text-sm font-[650]"
  />
  <Choice
    label="Form of the mark"
    options={FORMS}
    value={mark.form}
    onchoose={(form) => sheet.put(`${path}.form`, form)}
  />
  {#if mark.form === 'bearing'}
    <Choice
      label="What goes with the sky"
      options={BODIES}
      value={body}
      onchoose={(value) => sheet.put(`${path}.body`, value)}
    />
    {#if standing && body !== 'still'}
      <p>
        at frame {number(sheet.playhead.frame + 1, 12)}: {write((standing.azimuth + 720) % 360, 'deg')} from north,
        {write(standing.altitude, 'deg')} above the horizon
      </p>
    {/if}
    {#if body === 'star'}<p class="label">Where it stands at the first frame:</p>{/if}
  {/if}
  <Rows>
    {#if !slides && mark.form !== 'bearing'}
      <Row label="from the camera">
        <Editable
          path="{path}.distance_mm"
          label="{mark.name}, from the camera"
          value={Math.hypot(mark.x_mm, mark.y_mm)}
          unit="mm"
          min={1}
        />
      </Row>
      <Row label={turn < 0 ? 'to the left, from straight ahead' : 'to the right, from straight ahead'}>
        <Editable
          path="{path}.turn_deg"
          label="{mark.name}, direction"
          value={Number(turn.toFixed(2))}
          unit="deg"
          min={-360}
        />
      </Row>
      {#if ahead !== null}
        <Row label="bearing">
          <Editable
            path="{path}.compass_deg"
            label="{mark.name}, bearing"
            value={Number(((turn + ahead + 720) % 360).toFixed(2))}
            unit="deg"
            min={-360}
          />
        </Row>
      {/if}
    {/if}
    {#each fields as { field, label, name, min } (field)}
      <Row
        {label}
        path="{path}.{field}"
        name={name(mark.name)}
        unit={mark.form === 'bearing' ? 'deg' : 'mm'}
        {min}
      />
    {/each}
  </Rows>
  <p class="acts">
    <button type="button" class="link" onclick={() => aim(null)}>aim every keyframe at it</button>
    <button type="button" class="link" onclick={() => aim(sheet.plan.move.keyframes.length - 1)}
      >end on it</button
    >
  </p>
  <Tick
    checked={follow?.mark === index}
    onchange={(on) => sheet.put('move.follow', on ? { ...follow, mark: index, every_frame: false } : null)}
    >keep it in its place</Tick
  >
  {#if follow?.mark === index}
    <Choice
      label="Where it is kept"
      options={ACROSS}
      value={follow.across}
      onchoose={(across) => sheet.put('move.follow.across', across)}
    />
    <Tick checked={follow.every_frame} onchange={(on) => sheet.put('move.follow.every_frame', on)}
      >work the pan out for every frame</Tick
    >
    {#if sheet.figure('track.error')}
      <p>off its place by <Working figure="track.error" /> of the width at most</p>
    {/if}
  {/if}
  {#if mark.form !== 'bearing'}
    <Tick checked={mark.cue} onchange={(on) => sheet.put(`${path}.cue`, on)}
      >has to be there in time (cue list)</Tick
    >
    <AimedTwice {index} {mark} />
  {/if}
</div>

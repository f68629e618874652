import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { cropAt, openShare, poseAt, sunAt, WHOLE } from '../../frontend/src/drawings/finder/pose';
import { Playhead } from '../../frontend/src/sheet/playhead.svelte';
import { open } from './opened';

vi.stubGlobal('location', { pathname: '/shoots/3/move' });
vi.stubGlobal('addEventListener', () => {});
const { read } = await import('../../frontend/src/router.svelte');

describe('an address', () => {
  test.each([
    ['/', { name: 'shoots' }],
    ['/bin', { name: 'bin' }],
    ['/kit/', { name: 'kit', card: undefined, shoot: undefined }],
    ['/kit/4', { name: 'kit', card: 4, shoot: undefined }],
    ['/kit/4/2', { name: 'kit', card: 4, shoot: 2 }],
    ['/log', { name: 'log' }],
    ['/shoots/12', { name: 'sheet', id: 12, chapter: 'clip', leaf: undefined }],
    ['/shoots/12/move', { name: 'sheet', id: 12, chapter: 'move', leaf: undefined }],
    ['/shoots/12/move/marks', { name: 'sheet', id: 12, chapter: 'move', leaf: 'marks' }],
    ['/shoots/0', { name: 'nowhere' }],
    ['/shoots/1.5', { name: 'nowhere' }],
    ['/shoots/seven', { name: 'nowhere' }],
    ['/shoots', { name: 'nowhere' }],
    ['/shoots/12/move/marks/3', { name: 'nowhere' }],
    ['/bin/3', { name: 'nowhere' }],
    ['/kit/x', { name: 'nowhere' }],
    ['/kit/4/x', { name: 'nowhere' }],
    ['/kit/4/2/1', { name: 'nowhere' }],
    ['/elsewhere', { name: 'nowhere' }]
  ])('%s is one screen', (path, screen) => expect(read(path)).toEqual(screen));
});

describe('the playhead', () => {
  let now = 0;
  let next: ((at: number) => void) | null = null;
  let frames = 100;
  let reversed = false;
  let head: Playhead;
  /** Let the screen draw for so long, sixty times a second. */
  const wait = (seconds: number) => {
    for (const end = now + seconds * 1000; now < end - 1e-6 && next;) {
      now += 1000 / 60;
      const draw = next;
      next = null;
      draw(now);
    }
  };
  beforeEach(() => {
    now = 0;
    next = null;
    frames = 100;
    vi.stubGlobal('requestAnimationFrame', (draw: (at: number) => void) => {
      next = draw;
      return 1;
    });
    vi.stubGlobal('cancelAnimationFrame', () => (next = null));
    vi.spyOn(performance, 'now').mockImplementation(() => now);
    reversed = false;
    head = new Playhead(
      () => frames,
      () => 25,
      () => reversed
    );
  });
  afterEach(() => vi.restoreAllMocks());

  test('plays at the rate of the clip, and stops at its end', () => {
    head.play();
    wait(1);
    expect(head.frame).toBeCloseTo(25, 1);
    wait(10);
    expect([head.at, head.playing]).toEqual([99, false]);
  });
  test('plays from the start again when it stands at the end, and halts when asked twice', () => {
    head.to(99);
    head.play();
    wait(0.4);
    expect(head.frame).toBeCloseTo(10, 1);
    head.play();
    wait(1);
    expect([head.at, head.playing]).toEqual([10, false]);
  });
  test('plays footage that is played in reverse from its last frame to its first', () => {
    reversed = true;
    head.play();
    wait(1);
    expect(head.frame).toBeCloseTo(99 - 25, 1);
    wait(10);
    expect([head.at, head.playing]).toEqual([0, false]);
  });
  test('goes round where it is told to', () => {
    head.loops = true;
    head.play();
    wait(5);
    expect(head.playing).toBe(true);
    expect(head.at).toBeLessThan(30);
  });
  test('never stands past the end, however short the shoot has become', () => {
    head.to(1e9);
    expect(head.at).toBe(99);
    frames = 10;
    expect(head.at).toBe(9);
    frames = 0;
    expect(head.at).toBe(0);
    head.to(-4);
    expect(head.at).toBe(0);
  });
  test('is moved by whole frames, which halts it', () => {
    head.play();
    wait(0.5);
    head.by(3);
    expect([head.at, head.playing]).toEqual([16, false]);
    head.by(-1000);
    expect(head.at).toBe(0);
  });
});

describe('what the finder sees', () => {
  const harbour = open('harbour-refloat');
  const weir = open('mill-weir-footbridge');
  const { frames } = harbour.evaluation as { frames: number };

  test('stands at the keyframes where the plan has them, and goes on in between', () => {
    const { view } = harbour.evaluation;
    harbour.plan.move.keyframes.forEach((key, number) => {
      const pose = poseAt(harbour.evaluation, view!.keyframes[number]!)!;
      expect(pose.x).toBeCloseTo(key.slide_mm, 0);
    });
    const slide = (frame: number) => poseAt(harbour.evaluation, frame)!.x;
    for (const frame of [0, 100, 333, frames - 2]) {
      const [here, half, there] = [slide(frame), slide(frame + 0.5), slide(frame + 1)];
      expect(half).toBeCloseTo((here + there) / 2, 6);
    }
    expect(slide(frames + 50)).toBe(slide(frames - 1));
  });
  test('has the sun where the almanac has it, up and light by its altitude', () => {
    const { figures, view } = harbour.evaluation;
    const at = (frame: number) => sunAt(harbour.evaluation, frame)!;
    expect(at(0).altitude).toBeCloseTo(figures['sun.altitude.first']!.value, 1);
    expect(at(frames - 1).azimuth % 360).toBeCloseTo(figures['sun.azimuth.last']!.value, 1);
    const [none, all] = view!.daylight_deg as [number, number];
    const told = (altitude: number) => {
      const series = { frames: [], values: [altitude] };
      return sunAt({ traces: null, view: { ...view!, sun: { azimuth: series, altitude: series } } }, 0)!;
    };
    expect([told(none - 5), told((none + all) / 2), told(all + 5)].map(({ daylight }) => daylight)).toEqual([
      0, 0.5, 1
    ]);
    expect([told(view!.sun_up_deg - 0.01).up, told(view!.sun_up_deg + 0.01).up]).toEqual([false, true]);
    expect(sunAt({ traces: null, view: { ...view!, sun: null } }, 0)).toBe(null);
  });
  test('is cropped where the plan crops, from one crop to the other', () => {
    expect(cropAt(harbour.evaluation, 10)).toEqual(WHOLE);
    const { start, end } = weir.plan.move.post!;
    const last = (weir.evaluation.frames ?? 1) - 1;
    expect(cropAt(weir.evaluation, 0)[2]).toBeCloseTo(start.width, 3);
    expect(cropAt(weir.evaluation, last)[2]).toBeCloseTo(end.width, 3);
    for (const frame of [0, last / 3, last]) {
      const [left, top, width, height] = cropAt(weir.evaluation, frame);
      expect(left).toBeGreaterThanOrEqual(-1e-6);
      expect(top).toBeGreaterThanOrEqual(-1e-6);
      expect(left + width).toBeLessThanOrEqual(1 + 1e-4);
      expect(top + height).toBeLessThanOrEqual(1 + 1e-4);
    }
  });
  test('smears only where the camera goes on while the shutter is open', () => {
    const { plan, evaluation } = structuredClone({ plan: harbour.plan, evaluation: harbour.evaluation });
    plan.beat.school = 'shoot-move-shoot';
    expect(openShare(plan, evaluation, 0)).toBe(0);
    plan.beat.school = 'continuous';
    expect(openShare(plan, evaluation, 0)).toBeCloseTo(evaluation.figures['beat.share']!.value, 9);
    evaluation.figures['beat.share']!.value = 1.7;
    expect(openShare(plan, evaluation, 0)).toBe(1);
  });
  test('is nothing while the clip is open', () => {
    expect(poseAt({ traces: null, view: null }, 3)).toBe(null);
    expect(sunAt({ traces: null, view: null }, 3)).toBe(null);
    expect(cropAt({ traces: null, view: null }, 3)).toEqual(WHOLE);
  });
});

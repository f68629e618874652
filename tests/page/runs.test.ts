import { calls, serve } from './served';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { JogRig } from '../../frontend/src/sheet/jog.svelte';
import { RunWatch } from '../../frontend/src/sheet/run.svelte';
import { open } from './opened';

/** A run as the server tells it: it has so many events by now, and tells those from a number on. */
function running(phase = 'exposing') {
  const run = { id: 5, phase, told: 0 };
  const event = (number: number) => ({ number, text: `event ${number}` });
  serve(({ method, path, body }) => {
    if (path === '/api/shoots/7/runs' && method === 'GET') return [200, { runs: [{ id: 5 }, { id: 4 }] }];
    if (path.endsWith('/ask')) {
      const { what } = body as { what: string | null };
      if (what === 'go on') return [409, { message: 'It is not standing still.' }];
      if (what === 'stop') run.phase = 'stopped';
      return [200, {}];
    }
    const after = Number(/after=(\d+)/.exec(path)?.[1] ?? 0);
    const events = Array.from({ length: run.told }, (_, n) => event(n)).slice(after);
    return [method === 'POST' ? 201 : 200, { id: run.id, phase: run.phase, events }];
  });
  return run;
}

describe('a run that is looked at', () => {
  let watch: RunWatch;
  beforeEach(() => {
    vi.useFakeTimers();
    watch = new RunWatch(7);
  });
  afterEach(() => {
    watch.close();
    vi.useRealTimers();
  });

  test('is the latest of its shoot, and each event is told once', async () => {
    const run = running();
    run.told = 3;
    await watch.open();
    expect([watch.loaded, watch.under, watch.run!.id]).toEqual([true, true, 5]);
    for (const told of [3, 10, 12]) {
      run.told = told;
      await vi.advanceTimersByTimeAsync(400);
    }
    expect(watch.events.map(({ number }) => number)).toEqual(Array.from({ length: 12 }, (_, n) => n));
    expect(calls.at(-1)!.path).toBe('/api/runs/5?after=10');
  });

  test('keeps the last events of a long one', async () => {
    const run = running();
    run.told = 1000;
    await watch.open();
    expect([watch.events.length, watch.events[0]!.number, watch.events.at(-1)!.number]).toEqual([
      400, 600, 999
    ]);
  });

  test('is not asked for any more when it has ended, nor when nobody looks', async () => {
    const run = running();
    await watch.open();
    run.phase = 'finished';
    await vi.advanceTimersByTimeAsync(400);
    expect(watch.under).toBe(false);
    const asked = calls.length;
    await vi.advanceTimersByTimeAsync(30_000);
    expect(calls.length).toBe(asked);
    run.phase = 'exposing';
    watch.close();
    await vi.advanceTimersByTimeAsync(30_000);
    expect(calls.length).toBe(asked);
  });

  test('says that the server is away, and takes it back by itself', async () => {
    running();
    await watch.open();
    serve(() => 'away');
    await vi.advanceTimersByTimeAsync(400);
    expect(watch.trouble).toMatch(/cannot be reached/);
    running();
    await vi.advanceTimersByTimeAsync(400);
    expect(watch.trouble).toBe('');
  });

  test('does what it is asked, or says why not, beside how it stands by then', async () => {
    running();
    await watch.open();
    await watch.ask('go on');
    expect(watch.trouble).toBe('It is not standing still.');
    await watch.ask('pause', 60);
    const asked = calls.filter(({ path }) => path.endsWith('/ask')).map(({ body }) => body);
    expect(asked).toEqual([
      { what: 'go on', speed: null },
      { what: 'pause', speed: 60 }
    ]);
    expect(watch.trouble).toBe('');
    await watch.ask('stop');
    expect([watch.run!.phase, watch.under]).toEqual(['stopped', false]);
  });

  test('begins anew without the events of the one before', async () => {
    const run = running('finished');
    run.told = 8;
    await watch.open();
    Object.assign(run, { id: 6, phase: 'waiting', told: 1 });
    await watch.begin(600);
    expect([watch.run!.id, watch.events.length, watch.under]).toEqual([6, 1, true]);
    serve(() => [409, { message: 'Another run is under way.' }]);
    await watch.begin(1);
    expect([watch.trouble, watch.run!.id]).toEqual(['Another run is under way.', 6]);
  });

  test('a shoot that was never run has none', async () => {
    serve(() => [200, { runs: [] }]);
    await watch.open();
    expect([watch.loaded, watch.run, watch.under]).toEqual([true, null, false]);
    await watch.ask('pause');
    expect(calls.length).toBe(1);
  });
});

describe('the rig on the simulated controller', () => {
  const { sheet } = open('harbour-refloat');
  const rig = () => new JogRig(sheet);
  const asked = () => {
    const { plan: _, ...rest } = calls.at(-1)!.body as Record<string, unknown>;
    return rest;
  };

  test('is asked for what the button says, with the plan as it stands', async () => {
    serve(() => [200, { seconds: 4.25, axes: [] }]);
    const jog = rig();
    await jog.by('slide', -10);
    expect(asked()).toMatchObject({ do: 'by', axes: ['slide'], amounts: { slide: -10 } });
    expect((calls.at(-1)!.body as { plan: object }).plan).toEqual(sheet.plan);
    expect(jog.said).toBe('');
    await jog.reference(['slide', 'pan']);
    expect(asked()).toMatchObject({ do: 'reference', axes: ['slide', 'pan'], amounts: {} });
    expect(jog.said).toBe('referenced, after 4.3 s');
    await jog.go({ pan: 12.5, tilt: -3 });
    expect(asked()).toMatchObject({ do: 'go', axes: ['pan', 'tilt'], amounts: { pan: 12.5, tilt: -3 } });
    expect([jog.said, jog.busy]).toEqual(['there, after 4.3 s', false]);
  });
  test('says what it refuses, and keeps where it stood', async () => {
    serve(() => [200, { seconds: 1, axes: [{ name: 'slide', at: 40 }] }]);
    const jog = rig();
    await jog.look();
    serve(() => [409, { message: 'The slide is not referenced.' }]);
    await jog.by('slide', 900);
    expect(jog.said).toBe('The slide is not referenced.');
    expect(jog.state!.axes).toEqual([{ name: 'slide', at: 40 }]);
    serve(() => 'away');
    await jog.look();
    expect([jog.said, jog.busy]).toEqual(['Bridle cannot be reached. Is it still running?', false]);
  });
  test('goes through the program, or says at which line it cannot', async () => {
    serve(() => [200, { lines: 12 }]);
    const jog = rig();
    await jog.rehearse();
    expect([jog.wrong, (jog.rehearsal as unknown as { lines: number }).lines]).toEqual(['', 12]);
    serve(() => [409, { message: 'Line 7: past the end of the slide.' }]);
    await jog.rehearse();
    expect([jog.wrong, jog.rehearsal, jog.busy]).toEqual([
      'Line 7: past the end of the slide.',
      undefined,
      false
    ]);
  });
});

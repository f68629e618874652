import { calls, serve, type Answer } from './served';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { CardLine, KitCard } from '../../frontend/src/api/client';
import { Desk, placed } from '../../frontend/src/kit/desk.svelte';

const { cards } = JSON.parse(readFileSync(process.env.BRIDLE_EXPECTED!, 'utf-8')) as {
  cards: Record<string, KitCard>;
};
const [rail, body] = Object.values(cards).filter(({ kind }) => kind === 'axis' || kind === 'body');

/** A shelf as the server keeps it; `broken` is what is answered instead, once each. */
function shelf() {
  const line = (id: number, card: KitCard) =>
    ({ id, identity: `card ${id}`, version: 1, card, used: 0 }) as unknown as CardLine;
  const lines = [line(1, rail!), line(2, body!)];
  const instead: Answer[] = [];
  const put = (id: number, sent: { version: number; card: KitCard }): Answer => {
    const here = lines.find((card) => card.id === id)!;
    if (sent.version !== here.version) return [409, { message: 'Changed elsewhere.', kept: here }];
    Object.assign(here, { version: here.version + 1, card: sent.card });
    return [200, structuredClone(here)];
  };
  const typed = ({ card, path, text }: { card: KitCard; path: string; text: string }): Answer =>
    text === 'soon'
      ? [422, { message: 'no', problems: [{ expected: 'a mass such as 650' }] }]
      : [200, { card: placed(card, path, Number(text)) }];
  serve(({ method, path, body }) => {
    const first = instead.shift();
    if (first) return first;
    if (path === '/api/kit' && method === 'GET')
      return [200, { cards: structuredClone(lines), broken: [], in_bin: 0 }];
    if (path === '/api/kit/type') return typed(body);
    const id = Number(/\/api\/kit\/(\d+)/.exec(path)?.[1]);
    if (method === 'PUT') return put(id, body);
    if (path.endsWith('/duplicate') || path === '/api/kit') {
      lines.push(line(9, { ...(lines.find((card) => card.id === id) ?? lines[0])!.card, name: 'made' }));
      return [201, structuredClone(lines.at(-1))];
    }
    return [200, {}];
  });
  return { lines, instead };
}

/** What waits in this browser for the server; nothing where nothing does. */
const waits = () => Object.values(localStorage)[0] ?? null;

describe('the card in hand', () => {
  let kept: ReturnType<typeof shelf>;
  let desk: Desk;
  const mass = (id = 1) => (kept.lines.find((card) => card.id === id)!.card as { mass_g: number }).mass_g;
  beforeEach(async () => {
    vi.useFakeTimers();
    localStorage.clear();
    kept = shelf();
    desk = new Desk();
    await desk.look();
    desk.hold(1);
  });
  afterEach(() => vi.useRealTimers());

  test('is changed by what is typed, and each change is undone and done again', async () => {
    const stood = mass();
    for (const text of ['700', '800']) expect(await desk.type('mass_g', text)).toBe(true);
    expect([mass(), (desk.content as { mass_g: number }).mass_g, desk.saved]).toEqual([800, 800, 'saved']);
    desk.undo();
    desk.undo();
    await vi.runAllTimersAsync();
    expect([mass(), desk.undos.length, desk.redos.length]).toEqual([stood, 0, 2]);
    desk.redo();
    await vi.runAllTimersAsync();
    expect(mass()).toBe(700);
    await desk.set('mass_g', 900);
    expect(desk.redos).toEqual([]);
    desk.redo();
    await vi.runAllTimersAsync();
    expect(mass()).toBe(900);
  });

  test('has one undo for a whole drag', async () => {
    const stood = mass();
    for (const grams of [710, 720, 730]) await desk.set('mass_g', grams, 'drag-1');
    await desk.set('mass_g', 740, 'drag-2');
    expect(desk.undos.length).toBe(2);
    desk.undo();
    await vi.runAllTimersAsync();
    expect(mass()).toBe(730);
    desk.undo();
    await vi.runAllTimersAsync();
    expect(mass()).toBe(stood);
  });

  test('undoing takes the other card back into the hand', async () => {
    await desk.set('mass_g', 710);
    desk.hold(2);
    desk.undo();
    await vi.runAllTimersAsync();
    expect(desk.held).toBe(1);
  });

  test('what cannot be read is said at its place, and goes when it is put right', async () => {
    const stood = mass();
    expect(await desk.type('mass_g', 'soon')).toBe(false);
    expect(desk.troubles.get('mass_g')).toBe('Expected a mass such as 650.');
    expect([mass(), desk.saved]).toEqual([stood, 'not saved']);
    await desk.type('mass_g', '650');
    expect([desk.troubles.size, mass()]).toEqual([0, 650]);
  });

  test('changes follow one another, each from what the one before has left', async () => {
    const name = (desk.content as { name: string }).name;
    const both = [desk.set('mass_g', 700), desk.set('height_mm', 55), desk.set('width_mm', 66)];
    await vi.runAllTimersAsync();
    expect(await Promise.all(both)).toEqual([true, true, true]);
    expect(kept.lines[0]!.card).toMatchObject({ name, mass_g: 700, height_mm: 55, width_mm: 66 });
    expect(kept.lines[0]!.version).toBe(4);
  });

  test('a server that is away is waited for, and nothing is lost if the window closes meanwhile', async () => {
    kept.instead.push('away', 'away');
    const set = desk.set('mass_g', 777);
    await vi.advanceTimersByTimeAsync(100);
    expect([desk.saved, desk.unsettled]).toEqual(['not saved', true]);
    expect(desk.trouble).toMatch(/cannot be reached/);
    expect(waits()).toContain('777');
    await vi.advanceTimersByTimeAsync(4000);
    expect(await set).toBe(true);
    expect([mass(), desk.saved, waits()]).toEqual([777, 'saved', null]);

    kept.instead.push(...Array.from({ length: 9 }, () => 'away' as const));
    const lost = desk.set('mass_g', 888);
    await vi.advanceTimersByTimeAsync(100);
    desk.close();
    await vi.advanceTimersByTimeAsync(20_000);
    expect(await lost).toBe(false);
    kept.instead.length = 0;
    const next = new Desk();
    await next.look();
    await next.takeUp();
    expect([mass(), waits()]).toEqual([888, null]);
  });

  test('what was left of a card that is not here, under whatever number, stays and is told', async () => {
    kept.instead.push(...Array.from({ length: 9 }, () => 'away' as const));
    void desk.set('mass_g', 999);
    await vi.advanceTimersByTimeAsync(100);
    desk.close();
    await vi.advanceTimersByTimeAsync(20_000);
    kept.instead.length = 0;
    const stood = mass();
    kept.lines[0]!.identity = 'another card of the same number';
    const next = new Desk();
    await next.look();
    await next.takeUp();
    expect([mass(), next.trouble]).toEqual([stood, expect.stringContaining('not here')]);
    expect(waits()).toContain('999');
  });

  test('a card that somebody else has changed is shown as it is now, and said so', async () => {
    Object.assign(kept.lines[0]!, { version: 5, card: { ...rail!, name: 'theirs' } });
    expect(await desk.set('mass_g', 700)).toBe(false);
    expect(desk.trouble).toBe(
      'Changed elsewhere. The newer one is shown; make your change again if you still want it.'
    );
    expect(desk.content!.name).toBe('theirs');
    expect(await desk.set('mass_g', 700)).toBe(true);
    expect(kept.lines[0]!.card).toMatchObject({ name: 'theirs', mass_g: 700 });
  });

  test('new cards and copies come into the hand; binned ones leave it and come back', async () => {
    await desk.duplicate(desk.card!);
    expect([desk.held, desk.content!.name]).toEqual([9, 'made']);
    expect(calls.at(-1)!.path).toBe('/api/kit/1/duplicate');
    const gone = desk.card!;
    await desk.bin(gone);
    expect([desk.held, desk.gone]).toEqual([null, gone]);
    await desk.back(9);
    expect([desk.gone, calls.at(-2)!.path]).toEqual([null, '/api/kit/9/back']);
    kept.instead.push([507, { message: 'The disk is full.' }]);
    await desk.make('lens');
    expect([desk.trouble, desk.held]).toEqual(['The disk is full.', null]);
  });

  test('a card that is made while the shelf is still on its way stays on it, and in the hand', async () => {
    let late: (answer: Answer) => void = () => {};
    const [made] = [structuredClone(kept.lines[0]!)];
    let asked = 0;
    serve(({ method, path }) => {
      if (method === 'POST' && path === '/api/kit') return [201, made];
      asked += 1;
      if (asked > 1) return [200, { cards: [made], broken: [], in_bin: 0 }];
      return new Promise<Answer>((answer) => (late = answer));
    });
    const desk = new Desk();
    const looking = desk.look();
    await desk.make('axis');
    late([200, { cards: [], broken: [], in_bin: 0 }]);
    await looking;
    expect(desk.cards?.map(({ id }) => id)).toEqual([made!.id]);
    expect(desk.card?.id).toBe(made!.id);
  });
  test('a value is put in its place and nowhere else, and told as typed', () => {
    const card = { name: 'a', drive: { kind: 'belt', table: [{ rate: 1 }] } } as never as KitCard;
    expect(placed(card, 'drive.table.0.rate', 2)).toEqual({
      name: 'a',
      drive: { kind: 'belt', table: [{ rate: 2 }] },
      typed: ['drive.table.0.rate']
    });
    expect(card).toEqual({ name: 'a', drive: { kind: 'belt', table: [{ rate: 1 }] } });
  });
});

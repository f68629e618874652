import { beforeEach, describe, expect, test, vi } from 'vitest';
import {
  arrow,
  calm,
  grasp,
  restsWith,
  sized,
  type Drag,
  type Grip,
  type Nudge
} from '../../frontend/src/parts/grasp';

vi.stubGlobal('SVGElement', class {});

/** A thing on the page: hears events, and lets a pointer be captured. */
class Thing extends EventTarget {
  captured: number[] = [];
  setPointerCapture(pointer: number) {
    this.captured.push(pointer);
  }
  /** Sends an event with these values; returns it, to be asked what became of it. */
  send(kind: string, values: Record<string, unknown> = {}): Event & { stopped: boolean } {
    const event = new Event(kind, { cancelable: true }) as Event & {
      stopped: boolean;
    };
    event.stopPropagation = () => {
      event.stopped = true;
    };
    Object.assign(event, {
      pointerId: 1,
      button: 0,
      clientX: 0,
      clientY: 0,
      ...values
    });
    this.dispatchEvent(event);
    return event;
  }
  at(kind: string, clientX: number, clientY: number, values: Record<string, unknown> = {}) {
    return this.send(kind, { clientX, clientY, ...values });
  }
}

let thing: Thing;
let drags: Drag[];
let nudges: Nudge[];
let said: string[];
let hand: { update?: (grip: Grip) => void; destroy?: () => void };
const grip = (more: Partial<Grip> = {}): Grip => ({
  name: 'post',
  drag: (drag) => drags.push(drag),
  nudge: (nudge) => nudges.push(nudge),
  release: () => said.push('released'),
  tap: () => said.push('tapped'),
  ...more
});
function take(more: Partial<Grip> = {}) {
  hand = grasp(thing as unknown as HTMLElement, grip(more)) as typeof hand;
}

beforeEach(() => {
  thing = new Thing();
  [drags, nudges, said] = [[], [], []];
});

describe('a hand on a drawing while the page moves', () => {
  test('moves nothing that it did not move itself, and nothing comes in above it meanwhile', async () => {
    vi.stubGlobal(
      'DOMPoint',
      class {
        constructor(
          readonly x: number,
          readonly y: number
        ) {}
        matrixTransform = (m: { a: number; d: number; e: number; f: number }) => ({
          x: m.a * this.x + m.e,
          y: m.d * this.y + m.f
        });
      }
    );
    vi.stubGlobal('SVGElement', Thing);
    let top = 0;
    // Drawn at half its size; where it stands on the page is the page's business.
    const drawn = Object.assign(thing, {
      ownerSVGElement: {
        getScreenCTM: () => ({
          inverse: () => ({ a: 2, b: 0, c: 0, d: 2, e: 0, f: -2 * top })
        })
      }
    });
    take();
    drawn.at('pointerdown', 100, 750);
    let came = false;
    void calm().then(() => (came = true));
    // A banner of 91 px comes in above.
    top = 91;
    drawn.at('pointermove', 110, 750);
    await Promise.resolve();
    expect([drags[0]!.at, drags[0]!.by, came]).toEqual([{ x: 220, y: 1500 }, { x: 20, y: 0 }, false]);
    drawn.at('pointerup', 110, 750);
    await new Promise((later) => setTimeout(later, 0));
    expect(came).toBe(true);
    await calm();
    vi.stubGlobal('SVGElement', class {});
  });
});

describe('a hand on something', () => {
  test('pulls it by as far as it goes, under one name, and lets go', () => {
    take();
    thing.at('pointerdown', 10, 20);
    thing.at('pointermove', 13, 15);
    thing.at('pointermove', 40, 20, { shiftKey: true });
    thing.at('pointerup', 40, 20);
    thing.at('pointermove', 90, 90);
    expect(thing.captured).toEqual([1]);
    expect(drags.map(({ at, by, size }) => [at, by, size])).toEqual([
      [{ x: 13, y: 15 }, { x: 3, y: -5 }, 'usual'],
      [{ x: 40, y: 20 }, { x: 30, y: 0 }, 'coarse']
    ]);
    expect(new Set(drags.map(({ merge }) => merge)).size).toBe(1);
    expect(said).toEqual(['released']);
  });

  test('loses no press of a key: what comes while the last one is on its way is stepped on from there', async () => {
    let stands = 0;
    let arrive: (() => void)[] = [];
    restsWith(() => new Promise((done) => arrive.push(done)));
    const there = async () => {
      arrive.splice(0).forEach((done) => done());
      await new Promise((later) => setTimeout(later, 0));
    };
    const asked: number[] = [];
    take({
      nudge: ({ way }) => {
        asked.push(stands + way);
      }
    });
    const press = (key: string) => thing.send('keydown', { key });
    for (const key of ['ArrowRight', 'ArrowRight', 'ArrowRight', 'ArrowLeft', 'ArrowRight']) press(key);
    expect(asked).toEqual([1]);
    stands = 1;
    await there();
    expect(asked).toEqual([1, 3]);
    stands = 3;
    await there();
    press('ArrowRight');
    expect(asked).toEqual([1, 3, 4]);
    // Coarser steps, and steps up, are presses of their own.
    for (const values of [{}, { shiftKey: true }, { shiftKey: true }])
      thing.send('keydown', { key: 'ArrowRight', ...values });
    await there();
    await there();
    await there();
    expect(asked.length).toBe(5);
    arrive = [];
    restsWith(() => Promise.resolve());
  });

  test('gives each pull a name of its own, so that each is undone by itself', async () => {
    take();
    for (const _ of [1, 2]) {
      thing.at('pointerdown', 0, 0);
      thing.at('pointermove', 5, 0);
      thing.at('pointerup', 5, 0);
      await new Promise((later) => setTimeout(later, 5));
    }
    expect(drags[0]!.merge).not.toBe(drags[1]!.merge);
  });

  test('taps what it does not pull, and within the slack it does not pull', () => {
    take({ slack: 6 });
    thing.at('pointerdown', 0, 0);
    thing.at('pointermove', 4, 3);
    thing.at('pointerup', 4, 3);
    expect(drags).toEqual([]);
    expect(said).toEqual(['tapped', 'released']);
    thing.at('pointerdown', 0, 0);
    thing.at('pointermove', 8, 0);
    thing.at('pointermove', 2, 0);
    thing.at('pointerup', 2, 0);
    expect(drags.map(({ by }) => by.x)).toEqual([8, 2]);
    expect(said).toEqual(['tapped', 'released', 'released']);
  });

  test('leaves alone what does not want to be taken; a tap is still a tap', () => {
    take({ take: () => false });
    const down = thing.at('pointerdown', 0, 0);
    thing.at('pointermove', 50, 0);
    thing.at('pointerup', 50, 0);
    expect([thing.captured, drags, said, down.stopped]).toEqual([[], [], ['tapped'], undefined]);
  });

  test('is no other button, and lets go for a second finger', () => {
    take();
    thing.at('pointerdown', 0, 0, { button: 2 });
    thing.at('pointermove', 9, 0);
    expect(drags).toEqual([]);
    thing.at('pointerdown', 0, 0);
    thing.at('pointerdown', 70, 0, { pointerId: 2 });
    thing.at('pointermove', 9, 0);
    expect([drags, said]).toEqual([[], ['released']]);
  });

  test('is not touched by what only comes up here', () => {
    take();
    thing.at('pointerup', 0, 0);
    thing.at('pointercancel', 0, 0);
    expect(said).toEqual([]);
    thing.at('pointerdown', 0, 0);
    thing.at('pointerdown', 70, 0, { pointerId: 2 });
    thing.at('pointerup', 0, 0);
    thing.at('pointerup', 70, 0, { pointerId: 2 });
    expect(said).toEqual(['released']);
  });

  test('hears only the pointer that took hold', () => {
    take();
    thing.at('pointerdown', 0, 0);
    thing.at('pointermove', 30, 0, { pointerId: 5 });
    expect(drags).toEqual([]);
    thing.at('pointercancel', 0, 0);
    expect(said).toEqual(['released']);
  });

  test('keeps its hold while what it does changes under it', () => {
    take();
    thing.at('pointerdown', 0, 0);
    const later: Drag[] = [];
    hand.update?.(grip({ drag: (drag) => later.push(drag) }));
    thing.at('pointermove', 7, 1);
    expect([drags.length, later.map(({ by }) => by)]).toEqual([0, [{ x: 7, y: 1 }]]);
  });

  test('is gone when the thing is', () => {
    take();
    hand.destroy?.();
    thing.at('pointerdown', 0, 0);
    thing.at('pointermove', 9, 9);
    thing.send('keydown', { key: 'ArrowUp' });
    expect([drags, nudges, said]).toEqual([[], [], []]);
  });
});

describe('arrow keys', () => {
  test.each([
    ['ArrowRight', {}, [1, 0, 1, 'usual']],
    ['ArrowLeft', { shiftKey: true }, [-1, 0, -1, 'coarse']],
    ['ArrowUp', { altKey: true }, [0, 1, 1, 'fine']],
    ['ArrowDown', { shiftKey: true, altKey: true }, [0, -1, -1, 'coarse']]
  ] as const)('%s with %o nudges', (key, held, expected) => {
    take();
    const event = thing.send('keydown', { key, ...held });
    expect(nudges.map(({ right, up, way, size }) => [right, up, way, size])).toEqual([expected]);
    expect(nudges[0]!.merge).toBe('key post');
    expect([event.defaultPrevented, event.stopped]).toEqual([true, true]);
  });

  test.each([
    ['Enter', {}],
    ['Tab', {}],
    ['5', {}],
    ['ArrowRight', { ctrlKey: true }],
    ['ArrowLeft', { metaKey: true }]
  ])('%s with %o goes on to the page', (key, held) => {
    take();
    const event = thing.send('keydown', { key, ...held });
    expect([nudges, event.defaultPrevented, event.stopped]).toEqual([[], false, undefined]);
  });

  test('are four, and steps three', () => {
    expect(arrow('PageUp')).toBeNull();
    expect((['usual', 'coarse', 'fine'] as const).map((size) => sized(size, 1, 10, 0.1))).toEqual([
      1, 10, 0.1
    ]);
    expect(sized('fine', 2, 20)).toBe(2);
  });
});

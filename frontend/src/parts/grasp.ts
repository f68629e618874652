/**
 * One hand for everything that can be taken hold of: dragged with the pointer, or moved with the arrow keys.
 *
 * An action and not an attachment, because what it is given changes under the hand (a drag redraws the page) and the
 * hand must not let go for that.
 */
import type { Action } from 'svelte/action';

export interface Point {
  /** In the units of the drawing (of its `viewBox`, where it has one); in pixels of the page outside a drawing. */
  x: number;
  y: number;
}

export type Size = 'usual' | 'coarse' | 'fine';

export interface Drag {
  at: Point;
  /** Since the hand took hold. */
  by: Point;
  size: Size;
  /** What all changes of one drag are called, so that they are one step of undo. */
  merge: string;
}

export interface Nudge {
  /** Steps to the right and up; below nought to the left and down. */
  right: number;
  up: number;
  /** More or less, where there is only one direction to go. */
  way: number;
  size: Size;
  merge: string;
}

export interface Grip {
  /** What is held, told apart from all else on the page. */
  name: string;
  /** The hand takes hold; false leaves it alone. */
  take?: (at: Point, event: PointerEvent) => boolean | void;
  drag?: (drag: Drag) => void;
  nudge?: (nudge: Nudge) => void;
  /** A nudge knows itself what was asked for last, and need not wait until that stands on the page. */
  atOnce?: boolean;
  /** The hand lets go. */
  release?: () => void;
  /** Touched and let go without being moved. */
  tap?: () => void;
  /** A finger that goes up or down over it scrolls the page; else the page stands still while it is held. */
  scrolls?: boolean;
  /** How far the hand has to go before it is a drag, in pixels of the page. */
  slack?: number;
}

export const sizeOf = (event: { shiftKey: boolean; altKey: boolean }): Size =>
  event.shiftKey ? 'coarse' : event.altKey ? 'fine' : 'usual';

/** As far as a hand can move something: not beyond either end. */
export const within = (value: number, low: number, high: number): number =>
  Math.min(high, Math.max(low, value));

/** One of three by the size of a step: shift is coarser, alt is finer. */
export const sized = (size: Size, usual: number, coarse: number, fine: number = usual): number =>
  ({ usual, coarse, fine })[size];

/** What an arrow key asks for, or nothing for any other key. */
export function arrow(key: string): Pick<Nudge, 'right' | 'up' | 'way'> | null {
  switch (key) {
    case 'ArrowRight':
      return { right: 1, up: 0, way: 1 };
    case 'ArrowLeft':
      return { right: -1, up: 0, way: -1 };
    case 'ArrowUp':
      return { right: 0, up: 1, way: 1 };
    case 'ArrowDown':
      return { right: 0, up: -1, way: -1 };
    default:
      return null;
  }
}

/** From the page to the drawing that a thing belongs to; nothing where it stands on the page itself. */
function toDrawing(node: Element): DOMMatrix | null {
  const svg = node instanceof SVGElement ? (node.ownerSVGElement ?? (node as SVGSVGElement)) : null;
  return svg?.getScreenCTM()?.inverse() ?? null;
}

/** A way on the page, in the units of the drawing. */
function wayOn(drawing: DOMMatrix | null, x: number, y: number): Point {
  if (!drawing) return { x, y };
  const { a, b, c, d } = drawing;
  // An axis along which the hand did not go stays where it was, to the last digit.
  return { x: (x && a * x) + (y && c * y), y: (x && b * x) + (y && d * y) };
}

let rests: () => Promise<void> = () => Promise.resolve();

/** How to wait until the page shows what was asked for last: the open sheet says. */
export function restsWith(rested: () => Promise<void>): void {
  rests = rested;
}

let holding = 0;
let waiting: (() => void)[] = [];

/** Once no hand holds anything: what would push it away waits for that. */
export function calm(): Promise<void> {
  return holding ? new Promise((done) => waiting.push(done)) : Promise.resolve();
}

function hold(by: 1 | -1): void {
  holding += by;
  if (holding) return;
  const all = waiting;
  waiting = [];
  all.forEach((done) => done());
}

export const grasp: Action<HTMLElement | SVGElement, Grip> = (node, grip) => {
  let now = grip;
  /** The pointer that came down here: one that only comes up here has not touched it. */
  let pressed: number | null = null;
  let held: {
    pointer: number;
    from: Point;
    page: Point;
    drawing: DOMMatrix | null;
    merge: string;
    moved: boolean;
  } | null = null;

  function letGo() {
    pressed = null;
    if (!held) return;
    held = null;
    now.release?.();
    hold(-1);
  }

  function down(event: PointerEvent) {
    // A second finger is no drag any more: it zooms.
    if (held) return letGo();
    if (event.button !== 0) return;
    pressed = event.pointerId;
    const page = { x: event.clientX, y: event.clientY };
    const drawing = toDrawing(node);
    const { x, y } = drawing ? new DOMPoint(page.x, page.y).matrixTransform(drawing) : page;
    const from = { x, y };
    if (now.take?.(from, event) === false) return;
    node.setPointerCapture(event.pointerId);
    hold(1);
    held = {
      pointer: event.pointerId,
      from,
      page,
      drawing,
      merge: `drag ${now.name} ${event.timeStamp}`,
      moved: false
    };
    event.stopPropagation();
  }

  function move(event: PointerEvent) {
    if (held?.pointer !== event.pointerId) return;
    const [across, down] = [event.clientX - held.page.x, event.clientY - held.page.y];
    if (!held.moved && Math.hypot(across, down) < (now.slack ?? 0)) return;
    held.moved = true;
    // From where it was taken, by what the hand went: should the page move meanwhile, the hand has not.
    const by = wayOn(held.drawing, across, down);
    const at = { x: held.from.x + by.x, y: held.from.y + by.y };
    now.drag?.({ at, by, size: sizeOf(event), merge: held.merge });
    event.stopPropagation();
  }

  function up(event: PointerEvent) {
    if (pressed === event.pointerId && !held?.moved) now.tap?.();
    letGo();
  }

  function keys(event: KeyboardEvent) {
    const way = arrow(event.key);
    if (!way || !now.nudge || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    const nudge = { ...way, size: sizeOf(event), merge: `key ${now.name}` };
    if (now.atOnce) return now.nudge(nudge);
    ask(nudge);
  }

  /** Presses that come while the last one is on its way: each steps on from where that one has brought it. */
  let behind: Nudge[] | null = null;

  function ask(nudge: Nudge) {
    const last = behind?.at(-1);
    // Quick presses of one key are one step of as many.
    if (last && last.size === nudge.size && !!last.right === !!nudge.right)
      Object.assign(last, {
        right: last.right + nudge.right,
        up: last.up + nudge.up,
        way: last.way + nudge.way
      });
    else if (behind) behind.push(nudge);
    else void nudgeOn(nudge);
  }

  async function nudgeOn(first: Nudge) {
    behind = [first];
    while (behind.length) {
      const next = behind.shift()!;
      if (next.way) now.nudge?.(next);
      await rests();
    }
    behind = null;
  }

  /** A drag must not become a scroll; `touch-action` is nothing to what has no box of its own, as a group of a drawing. */
  function touch(event: TouchEvent) {
    if (held && !now.scrolls) event.preventDefault();
  }

  const heard = {
    pointerdown: down,
    pointermove: move,
    pointerup: up,
    pointercancel: letGo,
    keydown: keys
  } as Record<string, EventListener | ((event: never) => void)>;
  for (const [name, act] of Object.entries(heard)) node.addEventListener(name, act as EventListener);
  node.addEventListener('touchstart', touch as EventListener, { passive: false });
  return {
    update: (next) => {
      now = next;
    },
    destroy: () => {
      letGo();
      node.removeEventListener('touchstart', touch as EventListener);
      for (const [name, act] of Object.entries(heard)) node.removeEventListener(name, act as EventListener);
    }
  };
};

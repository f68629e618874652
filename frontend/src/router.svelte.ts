/** Where the page is: one address for each screen, and the browser's own back and forward. */
export type Screen =
  | { name: 'shoots' }
  | { name: 'bin' }
  | { name: 'sheet'; id: number; chapter: string; leaf: string | undefined }
  | { name: 'dark'; id: number }
  | { name: 'log' }
  | { name: 'bench' }
  | { name: 'kit'; card: number | undefined; shoot: number | undefined }
  | { name: 'nowhere' };

export function read(path: string): Screen {
  const [first, second, third, fourth, more] = path.split('/').filter(Boolean);
  if (first === undefined) return { name: 'shoots' };
  if (first === 'bin' && second === undefined) return { name: 'bin' };
  if (first === 'log' && second === undefined) return { name: 'log' };
  if (first === 'bench' && second === undefined) return { name: 'bench' };
  if (first === 'kit' && fourth === undefined) return kit(second, third);
  const id = Number(second);
  if (first === 'shoots' && Number.isInteger(id) && id > 0 && more === undefined) {
    if (third === 'dark' && fourth === undefined) return { name: 'dark', id };
    return { name: 'sheet', id, chapter: third ?? 'clip', leaf: fourth };
  }
  return { name: 'nowhere' };
}

/** The shelf; a card of it in hand; and the shoot whose rig it was taken up from. */
function kit(card: string | undefined, shoot: string | undefined): Screen {
  const numbers = [card, shoot].map((one) => (one === undefined ? undefined : Number(one)));
  if (numbers.some((one) => one !== undefined && !(Number.isInteger(one) && one > 0)))
    return { name: 'nowhere' };
  return { name: 'kit', card: numbers[0], shoot: numbers[1] };
}

class Router {
  path = $state(location.pathname);
  screen = $derived(read(this.path));

  constructor() {
    addEventListener('popstate', () => (this.path = location.pathname));
  }

  go(path: string): void {
    if (path === this.path) return;
    // Turning a leaf of the chapter that lies open leaves the eye where it is.
    const [before, after] = [this.path, path].map((one) => one.split('/').slice(0, 4).join('/'));
    history.pushState(null, '', path);
    this.path = path;
    if (before !== after) scrollTo(0, 0);
  }

  /** For links: follow within the page, unless a new window or tab is asked for. */
  follow = (event: MouseEvent): void => {
    const link = event.currentTarget as HTMLAnchorElement;
    if (event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey) return;
    event.preventDefault();
    this.go(link.pathname);
  };
}

export const router = new Router();

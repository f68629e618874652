/** Where the page is: one address for each screen, and the browser's own back and forward. */
export type Screen =
  | { name: 'shoots' }
  | { name: 'bin' }
  | { name: 'sheet'; id: number; chapter: string; leaf: string | undefined }
  | { name: 'log' }
  | { name: 'kit' }
  | { name: 'nowhere' };

export function read(path: string): Screen {
  const [first, second, third, fourth, more] = path.split('/').filter(Boolean);
  if (first === undefined) return { name: 'shoots' };
  if (first === 'bin' && second === undefined) return { name: 'bin' };
  if (first === 'log' && second === undefined) return { name: 'log' };
  if (first === 'kit' && second === undefined) return { name: 'kit' };
  const id = Number(second);
  if (first === 'shoots' && Number.isInteger(id) && id > 0 && more === undefined) {
    return { name: 'sheet', id, chapter: third ?? 'clip', leaf: fourth };
  }
  return { name: 'nowhere' };
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

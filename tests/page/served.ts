/**
 * A server and a browser for what talks to one: each test says what is answered. To be imported before the page's code,
 * which takes `fetch` as it finds it.
 */
import { vi } from 'vitest';

export interface Call {
  method: string;
  path: string;
  body: never;
  csrf: string | null;
}
/** A status and a body; `away` where there is no server at all. */
export type Answer = [status: number, body: unknown] | 'away';
type Answering = (call: Call) => Answer | Promise<Answer>;

let answering: Answering = () => 'away';
/** All that was asked since `serve`, oldest first. */
export const calls: Call[] = [];

export function serve(answer: Answering): void {
  calls.length = 0;
  answering = answer;
}

function store(): Storage {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => {
      kept.set(key, value);
      Object.defineProperty(storage, key, { value, enumerable: true, configurable: true });
    },
    removeItem: (key: string) => {
      kept.delete(key);
      delete (storage as Record<string, unknown>)[key];
    },
    clear: () => [...kept.keys()].forEach((key) => storage.removeItem(key))
  };
  for (const name of Object.keys(storage)) Object.defineProperty(storage, name, { enumerable: false });
  return storage as unknown as Storage;
}

const Plain = globalThis.Request;
vi.stubGlobal(
  'Request',
  class extends Plain {
    constructor(input: RequestInfo | URL, init?: RequestInit) {
      super(typeof input === 'string' ? new URL(input, 'http://bridle.test') : input, init);
    }
  }
);
vi.stubGlobal('fetch', async (input: RequestInfo, init?: RequestInit) => {
  const request = new Request(input, init);
  const text = await request.clone().text();
  const { pathname, search } = new URL(request.url);
  const call = {
    method: request.method,
    path: pathname + search,
    body: (text ? JSON.parse(text) : undefined) as never,
    csrf: request.headers.get('X-CSRFToken')
  };
  calls.push(call);
  const answer = await answering(call);
  if (answer === 'away') throw new TypeError('no connection');
  const [status, body] = answer;
  return new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
});
vi.stubGlobal('document', { cookie: 'look=paper; csrftoken=t0ken' });
vi.stubGlobal('localStorage', store());
vi.stubGlobal('sessionStorage', store());
vi.stubGlobal('window', globalThis);
vi.stubGlobal('requestAnimationFrame', () => 0);
vi.stubGlobal('cancelAnimationFrame', () => {});
vi.stubGlobal('navigator', {});

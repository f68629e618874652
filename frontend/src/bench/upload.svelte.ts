/** A file on its way: sent piece by piece, so that it can be stopped, and goes on where it was after a break. */
import { api, AwayError, got, sentence, token } from '../api/client';

const PIECE = 4_000_000;
const AGAIN_MS = 1500;

export class Upload {
  name = $state('');
  sent = $state(0);
  size = $state(0);
  trouble = $state('');
  going = $state(false);
  /** How long the rest takes at the pace so far, in seconds; nothing until that can be told. */
  left = $state<number | null>(null);
  #begun = 0;
  #stopped = false;
  #print = 0;

  /** Send a file; the number of its print, or nothing where it was stopped or refused. */
  async send(file: File, shoot: number | null = null): Promise<number | null> {
    Object.assign(this, { name: file.name, size: file.size, sent: 0, trouble: '', going: true });
    this.#stopped = false;
    [this.#begun, this.left] = [performance.now(), null];
    try {
      const made = got(
        await api.POST('/api/prints', { body: { name: file.name, size: file.size, shoot_id: shoot } })
      );
      this.#print = made.id;
      while (this.sent < file.size && !this.#stopped) await this.#piece(file);
      if (this.#stopped)
        await api.DELETE('/api/prints/{print_id}', { params: { path: { print_id: made.id } } });
      return this.#stopped ? null : made.id;
    } catch (error) {
      this.trouble = sentence(error);
      return null;
    } finally {
      this.going = false;
    }
  }

  async #piece(file: File): Promise<void> {
    const body = file.slice(this.sent, this.sent + PIECE);
    const headers = { 'X-CSRFToken': token(), 'Content-Type': 'application/octet-stream' };
    const address = `/api/prints/${this.#print}/bytes?at=${this.sent}`;
    const answer = await fetch(address, { method: 'PUT', body, headers }).catch(() => null);
    if (!answer) {
      // The server is away: what is there stays there, and it goes on from that.
      this.trouble = new AwayError().message;
      await new Promise((done) => setTimeout(done, AGAIN_MS));
      return;
    }
    const told = await answer.json();
    if (!answer.ok) throw told;
    this.trouble = '';
    this.sent = told.here;
    const took = (performance.now() - this.#begun) / 1000;
    this.left = took > 0.5 && this.sent ? (took * (this.size - this.sent)) / this.sent : null;
  }

  stop(): void {
    this.#stopped = true;
  }
}

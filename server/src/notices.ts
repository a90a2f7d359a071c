/** Words between server processes about rows that change: LISTEN/NOTIFY of PostgreSQL, on a connection that comes back. */
import { EventEmitter } from 'node:events';
import pg from 'pg';

/** Between two tries to listen again, in milliseconds: short at first, then longer. */
const AGAIN_MS = [100, 500, 2000, 5000];

export class Notices {
  private readonly heard = new EventEmitter().setMaxListeners(0);
  private client: pg.Client | null = null;
  private stopped = false;
  private again: Promise<void> | null = null;
  private constructor(
    private readonly databaseUrl: string,
    private readonly channel: string,
    private readonly log: (line: string) => void,
  ) {}

  static async start(databaseUrl: string, channel: string, log: (line: string) => void): Promise<Notices> {
    const notices = new Notices(databaseUrl, channel, log);
    await notices.listen();
    return notices;
  }

  private async listen(): Promise<void> {
    const client = new pg.Client({ connectionString: this.databaseUrl });
    // Its connection may end at any time, with an error or without.
    const gone = (error?: Error) => {
      if (this.client !== client) return;
      this.client = null;
      if (this.stopped) return;
      this.log(`${this.channel}: ${error?.message ?? 'the connection ended'}; listening again`);
      this.again ??= this.listenAgain().finally(() => (this.again = null));
    };
    client.on('error', gone);
    client.on('end', () => gone());
    client.on('notification', (n) => {
      const [id, word = ''] = (n.payload ?? '').split(' ');
      this.heard.emit(id, word);
      this.heard.emit('*', id, word);
    });
    await client.connect();
    this.client = client;
    await client.query(`LISTEN ${this.channel}`);
  }

  private async listenAgain(): Promise<void> {
    for (let i = 0; !this.stopped; i++) {
      await new Promise((r) => setTimeout(r, AGAIN_MS[Math.min(i, AGAIN_MS.length - 1)]));
      if (this.stopped) return;
      try {
        await this.listen();
      } catch {
        continue;
      }
      // What was said meanwhile was not heard: everyone looks once.
      for (const id of this.heard.eventNames()) if (id !== '*') this.heard.emit(id, '');
      return;
    }
  }

  /** Tells every process that a row has changed, or what to do about it. Rejects while the database is away. */
  tell = async (id: string, word = ''): Promise<void> => {
    await this.again;
    if (!this.client) throw new Error(`${this.channel} is not connected.`);
    await this.client.query('SELECT pg_notify($1, $2)', [this.channel, `${id} ${word}`.trim()]);
  };

  /** Hears of one row, and of nothing in particular after a break; returns what ends it. */
  on(id: string, hear: (word: string) => void): () => void {
    this.heard.on(id, hear);
    return () => void this.heard.off(id, hear);
  }
  /** Tells a row as it is now and at every change; rejects where there is none. Returns what ends it. */
  async follow<T>(id: string, one: () => Promise<T>, tell: (row: T) => void): Promise<() => void> {
    await one();
    const look = () => {
      one().then(tell, () => undefined);
    };
    const off = this.on(id, look);
    look();
    return off;
  }
  onAny(hear: (id: string, word: string) => void): void {
    this.heard.on('*', hear);
  }

  stop = async (): Promise<void> => {
    this.stopped = true;
    const { client } = this;
    this.client = null;
    await client?.end();
    await this.again;
  };
}

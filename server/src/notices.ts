/** Words between server processes about rows that change: LISTEN/NOTIFY of PostgreSQL. */
import { EventEmitter } from 'node:events';
import pg from 'pg';

export class Notices {
  private readonly heard = new EventEmitter().setMaxListeners(0);
  private constructor(
    private readonly client: pg.Client,
    private readonly channel: string,
  ) {}

  static async start(databaseUrl: string, channel: string, log: (line: string) => void): Promise<Notices> {
    const client = new pg.Client({ connectionString: databaseUrl });
    client.on('error', (error) => log(`${channel}: ${error.message}`));
    await client.connect();
    await client.query(`LISTEN ${channel}`);
    const notices = new Notices(client, channel);
    client.on('notification', (n) => {
      const [id, word = ''] = (n.payload ?? '').split(' ');
      notices.heard.emit(id, word);
      notices.heard.emit('*', id, word);
    });
    return notices;
  }

  /** Tells every process that a row has changed, or what to do about it. */
  tell = async (id: string, word = ''): Promise<void> => {
    await this.client.query('SELECT pg_notify($1, $2)', [this.channel, `${id} ${word}`.trim()]);
  };

  /** Hears of one row; returns what ends it. */
  on(id: string, hear: (word: string) => void): () => void {
    this.heard.on(id, hear);
    return () => void this.heard.off(id, hear);
  }
  onAny(hear: (id: string, word: string) => void): void {
    this.heard.on('*', hear);
  }

  stop = (): Promise<void> => this.client.end();
}

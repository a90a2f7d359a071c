/** Jobs in PostgreSQL (pg-boss), started by one process at a time: making its tables and queues twice at once would fail. */
import pg from 'pg';
import PgBoss from 'pg-boss';

/** Any number that no other program on this database uses. */
const LOCK = 7_300_115;

/** A started pg-boss with its queue. */
export async function startJobs(
  databaseUrl: string,
  queue: string,
  options: { max: number },
  log: (line: string) => void,
): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: databaseUrl, schema: 'jobs', ...options });
  boss.on('error', (error) => log(`jobs: ${error.message}`));
  const holder = new pg.Client({ connectionString: databaseUrl });
  await holder.connect();
  try {
    await holder.query('SELECT pg_advisory_lock($1)', [LOCK]);
    await boss.start();
    await boss.createQueue(queue);
  } finally {
    // The lock goes with its connection.
    await holder.end();
  }
  return boss;
}

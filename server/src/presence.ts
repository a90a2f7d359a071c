/**
 * Whether this server process is the only one on its database, told by an advisory lock that a connection holds as long as
 * it lives: what an earlier process left unfinished can then be found again at once, instead of after its time.
 */
import pg from 'pg';

/** Any number that no other program on this database uses. */
const LOCK = 7_300_116;

/** Every server process holds the lock in common; one that gets it for itself is alone. `found` is called then, before others may start. */
export async function holdPresence(
  databaseUrl: string,
  log: (line: string) => void,
  found: (client: pg.Client) => Promise<void>,
): Promise<() => Promise<void>> {
  const client = new pg.Client({ connectionString: databaseUrl });
  // A lock that goes with a lost connection only lets a later process think itself alone; jobs are taken once all the same.
  client.on('error', (error) => log(`presence: ${error.message}`));
  await client.connect();
  const { rows } = await client.query<{ alone: boolean }>('SELECT pg_try_advisory_lock($1) AS alone', [LOCK]);
  if (rows[0].alone) await found(client);
  await client.query('SELECT pg_advisory_lock_shared($1)', [LOCK]);
  if (rows[0].alone) await client.query('SELECT pg_advisory_unlock($1)', [LOCK]);
  return () => client.end().catch(() => undefined);
}

/**
 * What a process that died had begun is waiting again: readings and kits are done anew, an answer that was arriving has
 * broken off. One that was begun as often as it may is not begun again.
 */
export async function findAgain(client: pg.Client): Promise<void> {
  const { rows } = await client.query<{ jobs: string | null }>(
    `SELECT to_regclass('jobs.job')::text AS jobs`,
  );
  if (rows[0].jobs) {
    await client.query(
      `UPDATE jobs.job SET state = CASE WHEN retry_count < retry_limit THEN 'retry' ELSE 'failed' END::jobs.job_state,
              start_after = now()
        WHERE state = 'active' AND name IN ('reading', 'handoff', 'rounds')`,
    );
    for (const [table, queue, state] of [
      ['readings', 'reading', 'reading'],
      ['handoffs', 'handoff', 'writing'],
    ]) {
      await client.query(
        `UPDATE ${table} SET state = 'waiting', stage = 'waiting its turn', done = 0, "of" = 0 WHERE state = $1
            AND EXISTS (SELECT 1 FROM jobs.job j WHERE j.name = $2 AND j.data->>'id' = ${table}.id::text AND j.state < 'active')`,
        [state, queue],
      );
      await client.query(
        `UPDATE ${table} SET state = 'failed', stage = 'broken off', message = 'This broke off with the server and was not begun again. Nothing else is lost; try again.'
          WHERE state IN ('waiting', $1) AND NOT EXISTS (SELECT 1 FROM jobs.job j WHERE j.name = $2 AND j.data->>'id' = ${table}.id::text AND j.state <= 'active')`,
        [state, queue],
      );
    }
  }
  await client.query(`UPDATE rounds SET state = 'waiting' WHERE state = 'asking'`);
  if (rows[0].jobs)
    await client.query(
      `UPDATE rounds SET state = 'failed', "endedAt" = now(), message = 'This broke off with the server and was not begun again. What came is kept with the Commission.'
        WHERE state = 'waiting' AND NOT EXISTS (SELECT 1 FROM jobs.job j WHERE j.name = 'rounds' AND j.data->>'id' = rounds.id::text AND j.state <= 'active')`,
    );
  await client.query(
    `UPDATE commissions SET state = 'broken', message = 'The answer broke off before its end.', "endedAt" = now() WHERE state = 'arriving'`,
  );
}

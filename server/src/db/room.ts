/** Whether there is room on the disk under the database. */
import { DatabaseError, type Sequelize } from 'sequelize';

/** PostgreSQL's class of errors for what has run out (appendix A of its manual): 53100 is a full disk, 53400 a limit on temporary files. */
const RUN_OUT = /^53[14]00$/;
/** A look at it is not repeated at every question, in milliseconds. */
const LOOK_EVERY_MS = 5_000;

/**
 * Looks by having PostgreSQL lay down a list of some megabytes in a file of its own, which it drops at once. Writing a row
 * over would not show it: that finds its place on a full disk too, while the next paragraph does not. Rejects when the
 * database does not answer.
 */
export function roomOn(db: Sequelize): () => Promise<boolean> {
  let known: { at: number; room: boolean } | null = null;
  return async () => {
    if (known && performance.now() - known.at < LOOK_EVERY_MS) return known.room;
    const room = await db
      .transaction(async (transaction) => {
        await db.query("SET LOCAL work_mem = '64kB'", { transaction });
        await db.query('SELECT count(*) FROM generate_series(1, 200000)', { transaction });
      })
      .then(
        () => true,
        (error: unknown) => {
          const { code } = (error instanceof DatabaseError ? error.parent : {}) as { code?: string };
          if (RUN_OUT.test(code ?? '')) return false;
          throw error;
        },
      );
    known = { at: performance.now(), room };
    return room;
  };
}

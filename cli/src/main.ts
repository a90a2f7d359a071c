/** The program: what a command leaves goes to the outputs. */
import { run } from './run.ts';

process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  // A reader such as "head" that closes early is no failure.
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});
const { status, out, err } = await run(process.argv.slice(2));
process.stderr.write(err);
await new Promise<void>((resolve, reject) =>
  process.stdout.write(out, (error) => (error ? reject(error) : resolve())),
);
process.exitCode = status;

import { DraftError } from '@ursprung/core/draft';
import { CannotWrite, writers } from '@ursprung/core/handoff';
import { SourceError } from '@ursprung/core/source';
import { commands } from './commands.ts';
import { UsageError } from './input.ts';

const USAGE = `Usage: ursprung COMMAND …
  read FILE [--kind K]
  clean FILE
  time FILE… [--pace WPM] [--voice VOICE]
  calibrate DIR
  draft FILE --seconds N [--floor|--ceiling] [--shape S] [--title T] [--frame F] [--mood M] [--pace WPM] [--seed N] [--as json|text|markdown]
  check SCRIPT [--source FILE]…
  revise SCRIPT --note "…"
  commission SOURCE|SCRIPT… --seconds N [--section ID] [--letters N]
  commission SCRIPT --reply FILE [--by NAME]
  scenes SCRIPT [--frame F]
  export SCRIPT --as FORMAT [--out FILE] [--rate 24|25|29.97|30] [--limit N] [--for WHO] [--recording WAV|SRT|VTT]
    FORMAT: ${[...writers.map((w) => w.id), 'kit'].join('|')}`;

async function main(): Promise<number> {
  const [name, ...args] = process.argv.slice(2);
  if (!name || name === '--help' || name === '-h') {
    process.stderr.write(`${USAGE}\n`);
    return name ? 0 : 1;
  }
  if (!Object.hasOwn(commands, name)) {
    process.stderr.write(`There is no command “${name}”. Commands: ${Object.keys(commands).join(', ')}.\n`);
    return 1;
  }
  try {
    const { out, notes } = await commands[name](args);
    for (const note of notes ?? []) process.stderr.write(`${note}\n`);
    await new Promise<void>((resolve, reject) =>
      process.stdout.write(out, (error) => (error ? reject(error) : resolve())),
    );
    return 0;
  } catch (error) {
    const known =
      error instanceof UsageError ||
      error instanceof SourceError ||
      error instanceof DraftError ||
      error instanceof CannotWrite ||
      error instanceof RangeError;
    if (!known) throw error;
    process.stderr.write(`${(error as Error).message}\n`);
    return 1;
  }
}

process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  // A reader such as "head" that closes early is no failure.
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});
process.exitCode = await main();

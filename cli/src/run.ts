/** The command line as a function: arguments in, outputs and status out. */
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
  draft FILE --seconds N [--floor|--ceiling] [--shape S] [--title T] [--frame F] [--mood M] [--pace WPM] [--seed N] [--by rule|service [--rounds N]] [--as json|text|markdown]
  check SCRIPT [--source FILE]…
  revise SCRIPT --note "…"
  commission SOURCE|SCRIPT… --seconds N [--section ID] [--letters N]
  commission SCRIPT --reply FILE [--by NAME] [--as script|report]
  scenes SCRIPT [--frame F] [--pictures N]
  export SCRIPT --as FORMAT [--out FILE] [--rate 24|25|29.97|30] [--limit N] [--for WHO] [--recording WAV|SRT|VTT]
    FORMAT: ${[...writers.map((w) => w.id), 'kit'].join('|')}`;

/** What a command leaves: its exit status, and what goes to the two outputs. */
export interface Ended {
  status: number;
  out: string | Uint8Array;
  err: string;
}

/** Runs one command with its arguments. What can go wrong with a person's files is said on `err`; anything else is thrown. */
export async function run([name, ...args]: readonly string[]): Promise<Ended> {
  const said = (status: number, err: string): Ended => ({ status, out: '', err: `${err}\n` });
  if (!name || name === '--help' || name === '-h') return said(name ? 0 : 1, USAGE);
  if (!Object.hasOwn(commands, name))
    return said(1, `There is no command “${name}”. Commands: ${Object.keys(commands).join(', ')}.`);
  try {
    const { out, notes } = await commands[name](args);
    return { status: 0, out, err: (notes ?? []).map((note) => `${note}\n`).join('') };
  } catch (error) {
    const known =
      error instanceof UsageError ||
      error instanceof SourceError ||
      error instanceof DraftError ||
      error instanceof CannotWrite ||
      error instanceof RangeError;
    if (!known) throw error;
    const ways = error instanceof DraftError ? error.ways : [];
    return said(1, [(error as Error).message, ...ways].join(' '));
  }
}

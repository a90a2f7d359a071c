/** Commands as the program runs them, in this process; the program itself is started in `program.test.ts`. */
import { run as command } from '../src/run.ts';

export async function run(...args: string[]): Promise<{ status: number; out: string; err: string }> {
  const { status, out, err } = await command(args);
  return { status, out: typeof out === 'string' ? out : new TextDecoder().decode(out), err };
}

/**
 * A voice behind a port: text in, a WAV recording out. The stand-ins are Debian's espeak-ng and flite; a real service
 * would fill the same port.
 */
import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export interface VoicePort {
  id: string;
  /** Speaks a text. Rejects when the program is missing or fails. */
  speak: (text: string) => Promise<Uint8Array>;
}

function run(command: string, args: readonly string[], input: string): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['pipe', 'pipe', 'pipe'] });
    const out: Buffer[] = [];
    let complaint = '';
    child.stdout.on('data', (chunk: Buffer) => out.push(chunk));
    child.stderr.on('data', (chunk: Buffer) => (complaint += chunk.toString()));
    child.on('error', (error) => reject(new Error(`${command} can't be started: ${error.message}`)));
    child.on('close', (code) =>
      code === 0
        ? resolve(Buffer.concat(out))
        : reject(new Error(`${command} failed: ${complaint.slice(0, 200)}`)),
    );
    child.stdin.end(input);
  });
}

/** espeak-ng at a pace in its own words a minute. */
export function espeak(voice = 'en-gb', pace = 165): VoicePort {
  return {
    id: `espeak-ng:${voice}`,
    speak: (text) => run('espeak-ng', ['-v', voice, '-s', String(pace), '--stdin', '--stdout'], text),
  };
}

/** flite with one of its built-in voices. It writes only to files. */
export function flite(voice = 'slt'): VoicePort {
  return {
    id: `flite:${voice}`,
    speak: async (text) => {
      const folder = await mkdtemp(join(tmpdir(), 'ursprung-voice-'));
      try {
        const file = join(folder, 'out.wav');
        await run('flite', ['-voice', voice, '-t', text, '-o', file], '');
        return await readFile(file);
      } finally {
        await rm(folder, { recursive: true, force: true });
      }
    },
  };
}

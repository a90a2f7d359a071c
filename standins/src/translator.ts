/**
 * A translator behind a port: texts in, texts out, first drafts only. The stand-in is Debian's apertium, English to
 * Spanish; a real service would fill the same port.
 */
import { spawn } from 'node:child_process';

export interface TranslatorPort {
  id: string;
  /** ISO 639-1 codes. */
  from: string;
  to: string;
  /** One text for each, in order. Rejects when the program is missing or fails. */
  translate: (texts: readonly string[]) => Promise<string[]>;
}

/** Parts texts so surely that no rule of translation joins them. */
const PARTED = '\n\n\u2042\n\n';

export function apertium(): TranslatorPort {
  return {
    id: 'apertium:eng-spa',
    from: 'en',
    to: 'es',
    translate: (texts) =>
      new Promise((resolve, reject) => {
        // Its parts take a pipe only, and Node gives a socket.
        const child = spawn('sh', ['-c', 'cat | apertium -u eng-spa'], { stdio: ['pipe', 'pipe', 'ignore'] });
        const out: Buffer[] = [];
        child.stdout.on('data', (chunk: Buffer) => out.push(chunk));
        child.on('error', () =>
          reject(new Error('The stand-in translator is not installed (apertium-eng-spa).')),
        );
        child.stdin.on('error', () => undefined);
        child.on('close', (code) => {
          const parts = Buffer.concat(out)
            .toString('utf8')
            .split('\u2042')
            .map((t) => t.replace(/\s+/g, ' ').trim());
          if (code !== 0 || parts.length !== texts.length)
            reject(new Error('The stand-in translator gave no whole answer.'));
          else resolve(parts);
        });
        // Curly marks are letters to it; straight ones it knows.
        child.stdin.end(
          texts.map((t) => t.replace(/\s+/g, ' ').replace(/[’‘]/g, "'").replace(/[“”]/g, '"')).join(PARTED),
        );
      }),
  };
}

/** Writers of open formats, one registry. */
import type { ScriptFile } from '../script/file.ts';
import { sectionsOfFile } from '../script/file.ts';
import type { Clock } from '../timing/clock.ts';
import { clockText } from '../timing/clockText.ts';
import { captions, srt } from './captions.ts';

export * from './captions.ts';

export interface Writer {
  id: string;
  /** What it is called and for whom. */
  name: string;
  says: string;
  extension: string;
  mime: string;
  write: (file: ScriptFile, clock: Clock) => string;
}

/** Characters that Markdown would read as marks are escaped, so that the words come out as they went in. */
const escapeMarkdown = (text: string) =>
  text.replace(/([\\`*_[\]<>#|~])/g, '\\$1').replace(/^(\s*)([-+]|\d+\.)(?=\s)/, '$1\\$2');

/** Every writer, in the order shown. */
export const writers: readonly Writer[] = [
  {
    id: 'text',
    name: 'Clean text',
    says: 'the narration alone, a paragraph a section',
    extension: 'txt',
    mime: 'text/plain',
    write: (file) =>
      file.sections
        .map((s) =>
          s.lines
            .map((l) => l.text.trim())
            .filter(Boolean)
            .join(' '),
        )
        .filter(Boolean)
        .join('\n\n') + '\n',
  },
  {
    id: 'markdown',
    name: 'Markdown',
    says: 'sections, clocks and sources',
    extension: 'md',
    mime: 'text/markdown',
    write: markdown,
  },
  {
    id: 'json',
    name: 'Script file',
    says: 'everything, to read back',
    extension: 'json',
    mime: 'application/json',
    write: (file) => `${JSON.stringify(file, null, 2)}\n`,
  },
  {
    id: 'srt',
    name: 'Captions',
    says: 'SubRip, timed from the clock',
    extension: 'srt',
    mime: 'application/x-subrip',
    write: (file, clock) => srt(captions(sectionsOfFile(file), clock)),
  },
];

export const writerById = (id: string): Writer | undefined => writers.find((w) => w.id === id);

function markdown(file: ScriptFile): string {
  const out = [
    `# ${escapeMarkdown(file.title)}`,
    '',
    `${clockText(file.seconds * 1000)} at ${Math.round(file.pace)} words a minute, ${file.frame}`,
    '',
  ];
  let at = 0;
  for (const section of file.sections) {
    out.push(`## ${escapeMarkdown(section.title)} (${clockText(at * 1000)})`, '');
    for (const line of section.lines) {
      if (line.text.trim()) out.push(`${escapeMarkdown(line.text.trim())}  `);
      if (line.rest) out.push(`*rest ${line.rest.toFixed(1)} s*  `);
      at += line.seconds;
    }
    out.push('');
  }
  if (file.sources.length)
    out.push('## Sources', '', ...file.sources.map((s) => `- ${s.id}: ${escapeMarkdown(s.title)}`), '');
  return out.join('\n');
}

/** A file name from a title: letters, figures and hyphens, never a path. */
export function fileName(title: string, extension: string): string {
  const stem = title
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
    .replace(/-+$/, '');
  return `${stem || 'script'}.${extension}`;
}

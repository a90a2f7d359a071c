import { asksOf, isOpen } from '../../script/data.ts';
import { clockText } from '../../timing/clockText.ts';
import { isSaid, type Writer } from '../writer.ts';

/** Characters that Markdown would read as marks are escaped, so that the words come out as they went in. */
const escape = (text: string) =>
  text.replace(/([\\`*_[\]<>#|~])/g, '\\$1').replace(/^(\s*)([-+]|\d+\.)(?=\s)/, '$1\\$2');

export const markdown: Writer = {
  id: 'markdown',
  name: 'Markdown',
  says: 'sections, clocks, rests, speakers and sources',
  loses: 'what each line rests on, takes, scenes',
  extension: 'md',
  mime: 'text/markdown',
  for: ['archive'],
  write: ({ file, sections, times, upload }) => {
    const out = [
      `# ${escape(file.title)}`,
      '',
      `${clockText(file.seconds * 1000)} at ${Math.round(file.pace)} words a minute, ${file.frame}`,
      '',
    ];
    for (const section of sections) {
      out.push(`## ${escape(section.title)} (${clockText(times.get(section.lines[0].id)!.startMs)})`, '');
      let speaker = '';
      for (const line of section.lines) {
        if (line.speaker !== speaker && line.speaker) out.push(`**${escape(line.speaker)}:**  `);
        speaker = line.speaker;
        if (isSaid(line)) out.push(`${escape(line.text.trim())}  `);
        else if (isOpen(line))
          out.push(`*open, ${((line.fixedMs ?? 0) / 1000).toFixed(1)} s: ${escape(asksOf(line)!)}*  `);
        else if (line.fixedMs)
          out.push(
            `*${line.fixed ? `${escape(line.fixed)}, ` : 'silent, '}${(line.fixedMs / 1000).toFixed(1)} s*  `,
          );
        if (line.restMs) out.push(`*rest ${(line.restMs / 1000).toFixed(1)} s*  `);
      }
      out.push('');
    }
    if (upload.sources.length) out.push('## Sources', '', ...upload.sources.map((s) => `- ${escape(s)}`), '');
    return out.join('\n');
  },
};

/**
 * Speech Synthesis Markup Language 1.1 (W3C): sections as paragraphs, lines as sentences; numbers by the words the clock
 * counts (`sub`), letters by `say-as`, names by `phoneme` or `sub`, stress, and every rest as a `break`.
 */
import type { Kit } from '../kit.ts';
import type { VoiceBlock, VoicePart } from '../voice.ts';
import { isSaid, type Writer } from '../writer.ts';
import { xmlRoot, xmlString, xmlText, type Xml } from '../xml.ts';

const NS = 'http://www.w3.org/2001/10/synthesis';
const seconds = (ms: number) => `${(ms / 1000).toFixed(2).replace(/\.?0+$/, '')}s`;

function part(parent: Xml, p: VoicePart, ipa: boolean): void {
  // A breath is the voice's own: a mark in the words makes it.
  if (p.type === 'breath') return;
  const at = p.stress ? parent.ele('emphasis', { level: 'strong' }) : parent;
  const text = xmlText(p.text);
  if (p.type === 'text') at.txt(text);
  else if (p.type === 'number')
    if (p.kind === 'letters') at.ele('say-as', { 'interpret-as': 'characters' }).txt(text);
    else at.ele('sub', { alias: xmlText(p.say) }).txt(text);
  else if (p.ipa && ipa) at.ele('phoneme', { alphabet: 'ipa', ph: p.ipa }).txt(text);
  else if (p.from === 'writer' || p.from === 'source') at.ele('sub', { alias: xmlText(p.say) }).txt(text);
  else at.txt(text);
}

function speak(kit: Kit, blocks: readonly VoiceBlock[]): string {
  const root = xmlRoot();
  const speakNode = root.ele(NS, 'speak', { version: '1.1', 'xml:lang': kit.language });
  for (const block of blocks) {
    const p = speakNode.ele('p');
    for (const line of block.lines) {
      if (line.silentMs !== null) {
        // A comment can't hold two hyphens on end (XML 1.0, section 2.5).
        if (line.open) p.com(` open, to be written: ${xmlText(line.open).replace(/-{2,}/g, '-')} `);
        if (line.silentMs > 0) p.ele('break', { time: seconds(line.silentMs) });
        continue;
      }
      const s = p.ele('s');
      for (const x of line.parts) part(s, x, true);
      if (line.restMs) p.ele('break', { time: seconds(line.restMs) });
    }
  }
  return xmlString(root, false);
}

/**
 * One or more documents, none longer than `limit` characters where single lines allow it: cut between sections first, then
 * between lines, never inside a sentence.
 */
export function ssmlFiles(kit: Kit, limit: number): { name: string; text: string }[] {
  const whole = speak(kit, kit.blocks);
  if (whole.length <= limit) return [{ name: '', text: whole }];
  const parts: VoiceBlock[][] = [];
  let open: VoiceBlock[] = [];
  const fits = (blocks: readonly VoiceBlock[]) => speak(kit, blocks).length <= limit;
  const close = () => {
    if (open.length) parts.push(open);
    open = [];
  };
  for (const block of kit.blocks) {
    if (fits([...open, block])) {
      open.push(block);
      continue;
    }
    close();
    if (fits([block])) {
      open = [block];
      continue;
    }
    let lines: VoiceBlock['lines'] = [];
    for (const line of block.lines) {
      if (lines.length && !fits([{ ...block, lines: [...lines, line] }])) {
        parts.push([{ ...block, lines }]);
        lines = [];
      }
      lines = [...lines, line];
    }
    if (lines.length) open = [{ ...block, lines }];
  }
  close();
  return parts.map((blocks, i) => ({ name: String(i + 1).padStart(2, '0'), text: speak(kit, blocks) }));
}

/** One section alone. Throws RangeError for one that is not there. */
export function ssmlOfSection(kit: Kit, section: string): string {
  const block = kit.blocks.find((b) => b.section === section);
  if (!block) throw new RangeError(`There is no section ${section}.`);
  return speak(kit, [block]);
}

export const ssml: Writer = {
  id: 'ssml',
  name: 'SSML',
  says: 'for a synthesizer: rests, stress, numbers and names as they are said',
  loses: 'breath marks, scenes, sources',
  extension: 'ssml',
  mime: 'application/ssml+xml',
  for: ['voice'],
  write: (kit) =>
    speak(
      kit,
      kit.blocks.filter(
        (b) =>
          b.lines.some((l) => l.silentMs === null || l.silentMs > 0) ||
          kit.sections.some((s) => s.id === b.section && s.lines.some(isSaid)),
      ),
    ),
};

/** A script in another language: its XLIFF out and in, what each line may take, and what no longer fits. */
import type { PlainSection } from '../script/data.ts';
import { clockLines } from '../script/schema.ts';
import { all, parseXml, type XmlNode } from '../source/readers/xml.ts';
import type { Clock } from '../timing/clock.ts';
import { xmlRoot, xmlString, xmlText } from './xml.ts';

const NS = 'urn:oasis:names:tc:xliff:document:2.0';

export interface Translation {
  /** BCP 47. */
  language: string;
  title: string;
  /** Texts by section id (titles) and line id; a line that is not in it is not translated yet. */
  sections: Readonly<Record<string, string>>;
  lines: Readonly<Record<string, string>>;
  /** Whether a person or a machine wrote it first. */
  origin: 'person' | 'machine';
}

/** NMTOKENs that are unique in the file, whatever the ids are. */
const unitId = (kind: 's' | 'l', index: number) => `${kind}${index + 1}`;

/**
 * XLIFF 2.1 (OASIS Standard, 2018; core only): a unit for the title, each section's title and each line, the lines' seconds,
 * speaker and what they must keep as notes. The script's own ids are the units' names.
 */
export function xliffOf(
  script: { title: string; language: string; sections: readonly PlainSection[] },
  clock: Clock,
  target: { language: string; translation?: Translation },
): string {
  const { sections } = script;
  const timed = clock.lines(clockLines(sections));
  const root = xmlRoot();
  const xliff = root.ele(NS, 'xliff', { version: '2.1', srcLang: script.language, trgLang: target.language });
  const file = xliff.ele('file', { id: 'script', original: xmlText(script.title) || 'script' });
  const state = target.translation?.origin === 'machine' ? 'initial' : 'translated';
  const unit = (
    parent: typeof file,
    id: string,
    name: string,
    source: string,
    translated: string | undefined,
    notes: readonly [string, string][],
    fixed = false,
  ) => {
    const node = parent.ele('unit', { id, name: xmlText(name), ...(fixed ? { translate: 'no' } : {}) });
    if (notes.length) {
      const list = node.ele('notes');
      for (const [category, text] of notes) list.ele('note', { category }).txt(xmlText(text));
    }
    const segment = node.ele('segment', translated === undefined ? {} : { state });
    segment.ele('source', { 'xml:space': 'preserve' }).txt(xmlText(source));
    if (translated !== undefined) segment.ele('target', { 'xml:space': 'preserve' }).txt(xmlText(translated));
  };
  unit(file, 'title', 'title', script.title, target.translation?.title || undefined, []);
  let i = 0;
  let lines = 0;
  sections.forEach((s, k) => {
    const group = file.ele('group', { id: `g${k + 1}`, name: xmlText(s.title) || `${k + 1}` });
    unit(group, unitId('s', k), s.id, s.title, target.translation?.sections[s.id], [
      ['what', 'section title, not spoken'],
    ]);
    for (const line of s.lines) {
      const { ms } = timed[i++];
      if (!line.text.trim()) continue;
      const seconds = (ms - line.restMs) / 1000;
      unit(group, unitId('l', lines++), line.id, line.text, target.translation?.lines[line.id], [
        ['seconds', `${seconds.toFixed(1)} s spoken; no longer in the translation`],
        ...(line.speaker ? [['speaker', line.speaker] as [string, string]] : []),
        ...(line.locked ? [['locked', 'agreed words; translate closely'] as [string, string]] : []),
      ]);
    }
  });
  return xmlString(root);
}

export type XliffRead = { translation: Translation; unknown: number; missing: number } | { refused: string };
const LARGEST_XLIFF = 8_000_000;

/** The words of a source or target: text, and what inline elements hold. */
function words(node: XmlNode): string {
  return node.children
    .map((c) =>
      typeof c === 'string'
        ? c
        : c.name === 'cp'
          ? String.fromCodePoint(parseInt(c.attributes.hex || '20', 16))
          : words(c),
    )
    .join('');
}

/**
 * A translated XLIFF 2.x read back: targets by the script's ids. Units that the script does not have are counted, lines
 * without a target are missing. Refused, with the reason, where it is no XLIFF 2 or belongs to no line of this script.
 */
export function readXliff(text: string, sections: readonly PlainSection[]): XliffRead {
  if (text.length > LARGEST_XLIFF)
    return { refused: 'This file is larger than any translated script; it was not read.' };
  let root: XmlNode;
  try {
    root = parseXml(text.replace(/^\uFEFF/, ''), 'an XLIFF file');
  } catch {
    return { refused: 'This file can’t be read as XML. Export it again as XLIFF 2.1.' };
  }
  const xliff = root.children.find((c): c is XmlNode => typeof c !== 'string' && c.name === 'xliff');
  if (!xliff) return { refused: 'This is no XLIFF file.' };
  if (!/^2\./.test(xliff.attributes.version ?? ''))
    return {
      refused: `This is XLIFF ${xliff.attributes.version || 'without a version'}; 2.0 or 2.1 is read.`,
    };
  const language = xliff.attributes.trgLang ?? '';
  if (!/^[a-z]{2,3}(?:-[A-Za-z0-9]{2,8})*$/i.test(language))
    return { refused: 'The file does not say which language it is translated into (trgLang).' };
  const sectionIds = new Set(sections.map((s) => s.id));
  const lineIds = new Set(sections.flatMap((s) => s.lines.filter((l) => l.text.trim()).map((l) => l.id)));
  const out = { title: '', sections: {} as Record<string, string>, lines: {} as Record<string, string> };
  let unknown = 0;
  let machine = 0;
  for (const unit of all(xliff, 'unit')) {
    const name = unit.attributes.name ?? '';
    const segments = all(unit, 'segment', 'ignorable');
    const targets = segments.flatMap((s) =>
      s.children.filter((c): c is XmlNode => typeof c !== 'string' && c.name === 'target'),
    );
    if (!targets.length) continue;
    if (segments.some((s) => s.attributes.state === 'initial')) machine++;
    const translated = targets.map(words).join('').replace(/\s+/g, ' ').trim();
    if (!translated) continue;
    if (unit.attributes.id === 'title') out.title = translated;
    else if (unit.attributes.id?.startsWith('s') && sectionIds.has(name)) out.sections[name] = translated;
    else if (lineIds.has(name)) out.lines[name] = translated;
    else unknown++;
  }
  const count = Object.keys(out.lines).length;
  if (!count) return { refused: 'No line of this script is translated in it.' };
  return {
    translation: { language, ...out, origin: machine > count / 2 ? 'machine' : 'person' },
    unknown,
    missing: lineIds.size - count,
  };
}

/** The script in another language: translated lines in place, the others as they are. Stress and cuts stand on words that are gone. */
export function translated(sections: readonly PlainSection[], translation: Translation): PlainSection[] {
  return sections.map((s) => ({
    ...s,
    title: translation.sections[s.id] ?? s.title,
    lines: s.lines.map((l) => {
      const text = translation.lines[l.id];
      if (text === undefined) return l;
      const { marks: _marks, ...rest } = l;
      return { ...rest, text };
    }),
  }));
}

export interface LineFit {
  line: string;
  ms: number;
  /** What it may take: its own time in the first language with the rest after it. */
  mayMs: number;
  overMs: number;
}
/** Over its place by more than this share, and by more than 0.2 s, a line will not fit. */
const TOLERANCE = 0.08;
const LEAST_OVER_MS = 200;
/** Lines whose translation takes longer than its place. */
export function tooLong(
  sections: readonly PlainSection[],
  clock: Clock,
  other: readonly PlainSection[],
  otherClock: Clock,
): LineFit[] {
  const [a, b] = [clock.lines(clockLines(sections)), otherClock.lines(clockLines(other))];
  return sections
    .flatMap((s) => s.lines)
    .flatMap((l, i) => {
      if (l.fixedMs !== null || !l.text.trim()) return [];
      const overMs = b[i].ms - a[i].ms;
      return overMs > Math.max(LEAST_OVER_MS, a[i].ms * TOLERANCE)
        ? [{ line: l.id, ms: b[i].ms, mayMs: a[i].ms, overMs }]
        : [];
    });
}

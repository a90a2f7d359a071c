/** Text without tags, pasted from a browser, a mail or a board → atoms, line by line; lines that only a narrow window broke are joined. */
import { tidy } from '../tidy.ts';
import { wordsOf, type Atom } from './atom.ts';
import { SUB_STEP, letterPlace } from '../subSteps.ts';
import { isStamp, tellsAge } from './shapes.ts';

const ITEM = /^\s*(?:[-*•–‣◦]\s+|(\d{1,2})[.)]\s+|(?:step)\s+(\d{1,2})\s*[:.]\s*)(?=\S)/i;
const ENDS = /[.!?…:]["'”’)\]]*$/u;
/** A rule under a post, with its signature below it. */
const RULE = /^\s*(?:_{5,}|--\s?|(?:[—–]\s?){3,})$/;
/** Signs drawn across the page part what is above from what is below. */
const DRAWN = /^\s*([^\p{L}\p{N}\s])(?:\s?\1){4,}\s*$/u;
const SIGNED = '+signed';
/** Nobody's signature has more lines (common practice of newsgroups, as RFC 3676, 4.3, has its mark). */
const SIGNATURE_LINES = 4;
/** Lines of at most so many letters may be broken by a mail program or an editor (RFC 5322 recommends 78). */
const NARROW = 100;

/** `typed`: the lines are known to be broken by whoever typed them, as in a `<pre>`. */
export function atomsOfText(text: string, typed = false): Atom[] {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const wide = broadest(lines, typed ? 1 : 3);
  const out: Atom[] = [];
  let gap = 0;
  let open: string[] = [];
  let signed = 0;
  let ruled = false;
  const plain = (line: string) => line.replace(/\d+/g, '').trim();
  const often = new Map<string, number>();
  for (const line of lines) often.set(plain(line), (often.get(plain(line)) ?? 0) + 1);
  /** What stands under other posts too, or says who comes next, is no part of a signature. */
  const ended = (line: string) => often.get(plain(line))! > 1 || isStamp(line) || tellsAge(line);
  const flush = () => {
    if (open.length) out.push({ ...atomOf(open.join(' '), gap), ...(signed > 0 ? { look: SIGNED } : {}), ...(ruled ? { ruled: true as const } : {}) }); // prettier-ignore
    if (open.length) ruled = false;
    if (open.length) gap = 0;
    open = [];
  };
  lines.forEach((raw, i) => {
    const line = raw.trimEnd();
    if (!line.trim() || RULE.test(line) || DRAWN.test(line)) {
      flush();
      gap++;
      ruled ||= DRAWN.test(line);
      // What stands under a rule, up to a blank line, is a signature.
      signed = RULE.test(line) ? SIGNATURE_LINES + 1 : 0;
      return;
    }
    if (signed > 0 && (--signed === 0 || ended(line))) {
      flush();
      signed = 0;
    }
    if (open.length && wide && continues(lines[i - 1].trimEnd(), line, wide)) open.push(line.trim());
    else {
      flush();
      open = [line];
    }
  });
  flush();
  withSubSteps(out);
  return out.filter((a) => /[\p{L}\p{N}]/u.test(a.text));
}

/** "a. Tread it firm" below a numbered step is a step within it. */
function withSubSteps(atoms: Atom[]): void {
  let within: number | undefined;
  atoms.forEach((a, i) => {
    if (a.type === 'item') within = a.step;
    else {
      const sub = within === undefined || a.type !== 'paragraph' ? null : SUB_STEP.exec(a.text);
      if (sub && within !== undefined)
        atoms[i] = {
          ...a,
          type: 'item',
          text: a.text.slice(sub[0].length),
          step: letterPlace(sub[1]),
          within,
        };
      else within = undefined;
    }
  });
}

/** The width that lines were broken at, or 0 where paragraphs are lines. */
function broadest(lines: readonly string[], fewest: number): number {
  const lengths = lines.map((l) => l.trimEnd().length).filter((n) => n > 30).sort((a, b) => a - b); // prettier-ignore
  if (lengths.length <= fewest) return 0;
  const wide = lengths[Math.floor(lengths.length * 0.95)];
  if (wide > NARROW) return 0;
  const broken = lines.filter((l, i) => {
    const line = l.trimEnd();
    return line.length > wide - 18 && !ENDS.test(line) && /^\s*[\p{Ll}\d"“‘(]/u.test(lines[i + 1] ?? '');
  });
  return broken.length >= fewest && broken.length >= lengths.length * 0.15 ? wide : 0;
}

/** A full line goes on in the next, unless that begins a list, a quotation or a head. */
function continues(before: string, line: string, wide: number): boolean {
  if (ITEM.test(line) || SUB_STEP.test(line) || /^\s*>/.test(line) !== /^\s*>/.test(before)) return false;
  const word = line.trim().split(/\s/)[0];
  if (before.length + 1 + word.length <= wide - 6) return false;
  return !isStamp(line) || wordsOf(line).length > 12;
}

/** Marks of notes and of editing that stand behind words: numbers, single letters, "edit" in square brackets. */
const MARK = /\[(?:\d{1,3}|[a-z]|edit|note \d+|citation needed)\]/gi;

function atomOf(marked: string, gap: number): Atom {
  const raw = marked.replace(MARK, '');
  // "Step 2: Thaw" over a paragraph is its heading.
  const headed =
    /^\s*step\s+\d{1,2}\s*[:.]/i.test(raw) && wordsOf(raw).length <= 10 && !ENDS.test(raw.trim());
  const item = headed ? null : ITEM.exec(raw);
  const quoted = /^\s*>/.test(raw);
  const cells = raw.split('\t').map(tidy).filter(Boolean);
  const row = cells.length > 1 && cells.every((c) => c.length <= 60);
  const step = item ? Number(item[1] ?? item[2]) || undefined : undefined;
  const text = row
    ? cells.join('; ')
    : tidy(raw.replace(/^(?:\s*>)+\s?/, '').replace(headed ? /^$/ : ITEM, ''));
  return {
    text,
    type: row ? 'row' : item ? 'item' : quoted ? 'quote' : 'paragraph',
    tag: '',
    above: [],
    named: [],
    look: '',
    inside: [],
    linked: 0,
    bold: 0,
    gap: Math.min(3, gap),
    ...(step ? { step } : {}),
  };
}

/** Atoms of a page as they would be if it were selected whole and pasted as text. */
export function asPasted(atoms: readonly Atom[]): Atom[] {
  return atoms.map((a) => ({
    ...atomOf(a.type === 'row' ? a.text.replace(/; /g, '\t') : a.text, /^(?:P|H\d|BLOCKQUOTE|FIGURE)$/.test(a.tag) ? 1 : 0), // prettier-ignore
    ...(a.type === 'item' && a.step ? { type: 'item' as const, step: a.step } : {}),
  }));
}

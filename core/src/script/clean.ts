/** The narration of a pasted draft: headings, timings, labels, bracketed directions and chatter dropped. */

const RULES: readonly { id: string; drop: RegExp }[] = [
  {
    id: 'heading',
    drop: /^\s*(?:#{1,6}\s.*|(?:scene|section|part|chapter|hook|intro(?:duction)?|outro|conclusion|body|opening|closing|title)\b[^.!?]{0,60}:?\s*)$/i,
  },
  { id: 'rule', drop: /^\s*(?:[-*_=~]\s*){3,}$/ },
  {
    id: 'word-count',
    drop: /^\s*[([]?\s*(?:word count|words|total words|approx(?:imate)?\.? (?:length|duration)|duration|runtime|estimated time|reading time|length)\s*[:=~-].*$/i,
  },
  {
    id: 'word-count-plain',
    drop: /^\s*[([]\s*~?\d[\d,]*\s*(?:words?|seconds?|minutes?|mins?|secs?)\s*[)\]]\s*$/i,
  },
  {
    id: 'direction',
    drop: /^\s*(?:visuals?|video|picture|image|on[- ]screen(?: text)?|b[- ]roll|footage|music|sound(?: effects?)?|sfx|fx|graphics?|text overlay|caption|transition|camera|shot|cut to|fade (?:in|out|to(?: \w+)?)|thumbnail|hashtags?)\s*(?:\d+\s*)?[:–-].*$/i,
  },
  {
    id: 'chatter',
    drop: /^\s*(?:sure|certainly|of course|absolutely|great|here(?:['’]s| is| are)|below is|i hope|let me know|feel free|would you like|note:|this script)\b.*(?:script|draft|version|help|changes|adjust|revise|tweak|let me know).*$/i,
  },
  { id: 'bracket-line', drop: /^\s*(?:(?:\[[^[\]]*\]|\([^()]*\))\s*)+$/ },
  {
    id: 'timestamp-line',
    drop: /^\s*[[(]?\d{1,2}:\d{2}(?::\d{2})?(?:[.,]\d{1,3})?\s*(?:(?:-->?|[–-]|to)\s*\d{1,2}:\d{2}(?::\d{2})?(?:[.,]\d{1,3})?)?[\])]?\s*$/,
  },
  { id: 'cue-number', drop: /^\s*\d{1,4}\s*$/ },
];

const LABEL =
  /^\s*(?:\*\*)?(?:narrator|narration|voice[- ]?over|v\.?o\.?|host|speaker(?: \d+)?|audio|script)(?:\s*\([^)]*\))?(?:\*\*)?\s*:\s*(?:\*\*)?\s*/i;
const TIME_PREFIX =
  /^\s*[[(]?\d{1,2}:\d{2}(?::\d{2})?(?:\s*[–-]\s*\d{1,2}:\d{2}(?::\d{2})?)?[\])]?\s*[:–-]?\s+(?=\S)/;
const DIRECTION_WORD =
  /\b(?:pause|beat|music|sfx|sound|cut|fade|zoom|camera|b-?roll|visual|shot|image|show|text|screen|laughs?|sighs?|softly|whispers?|dramatic|upbeat|transition|clip|footage|graphic|animation|close-?up|pan)\b/;
const CAPITALS = /^[A-Z][A-Z \d:.-]{2,80}$/;
/** What stands in round brackets goes when it directs; what stands in square ones goes always. */
const ROUND = /\s?\(([^()\n]{0,240})\)/g;
const SQUARE = /\s?\[[^[\]\n]{0,240}\]/g;

/** The narration alone: one paragraph a narration paragraph, separated by blank lines. Spoken words are kept as they stand. */
export function cleanDraft(text: string): string {
  const paragraphs: string[][] = [[]];
  for (const rawLine of text.replace(/\r\n?/g, '\n').split('\n')) {
    if (!rawLine.trim()) {
      paragraphs.push([]);
      continue;
    }
    let line = rawLine.replace(/^\s*(?:>\s?)+/, '');
    if (RULES.some((r) => r.drop.test(line.replace(/\*\*|__/g, '')))) continue;
    line = line
      .replace(TIME_PREFIX, '')
      .replace(LABEL, '')
      .replace(SQUARE, '')
      .replace(ROUND, (whole, inner: string) =>
        DIRECTION_WORD.test(inner) || CAPITALS.test(inner) ? '' : whole,
      );
    line = line
      .replace(/\*\*(.+?)\*\*|__(.+?)__/g, (_, a?: string, b?: string) => a ?? b ?? '')
      .replace(/(^|[\s(“"])[*_](\S(?:[^*_\n]*\S)?)[*_](?=[\s.,;:!?)”"]|$)/g, '$1$2');
    line = line
      .replace(/^\s*(?:[-*•]\s+|\d{1,2}[.)]\s+)/, '')
      .replace(/\s+([,.;:!?])/g, '$1')
      .replace(/\s+/g, ' ')
      .trim();
    if (/[\p{L}\p{N}]/u.test(line)) paragraphs[paragraphs.length - 1].push(line);
  }
  return paragraphs
    .map((p) => p.join(' '))
    .filter(Boolean)
    .join('\n\n');
}

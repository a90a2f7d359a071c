/** Drafts put together by chance: how narration is marked, how pictures are, what is said around them. Invented; common practice, no published source. */

/** How a heading may be written. */
export const HEADINGS: Record<string, (name: string, i: number) => string> = {
  square: (n) => `[${n.toUpperCase()}]`,
  squareSmall: (n) => `[${n}]`,
  angle: (n) => `<${n.toUpperCase()}>`,
  round: (n) => `(${n.toUpperCase()})`,
  dashes: (n) => `--- ${n.toUpperCase()} ---`,
  dashesSmall: (n) => `--- ${n} ---`,
  wiki: (n) => `== ${n} ==`,
  stars: (n) => `*** ${n.toUpperCase()} ***`,
  colonCaps: (n) => `${n.toUpperCase()}:`,
  colon: (n) => `${n}:`,
  num: (n, i) => `${i + 1}. ${n}`,
  numParen: (n, i) => `${i + 1}) ${n.toUpperCase()}`,
  roman: (n, i) => `${['I', 'II', 'III'][i]}. ${n.toUpperCase()}`,
  chapter: (n, i) => `CHAPTER ${['ONE', 'TWO', 'THREE'][i]}: ${n.toUpperCase()}`,
  part: (n, i) => `PART ${i + 1}/3 – ${n.toUpperCase()}`,
  timeTail: (n, i) => `${n} (0:${i}0–0:${i + 1}0)`,
  under: (n) => `_${n}_`,
  bold: (n) => `**${n}**`,
  dots: (n, i) => `${n.toUpperCase()} ........ 0:${i + 1}0`,
  arrow: (n) => `▶ ${n}`,
  time: (n, i) => `00:${i}0 ${n}`,
  timeDash: (n, i) => `0:${i}0–0:${i + 1}0 — ${n}`,
  slashes: (n) => `// ${n.toUpperCase()}`,
  underlined: (n) => `${n}\n${'='.repeat(n.length)}`,
  decimal: (n, i) => `1.${i + 1} ${n}`,
  letter: (n, i) => `${'ABC'[i]}. ${n}`,
  section: (n) => `Section: ${n}`,
  seg: (n, i) => `SEG ${i + 1}: ${n.toUpperCase()}`,
  curly: (n) => `{${n}}`,
  hash: (n, i) => `#${i + 1} ${n}`,
  beat: (n, i) => `Beat ${i + 1} — ${n}`,
  quoted: (n) => `“${n}”`,
  emoji: (n, i) => `${'🚪🌅🌙'.match(/./gu)![i]} ${n}`,
  boldNum: (n, i) => `**${i + 1}. ${n}**`,
  bullet: (n) => `• ${n}`,
  capsTime: (n, i) => `${n.toUpperCase()} — 0:${i}0`,
  seconds: (n, i) => `${n.toUpperCase()} (${i + 8} sec)`,
  tilde: (n) => `~ ${n} ~`,
  pipe: (n, i) => `${i + 1} | ${n} | ${i + 8}s`,
  gt: (n) => `>> ${n.toUpperCase()}`,
  tight: (n) => n.toUpperCase(),
};

/** How a picture may be noted. */
const PICTURES: Record<string, (words: string) => string> = {
  none: () => '',
  square: (x) => `[${x}]`,
  round: (x) => `(${x})`,
  star: (x) => `*${x}*`,
  under: (x) => `_${x}_`,
  boldsq: (x) => `**[${x}]**`,
  starround: (x) => `*(${x})*`,
  curly: (x) => `{${x}}`,
  visual: (x) => `Visual: ${x}`,
  VISUALdash: (x) => `VISUAL - ${x}`,
  roundVisual: (x) => `(Visual: ${x})`,
  sqVisual: (x) => `[Visual: ${x}]`,
  slashes: (x) => `// ${x}`,
  arrow: (x) => `→ ${x}`,
  dashes: (x) => `-- ${x}`,
  sqLabel: (x) => `[VISUAL] ${x}`,
  emoji: (x) => `🎬 ${x}`,
  SHOT: (x) => `SHOT: ${x}`,
  broll: (x) => `B-ROLL: ${x}`,
  boldVisuals: (x) => `**Visuals:** ${x}`,
  starVisual: (x) => `*Visual: ${x}*`,
  dashStar: (x) => `- *${x}*`,
  dbl: (x) => `{{${x}}}`,
  html: (x) => `<!-- ${x} -->`,
  c: (x) => `/* ${x} */`,
  guil: (x) => `«${x}»`,
  lt: (x) => `<${x}>`,
  onscreen: (x) => `ON SCREEN: ${x}`,
  cam: (x) => `Camera: ${x}`,
  scene: (x) => `Scene: ${x}`,
  image: (x) => `Image: ${x}`,
  footage: (x) => `Footage — ${x}`,
  bulletVisual: (x) => `- Visual: ${x}`,
  tilde: (x) => `~${x}~`,
  plus: (x) => `+ ${x}`,
  hashdir: (x) => `% ${x}`,
};

/** How narration may be marked. */
const NARRATION: Record<string, (words: string) => string> = {
  plain: (p) => p,
  Narrator: (p) => `Narrator: ${p}`,
  VO: (p) => `VO: ${p}`,
  boldNarr: (p) => `**Narrator:** ${p}`,
  dash: (p) => `VO — ${p}`,
  quote: (p) => `> ${p}`,
  bold: (p) => `**${p}**`,
  quoted: (p) => `"${p}"`,
  caps: (p) => `NARRATOR (V.O.)\n${p}`,
  sqVO: (p) => `[VO] ${p}`,
  Voiceover: (p) => `Voiceover: "${p}"`,
  italicN: (p) => `*Narrator:* ${p}`,
  alone: (p) => `NARRATION\n${p}`,
  bullet: (p) => `- ${p}`,
};

const BEFORE = [
  '',
  'Sure thing! Here is the script.',
  'Love this one. I went for a quieter tone and kept it to five beats.',
  "Here's your narration, ready to record:",
  'OK, new version below. I swapped the second and third beat as you asked.',
  'Got it — a calmer take, about 30 seconds when read slowly.',
  'Absolutely, happy to help with that.\n\nThis is written for a calm voice at around 140 words a minute.',
];
const BEHIND = [
  '',
  'Let me know if you want it shorter!',
  'Want me to try a punchier opening?',
  'I can also turn this into a longer piece if you have room.',
  'Hope that works. The kettle line is my favourite, but cut it if you run over.',
  'This comes to about 62 words. Tell me if the voice should sound older.',
  '*End of script*',
  "If you'd like, I can add sound cues or a list of stock clips.",
];
const SEEN = [
  'wide of the lift in fog',
  'slow push on the gate, gulls overhead',
  'a rusting cable, close',
  'archive photo of the crowd, 1904',
  'kettle steaming on the stove',
];
const SEEN_TOO = [
  'Wide of the lift in fog',
  'Slow push on the gate. Gulls overhead.',
  'A rusting cable, close',
  'Archive photo: the crowd in 1904',
  'Kettle steaming on the stove.',
];
export const SAID_BY_CHANCE = [
  'The boat went up in the lift that morning. Nobody at all was hurt.',
  'By noon the whole town stood at the gate, and waited for the second boat.',
  'It never came. The cable had parted in the night.',
  'They found the keeper in the wheelhouse, asleep, with the kettle still warm.',
  'He had one job, and it was to look.',
];

/** A draft; `random` gives numbers from 0 to 1. */
export function draftByChance(random: () => number): string {
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)];
  const [picture, narration] = [pick(Object.values(PICTURES)), pick(Object.values(NARRATION))];
  const [gap, seen, rule] = [pick(['\n', '\n\n']), pick([SEEN, SEEN_TOO]), random() < 0.3];
  const body = SAID_BY_CHANCE.map((words, i) => {
    const note = picture(seen[i]);
    return `${note && note + gap}${narration(words)}`;
  }).join('\n\n');
  return [pick(BEFORE), body, pick(BEHIND)].filter(Boolean).join(rule ? '\n\n---\n\n' : '\n\n');
}

/** Speed and memory as ratios side by side in one run, printed as a table. `npm run bench`. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { makeReplyChecker, orderedSections } from '@ursprung/core/commission';
import { draftScript } from '@ursprung/core/draft';
import { openDictionary, sentences } from '@ursprung/core/language';
import { extractFacts, taggedFacts } from '@ursprung/core/facts';
import { makeKit, pack, zipped } from '@ursprung/core/handoff';
import { makeReviewer } from '@ursprung/core/review';
import {
  checkChanged,
  docFromSections,
  emptyLine,
  scriptSchema,
  type PlainSection,
} from '@ursprung/core/script';
import { Transform } from 'prosemirror-transform';
import { readSource } from '@ursprung/core/source';
import { SHIPPED_VOICES, makeClock } from '@ursprung/core/timing';
import { indexSources, overlap } from '@ursprung/core/trace';
import { demoSource } from '@ursprung/demo';
import { usualBrief } from '@ursprung/core/plan';
import { indexFacts } from '@ursprung/core/trace';
import {
  getClock,
  getFonts,
  getKin,
  getPronouncer,
  getSenses,
  getSolver,
  getTagger,
} from '@ursprung/server/tools';

const rows: string[][] = [];
const ms = (n: number) => `${n < 10 ? n.toFixed(2) : n.toFixed(0)} ms`;

/** The middle of several runs, in milliseconds. */
function middle(times: number, work: () => unknown): number {
  const taken = Array.from({ length: times }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
  return taken.sort((a, b) => a - b)[Math.floor(times / 2)];
}

// --- the clock: one key in a script, kept word and line times against timing everything anew ---
const words = (await readSource(demoSource('lift'))).text.split(/\s+/);
const scriptOf = (count: number) => {
  const all = Array.from({ length: count }, (_, i) => words[i % words.length]);
  const lines: { text: string }[] = [];
  for (let i = 0; i < all.length; i += 16) lines.push({ text: `${all.slice(i, i + 16).join(' ')}.` });
  return lines;
};
let key = 0;
function keystroke(count: number, fresh: boolean): number {
  const lines = scriptOf(count);
  const clock = makeClock(getPronouncer(), { voice: SHIPPED_VOICES.even, pace: 150 });
  clock.lines(lines);
  return middle(31, () => {
    lines[lines.length >> 1] = { text: `A boat of ${++key} tonnes was lifted here.` };
    return (fresh ? makeClock(getPronouncer(), { voice: SHIPPED_VOICES.even, pace: 150 }) : clock).lines(
      lines,
    );
  });
}
const [kept, naive] = [keystroke(4000, false), keystroke(4000, true)];
rows.push([
  'all clocks after a key, 4,000 words',
  ms(kept),
  'timing everything anew',
  ms(naive),
  `${(naive / kept).toFixed(0)}×`,
]);
const [short, long] = [keystroke(4000, true), keystroke(16_000, true)];
rows.push([
  'timing 16,000 words anew',
  ms(long),
  '4,000 words',
  ms(short),
  `${(long / short).toFixed(1)}× for 4× the words`,
]);

// --- the dictionary: opening the packed file against importing the package, each in a process of its own ---
const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));
const script = (body: string) => {
  const out = execFileSync(
    process.execPath,
    [
      '--import',
      'tsx',
      '--input-type=module',
      '--expose-gc',
      '-e',
      `const m0 = (gc(), process.memoryUsage()); const t0 = performance.now(); ${body}; const t = performance.now() - t0; gc(); const m1 = process.memoryUsage(); console.log(JSON.stringify([t, (m1.heapUsed + m1.external - m0.heapUsed - m0.external) / 1048576]));`,
    ],
    { encoding: 'utf8', cwd: here('..') },
  );
  return JSON.parse(out.trim().split('\n').at(-1)!) as [number, number];
};
const best = (body: string) => Array.from({ length: 5 }, () => script(body)).sort((a, b) => a[0] - b[0])[2];
const packedFile = here('../core/dist/pronunciations.bin');
const packed = best(
  `const { readFileSync } = await import('node:fs'); const bytes = readFileSync(${JSON.stringify(packedFile)}); globalThis.kept = new DataView(bytes.buffer, bytes.byteOffset).getUint32(8, true)`,
);
const whole = best(`globalThis.kept = (await import('cmu-pronouncing-dictionary')).dictionary`);
rows.push([
  'loading the packed dictionary',
  ms(packed[0]),
  'importing its package',
  ms(whole[0]),
  `${(whole[0] / packed[0]).toFixed(0)}×`,
]);
rows.push([
  'memory of the packed dictionary',
  `${packed[1].toFixed(1)} MB`,
  'of the package',
  `${whole[1].toFixed(1)} MB`,
  `${(whole[1] / Math.max(0.1, packed[1])).toFixed(0)}×`,
]);
const bytes = readFileSync(packedFile);
const dictionary = openDictionary(bytes);
rows.push([
  'size of the packed dictionary',
  `${(bytes.length / 1e6).toFixed(2)} MB`,
  'bar',
  '2 MB',
  `${dictionary.size} words`,
]);

// --- overlap by an index of runs against comparing every pair of places ---
const source = (await readSource(demoSource('lift'))).text;
const lines = scriptOf(1000).map((l) => l.text);
const index = indexSources([source]);
const fast = middle(9, () => overlap(lines, index));
const slow = middle(3, () => {
  const theirs = source.toLowerCase().split(/\W+/);
  const ours = lines.join(' ').toLowerCase().split(/\W+/);
  let hits = 0;
  for (let i = 0; i + 8 <= ours.length; i++)
    for (let j = 0; j + 8 <= theirs.length; j++) {
      let n = 0;
      while (n < 8 && ours[i + n] === theirs[j + n]) n++;
      if (n === 8) hits++;
    }
  return hits;
});
rows.push([
  'overlap of 1,000 words',
  ms(fast),
  'every pair of places',
  ms(slow),
  `${(slow / fast).toFixed(0)}×`,
]);

// --- the draft: an exact choice against reading and tagging alone, which any method has to do ---
const solver = await getSolver();
const doc = await readSource(demoSource('lift'));
const tagger = getTagger();
const drafted = middle(3, () =>
  draftScript(
    doc,
    { target: { kind: 'point', seconds: 300 }, mood: 'calm', seed: 1 },
    { tagger, clock: getClock('even', 150), solver },
  ),
);
const tagged = middle(3, () => doc.blocks.map((b) => tagger(b.text)));
rows.push([
  'drafting 5:00 from 2,100 words',
  ms(drafted),
  'tagging them alone',
  ms(tagged),
  `${(drafted / tagged).toFixed(0)}×`,
]);

// --- the draft by length asked and by length of the source: cost must grow with neither faster than in step ---
const sentencesOf = (count: number) => {
  const pool = doc.blocks.filter((b) => b.type !== 'heading').map((b) => b.text);
  const out: string[] = [];
  for (let i = 0, n = 0; n < count; i++) {
    // Figures and a name change from copy to copy, so that no two passages are the same.
    const text = pool[i % pool.length].replace(/\b(\d{2,4})\b/g, (d) =>
      String(Number(d) + Math.floor(i / pool.length)),
    );
    out.push(text);
    n += text.split(' ').length;
  }
  return out.join('\n\n');
};
const timeDraft = async (words: number, seconds: number) => {
  const long = await readSource(sentencesOf(words), { kind: 'encyclopedia' });
  const tools = { tagger, clock: getClock('even', 150), solver };
  return middle(3, () =>
    draftScript(long, { target: { kind: 'point', seconds }, mood: 'calm', seed: 1 }, tools),
  );
};
const [oneMinute, tenMinutes] = [await timeDraft(5000, 60), await timeDraft(5000, 600)];
const [fewWords, manyWords] = [await timeDraft(2500, 120), await timeDraft(5000, 120)];
rows.push(
  [
    'drafting 10:00 from 5,000 words',
    ms(tenMinutes),
    '1:00 from the same',
    ms(oneMinute),
    `${(tenMinutes / oneMinute).toFixed(1)}× for 10× the length`,
  ],
  [
    'drafting 2:00 from 5,000 words',
    ms(manyWords),
    'from 2,500 words',
    ms(fewWords),
    `${(manyWords / fewWords).toFixed(1)}× for 2× the words`,
  ],
);

// --- facts of a long page against tagging its sentences alone; cost by length; memory ---
const pages = await Promise.all([6000, 60_000].map((n) => readSource(sentencesOf(n))));
const heapBefore = process.memoryUsage().heapUsed;
const factTimes = pages.map((p) => middle(1, () => extractFacts(p, tagger)));
const tagTimes = pages.map((p) =>
  middle(1, () => p.blocks.flatMap((b) => sentences(b.text).map((s) => tagger(s.text)))),
);
const heapUsed = (process.memoryUsage().heapUsed - heapBefore) / 1e6;
rows.push(
  [
    '60,000 words to facts',
    ms(factTimes[1]),
    'tagging them alone (bar 4×)',
    ms(tagTimes[1]),
    `${(factTimes[1] / tagTimes[1]).toFixed(1)}×`,
  ],
  [
    '60,000 words to facts',
    ms(factTimes[1]),
    '6,000 words',
    ms(factTimes[0]),
    `${(factTimes[1] / factTimes[0]).toFixed(1)}× for 10× the words`,
  ],
  ['memory of 60,000 words to facts', `${heapUsed.toFixed(0)} MB`, 'bar', '500 MB', ''],
);

// --- the Read-through of 1,500 words: a first look, a look after one edit, and everything from scratch each time ---
{
  const sourceFacts = extractFacts(doc, tagger);
  const sources = [{ letter: 'A', text: doc.text, facts: sourceFacts, kind: doc.kind }];
  const words = sentencesOf(1500);
  const sections: PlainSection[] = words.split('\n\n').map((text, i) => ({
    id: `S${i}`,
    title: `Part ${i}`,
    role: 'ground',
    plannedMs: 0,
    locked: false,
    takes: [],
    lines: sentences(text).map((l, k) => ({ ...emptyLine(`S${i}L${k}`), text: l.text })),
  }));
  const tools = { clock: getClock('even', 150), pronouncer: getPronouncer(), tagger };
  const input = { title: doc.title, sources };
  const fresh = middle(5, () => makeReviewer(tools)({ ...input, sections }));
  const reviewer = makeReviewer(tools);
  reviewer({ ...input, sections });
  let turn = 0;
  const edited = middle(15, () => {
    turn++;
    const at = turn % sections.length;
    reviewer({
      ...input,
      sections: sections.map((x, i) =>
        i === at
          ? { ...x, lines: x.lines.map((l, k) => (k ? l : { ...l, text: `${l.text} Take ${turn}.` })) }
          : x,
      ),
    });
  });
  rows.push([
    'read-through after an edit, 1,500 words (bar 100 ms)',
    ms(edited),
    'everything from scratch (bar 1 s)',
    ms(fresh),
    `${(fresh / edited).toFixed(0)}× less`,
  ]);
}

// --- a reply of 1,500 words: aligned and checked whole, line by line as it streams, and aligned by comparing all pairs ---
{
  const source = await readSource(demoSource('lift'));
  const sourceFacts = extractFacts(source, tagger);
  const clock = getClock('even', 150);
  const { sections } = draftScript(
    source,
    { target: { kind: 'point', seconds: 420 }, mood: 'calm', seed: 1 },
    { tagger, clock, solver: await getSolver() },
  );
  const commission = {
    letter: 'A',
    title: source.title,
    kind: source.kind,
    text: source.text,
    facts: sourceFacts,
  };
  const ordered = orderedSections(
    {
      title: source.title,
      promise: '',
      angle: '',
      spine: [],
      channel: '',
      frame: '16:9',
      mood: 'calm',
      pace: 150,
      target: { kind: 'point', seconds: 420 },
      brief: usualBrief(),
      style: null,
      sections,
      sources: [commission],
      must: [],
      out: [],
    },
    clock,
  );
  const hand = readFileSync(new URL('../standins/data/replies/boat-lift.txt', import.meta.url), 'utf8');
  const told = hand
    .trim()
    .split('\n')
    .slice(1)
    .map((row) => row.slice(row.indexOf(' | ') + 3));
  const lines: string[] = [];
  for (let count = 0, i = 0; count < 1500; i++) {
    const line = told[i % told.length];
    lines.push(line);
    count += line.split(' ').length;
  }
  const tools = { tagger, kin: getKin(), clock };
  const made = () => makeReplyChecker([commission], { sections: ordered, never: [], saysI: false }, tools);
  made().check(lines.slice(0, 5).join('\n'), true);
  const wholeMs = middle(5, () => made().check(lines.join('\n'), true));
  const streaming = made();
  const each = lines.map((_, i) => middle(1, () => streaming.check(lines.slice(0, i + 1).join('\n'), false)));
  const slowest = [...each].sort((a, b) => a - b)[Math.floor(each.length * 0.95)];
  const facts = sourceFacts.map((f) => ({ source: 'A', id: f.id, text: f.text }));
  const indexed = middle(5, () => indexFacts(facts, getKin()).align(lines));
  // All pairs: every line against every fact by itself, as if there were no index.
  const pairs = middle(1, () => facts.map((f) => indexFacts([f], getKin())).forEach((one) => lines.forEach((l) => one.find(l)))); // prettier-ignore
  rows.push(
    [
      'reply of 1,500 words, checked whole (bar 1 s)',
      ms(wholeMs),
      'a line of it as it streams, 19 in 20 (bar 50 ms)',
      ms(slowest),
      `${lines.length} lines`,
    ],
    [
      'its alignment through the index',
      ms(indexed),
      'comparing all pairs',
      ms(pairs),
      `${(pairs / indexed).toFixed(0)}× less`,
    ],
  );
}

// --- a kit of a long script: everything worked out and written, against the same for a tenth of it ---
{
  const document = await readSource(demoSource('lift'));
  const tagger = getTagger();
  const facts = extractFacts(document, tagger);
  const clock = getClock('even', 150);
  const tools = {
    tagger,
    senses: getSenses(),
    kin: getKin(),
    clock,
    pronouncer: getPronouncer(),
    fonts: getFonts(),
  };
  const scriptFor = (minutes: number): PlainSection[] => {
    const sections: PlainSection[] = [];
    for (let spoken = 0, i = 0; spoken < minutes * 60_000;) {
      const lines = Array.from({ length: 16 }, () => {
        const { text, id } = facts[i++ % facts.length];
        spoken += clock.time(text).ms;
        return { ...emptyLine(`L${i}`), text, from: [{ source: 'A', fact: id, quote: text }] };
      });
      sections.push({ id: `S${i}`, title: `Part ${sections.length + 1}`, role: 'ground', plannedMs: 0, locked: false, takes: [], lines }); // prettier-ignore
    }
    return sections;
  };
  const kitFor = (minutes: number) =>
    makeKit(
      {
        settings: { title: document.title, frame: '16:9', mood: 'calm', pace: 150, voice: 'even', seed: 1, shape: 'own', target: { kind: 'point', seconds: minutes * 60 } },
        sections: scriptFor(minutes),
        sources: [{ letter: 'A', document, facts, rights: 'own' }],
        printed: [],
        channel: { name: '', style: '', sayings: [] },
        cast: [],
        upload: {},
        rate: '25',
        ssmlLimit: 5000,
        children: false,
        synthetic: { voice: false, pictures: false },
      },
      tools,
    ); // prettier-ignore
  const took = async (minutes: number) => {
    const began = performance.now();
    zipped(await pack(kitFor(minutes), { digest: (b) => createHash('sha256').update(b).digest('hex') }));
    return performance.now() - began;
  };
  // A worker writes many kits: its first two pay for what is loaded and compiled.
  await took(25);
  await took(25);
  const [kitLong, kitShort] = [await took(25), await took(2.5)];
  rows.push(['a kit of 25 minutes, every file, zipped (bar 3 s)', ms(kitLong), 'of two and a half', ms(kitShort), `${(kitLong / kitShort).toFixed(1)}× for 10×`]); // prettier-ignore
}

// --- facts made once: a draft of ten minutes from 5,000 words, and of one; with stored facts against taking them apart anew ---
{
  const lift = await readSource(demoSource('lift'));
  const others = await Promise.all(
    (['footbridge', 'eels', 'ledger'] as const).map((name) => readSource(demoSource(name))),
  );
  const text = [lift, ...others, lift].flatMap((d) =>
    d.blocks.filter((b) => b.type === 'paragraph').map((b) => b.text),
  );
  const words = (n: number) => {
    const out: string[] = [];
    for (let i = 0, count = 0; count < n; i++) {
      // Passages told again under another number, so that no two are the same.
      const passage = i < text.length ? text[i] : `${text[i % text.length]} It was the year ${1500 + i}.`;
      out.push(passage);
      count += passage.split(' ').length;
    }
    return readSource(`A lift for boats\n\n${out.join('\n\n')}`, { kind: 'encyclopedia' });
  };
  const tagger = getTagger();
  const tools = { tagger, clock: getClock('even', 150), solver: await getSolver() };
  const source = await words(5000);
  const tagged = taggedFacts(source, tagger);
  const options = (seconds: number) => ({
    target: { kind: 'point' as const, seconds },
    mood: 'calm' as const,
    seed: 1,
  });
  const draft = (seconds: number, kept: boolean) =>
    middle(3, () => draftScript(source, { ...options(seconds), ...(kept ? { tagged } : {}) }, tools));
  draft(600, true);
  const [ten, tenAnew] = [draft(600, true), draft(600, false)];
  rows.push(['a draft of 10 minutes from 5,000 words, facts stored', ms(ten), 'taken apart anew', ms(tenAnew), `${(tenAnew / ten).toFixed(1)}×`]); // prettier-ignore
  const read = async (n: number) => {
    const document = await words(n);
    return middle(n > 10_000 ? 1 : 3, () => taggedFacts(document, tagger));
  };
  await read(3000);
  const [small, large] = [await read(6000), await read(60_000)];
  rows.push(['taking 60,000 words apart', ms(large), '6,000 words', ms(small), `${(large / small).toFixed(1)}× for 10×`]); // prettier-ignore
}

// --- a page read as a careful reader would, beside the extraction library alone on the same parsed pages ---
{
  const folder = new URL('../core/test/source/genres/', import.meta.url);
  const pages = readdirSync(folder)
    .filter((f) => f.endsWith('.html'))
    .map((f) => readFileSync(new URL(f, folder), 'utf8'));
  const { parsedHtml } = await import('../core/src/source/readers/html/parse.ts');
  const { Readability } = await import('@mozilla/readability');
  const timed = async (read: (html: string) => Promise<unknown>) => {
    const runs: number[] = [];
    for (let n = 0; n < 4; n++) {
      const began = performance.now();
      for (const html of pages) await read(html);
      runs.push((performance.now() - began) / pages.length);
    }
    return runs.slice(1).sort((a, b) => a - b)[1];
  };
  const own = await timed((html) => readSource(html));
  const library = await timed(async (html) =>
    new Readability((await parsedHtml(html)) as unknown as Document).parse(),
  );
  rows.push([`reading a page, ${pages.length} kinds of site`, ms(own), 'the extraction library alone', ms(library), `${(own / library).toFixed(1)}×`]); // prettier-ignore
}

// --- a key in a long script: the step checked by what changed against the whole, and kept with little and much waiting ---
{
  const sections = Array.from({ length: 16 }, (_, s): PlainSection => ({
    id: `S${s}`, title: `Part ${s}`, role: 'ground', plannedMs: 0, locked: false, takes: [],
    lines: Array.from({ length: 20 }, (__, l) => ({ ...emptyLine(`S${s}L${l}`), text: 'A boat of forty tonnes was lifted here in the year of the flood.', from: [{ source: 'A', fact: 'f1', quote: 'lifted here' }] })),
  })); // prettier-ignore
  const doc = docFromSections(sections);
  const next = new Transform(doc).insert(3, scriptSchema.text('x')).doc;
  const [part, all] = [middle(31, () => checkChanged(doc, next)), middle(31, () => next.check())];
  rows.push(['checking a step in a script of 320 lines', ms(part), 'checking the whole', ms(all), `${(all / part).toFixed(0)}×`]); // prettier-ignore
}

const widths = rows[0].map((_, c) => Math.max(...rows.map((r) => r[c].length)));
for (const row of rows) process.stdout.write(`${row.map((cell, c) => cell.padEnd(widths[c])).join('  ')}\n`);

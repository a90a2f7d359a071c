/**
 * What an order says of length against what the clock hears of narrations by other hands, on six strangers' pages. They are those
 * the constants were fitted on, so this is a test, no estimate; on four narrations and four replies kept apart the figures were alike.
 */
import { expect } from 'chai';
import { readFileSync, readdirSync } from 'node:fs';
import { wordRate } from '../../src/commission/length.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { openSource } from '../../src/source/index.ts';
import { clock, tagger } from '../tools.ts';

const PAGES = new URL('../source/strangers/', import.meta.url);
const NARRATIONS = new URL('./narrations/', import.meta.url);
/** The usual length of a sentence that orders ask for, and the most that seconds as ordered and as heard may differ. */
const SENTENCE = 11;
const MOST_OFF = 0.04;

describe('words ordered for a time', () => {
  for (const file of readdirSync(NARRATIONS))
    it(`fill it when they are read: ${file}`, async () => {
      const page = readdirSync(PAGES).find((f) => f.startsWith(file.slice(0, 3)) && !f.includes('gold'))!;
      const source = await openSource(new Uint8Array(readFileSync(new URL(page, PAGES))));
      const rows = new Set(source.blocks.filter((b) => b.type === 'row' || b.type === 'reply').map((b) => b.id)); // prettier-ignore
      const facts = extractFacts(source, tagger).filter((f) => !f.silent && !rows.has(f.block));
      const parts = readFileSync(new URL(file, NARRATIONS), 'utf8')
        .split(/\n\s*\n/)
        .map((p) => p.replace(/\s+/g, ' ').trim())
        .filter(Boolean);
      const rate = wordRate(clock, facts.map((f) => f.text), SENTENCE); // prettier-ignore
      const [stop] = clock.tokens('Yes. No.');
      const heard = parts.reduce((n, p) => n + clock.time(p).ms, 0) + (parts.length - 1) * stop.pauseMs;
      const words = parts.reduce((n, p) => n + clock.time(p).spokenWords, 0);
      const ordered = words * rate.msAWord(facts.map((f) => f.text));
      expect(ordered / heard).to.be.within(1 - MOST_OFF, 1 + MOST_OFF);
    });

  it('count a figure by what is said of it, however it is written', () => {
    const rate = (text: string) => wordRate(clock, [text], SENTENCE).msAWord([text]);
    expect(clock.time('In 1984').spokenWords).to.equal(clock.time('In nineteen eighty-four').spokenWords);
    expect(rate('It fell in 1984.')).to.be.closeTo(rate('It fell in nineteen eighty-four.'), 15);
  });
});

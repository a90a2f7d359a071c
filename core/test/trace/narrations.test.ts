/**
 * Six narrations that another writer made of pages by other hands, every line true to its page, and 84 of their lines
 * with one fault planted in each. The checks were tuned on these: a test, no estimate.
 */
import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { makeReplyChecker, replyOrder, stops, type ReplyLine } from '../../src/commission/index.ts';
import { usualBrief } from '../../src/plan/index.ts';
import { openSource } from '../../src/source/index.ts';
import { clock, tagger } from '../tools.ts';
import { kin, sourceOf } from '../commission/context.ts';

const PAGES = { '01': 'html', '05': 'html', '07': 'wikitext', '09': 'html', '11': 'html', '13': 'html' };
const SECTION = { number: 1, id: 'S1', title: 'One', seconds: 150, words: 380, msAWord: 400, facts: [] };
const told = (name: string) => readFileSync(new URL(`./narrations/${name}`, import.meta.url), 'utf8');
const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
/** A line may come as several sentences, or several lines as one. */
const lineOf = (lines: readonly ReplyLine[], text: string) =>
  lines.filter((l) => {
    const [a, b] = [plain(l.text), plain(text)];
    return a === b || (a.length > 12 && (b.includes(a) || a.includes(b)));
  });

describe('narrations of strangers’ pages', function () {
  const count = { lines: 0, accused: 0, marked: 0, planted: 0, found: 0 };
  const families = new Map<string, [found: number, of: number]>();
  before(async () => {
    for (const [n, kind] of Object.entries(PAGES)) {
      const bytes = readFileSync(new URL(`../source/strangers/${n}.${kind}`, import.meta.url));
      const document = await openSource(new Uint8Array(bytes));
      const source = sourceOf(document);
      const check = (text: string) =>
        makeReplyChecker(
          [source],
          replyOrder({ brief: usualBrief(), style: null, sources: [source] }, [SECTION]),
          { tagger, kin, clock },
        ).check(text, true).lines;
      const text = told(`${n}.txt`);
      const planted = JSON.parse(told(`${n}.faults.json`)) as { was: string; line: string; fault: string }[];
      const truth = (l: ReplyLine) => l.faults.filter((f) => f.kind !== 'close' && f.kind !== 'twice');
      for (const l of check(text)) {
        count.lines++;
        if (truth(l).some(stops)) count.accused++;
        else if (truth(l).length) count.marked++;
      }
      const ill = check(planted.reduce((now, f) => now.replace(f.was, () => f.line), text));
      for (const f of planted) {
        const family = familyOf(f.fault);
        const [found, of] = families.get(family) ?? [0, 0];
        const hit = lineOf(ill, f.line).some((l) => truth(l).length > 0);
        families.set(family, [found + Number(hit), of + 1]);
        count.planted++;
        if (hit) count.found++;
      }
    }
  });

  it('have at most 2 true lines in 100 accused and 8 marked', () => {
    expect(count.lines).to.be.greaterThan(200);
    expect(count.accused / count.lines).to.be.at.most(0.02);
    expect(count.marked / count.lines).to.be.at.most(0.08);
  });
  it('give away two planted faults in three, and half of every family of a dozen and more', () => {
    expect(count.planted).to.equal(84);
    expect(count.found / count.planted).to.be.at.least(0.66);
    for (const [family, [found, of]] of families)
      if (of >= 12) expect(found / of, family).to.be.at.least(0.5);
  });
});

const familyOf = (fault: string): string =>
  /quotation given|name/.test(fault)
    ? 'names and speakers'
    : /figure|unit|date|quotation/.test(fault)
      ? 'values and words'
      : /hedge|not lost|part for whole|first/.test(fault)
        ? 'hedge, denial, quantity'
        : /order|cause|whom|comparison/.test(fault)
          ? 'order, cause, roles'
          : 'invented';

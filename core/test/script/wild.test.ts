/**
 * Drafts in as many forms that people and programs leave them in: prompter exports, slides' notes, chats, mails, forms,
 * columns of blanks, speech markup (101 to 140), columns of every make (201 on), chats with text generators, recording sheets, data,
 * letters (301 on). When each was first read, unseen, 15 of 40, 18 of 30 and 6 of 20 came out exactly right; what was mended for
 * the others since makes this a test, no estimate.
 */
import { expect } from 'chai';
import { readFileSync, readdirSync } from 'node:fs';
import { draftText } from '../../src/script/draftFile.ts';
import { cleanDraft } from '../../src/script/index.ts';

const folder = new URL('./wild/', import.meta.url);
const words = (text: string) =>
  text
    .normalize('NFKC')
    .replace(/[’‘]/g, "'")
    .toLowerCase()
    .match(/[\p{L}\p{N}]+(?:'[\p{L}\p{N}]+)*/gu)!
    .join(' ');

describe('drafts as they are found', () => {
  for (const file of readdirSync(folder).filter((f) => !f.endsWith('.gold.json')))
    it(`${file}: what is spoken, whole and alone`, async () => {
      const gold = JSON.parse(readFileSync(new URL(`${file.slice(0, 3)}.gold.json`, folder), 'utf8')) as { spoken: string[] }; // prettier-ignore
      const said = cleanDraft(await draftText(new Uint8Array(readFileSync(new URL(file, folder)))));
      expect(words(said)).to.equal(words(gold.spoken.join(' ')));
      expect(said).to.not.match(/[<>[\]{}_#*~|]/);
    });
});

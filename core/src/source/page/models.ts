/** What scripts/pages/train.ts learned, brought when it is needed. */
import { z } from 'zod';
import type { PageModel } from './classify.ts';
import { forestSchema, type Forest } from './trees.ts';

const schema = z.object({
  lexicon: z.record(z.string(), z.number()),
  first: forestSchema,
  second: forestSchema,
});

const kept = new Map<string, Promise<PageModel>>();
const once = (name: string, load: () => Promise<unknown>) => {
  let model = kept.get(name);
  if (!model) {
    model = load().then((data) => schema.parse(data));
    kept.set(name, model);
  }
  return model;
};

/** For pages with markup. */
export const pageModel = (): Promise<PageModel> => once('page', async () => (await import('../../../data/page-model.json')).default); // prettier-ignore
/** For text without any: pasted from a browser, a mail. */
export const pasteModel = (): Promise<PageModel> => once('paste', async () => (await import('../../../data/paste-model.json')).default); // prettier-ignore
let titles: Promise<Forest> | undefined;
/** What tells a title among the rows above a text, learned by scripts/pages/titles.ts. */
export const titleModel = (): Promise<Forest> => (titles ??= import('../../../data/title-model.json').then((m) => forestSchema.parse(m.default))); // prettier-ignore

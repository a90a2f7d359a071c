/** Every writer of an open format, one file each, in the order shown. Ids are unique. */
import type { Recipient, Writer } from './writer.ts';
import { chapters } from './writers/chapters.ts';
import { csl } from './writers/csl.ts';
import { csv } from './writers/csv.ts';
import { description } from './writers/description.ts';
import { docx } from './writers/docx.ts';
import { edl } from './writers/edl.ts';
import { ffmetadata } from './writers/ffmetadata.ts';
import { fountain } from './writers/fountain.ts';
import { json } from './writers/json.ts';
import { markdown } from './writers/markdown.ts';
import { otio } from './writers/otio.ts';
import { pdf } from './writers/pdf.ts';
import { pls } from './writers/pls.ts';
import { schema } from './writers/schema.ts';
import { srt } from './writers/srt.ts';
import { ssml } from './writers/ssml.ts';
import { text } from './writers/text.ts';
import { ttml } from './writers/ttml.ts';
import { twocolumn } from './writers/twocolumn.ts';
import { twocolumnDocx } from './writers/twocolumnDocx.ts';
import { karaoke, vtt } from './writers/vtt.ts';
import { xliff } from './writers/xliff.ts';
import { xlsx } from './writers/xlsx.ts';

export const writers: readonly Writer[] = [
  text, pdf, docx, ssml, pls, twocolumn, twocolumnDocx, csv, xlsx, otio, edl, ffmetadata, srt, vtt, ttml, karaoke, xliff, description,
  chapters, csl, markdown, fountain, json, schema,
]; // prettier-ignore
if (new Set(writers.map((w) => w.id)).size !== writers.length) throw new Error('Two writers have one id.');

export const writerById = (id: string): Writer | undefined => writers.find((w) => w.id === id);
export const writersFor = (who: Recipient): readonly Writer[] => writers.filter((w) => w.for.includes(who));

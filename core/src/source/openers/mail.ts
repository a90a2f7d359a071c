/** Mail (RFC 5322) and saved pages in MIME form (MHTML, RFC 2557), by postal-mime. */
import PostalMime from 'postal-mime';
import { SourceError, type RawDocument } from '../document.ts';
import { wordsOf } from '../page/atom.ts';
import { closedBy } from '../page/head.ts';
import { DAY } from '../page/shapes.ts';
import { htmlReader } from '../readers/html/reader.ts';
import type { SourceOpener } from '../readers/reader.ts';
import { textReader } from '../readers/text.ts';
import { isoDate } from '../tidy.ts';

const HEADER =
  /^(?:from|to|subject|date|mime-version|received|return-path|message-id|content-type|snapshot-content-location|x-[\w-]+|delivered-to|reply-to|dkim-signature|arc-[\w-]+)\s*:/i;

/** Fewer words of one's own before a forwarded letter are said about it. */
const FEWEST_OWN = 40;
/** A letter without what it quotes, its signature and its footer. */
function ownWords(text: string): string {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const end = lines.findIndex(
    (l) =>
      /^-- ?$/.test(l) ||
      /^-{3,}\s*(?:original message|forwarded message)/i.test(l) ||
      /^On .{6,120} wrote:\s*$/.test(l),
  );
  const own = lines
    .slice(0, end < 0 ? undefined : end)
    .filter((l) => !/^\s*>/.test(l))
    .join('\n');
  // Who forwards a letter with a line of their own wants that letter read.
  const passedOn = end >= 0 && /forwarded message/i.test(lines[end]) && wordsOf(own).length < FEWEST_OWN;
  return passedOn ? lines.slice(end + 1).join('\n') : own;
}

/** Who wrote a letter that somebody passed on with a line of their own, and when: its head stands under that line (common practice of mail programs). */
function forwardedHead(text: string): { from?: string; day?: string } | null {
  const at = text.search(/\bforwarded message\b/i);
  if (at < 0 || wordsOf(text.slice(0, at)).length >= FEWEST_OWN) return null;
  const head = text.slice(at, at + 600);
  const said = /\bFrom:([^\n]{2,120})/.exec(head)?.[1] ?? '';
  const from = said
    .split(/[<([]|\b(?:Date|Sent|To|Subject):/)[0]
    .replace(/[*"]/g, '')
    .trim();
  const day = isoDate(DAY.exec(/\b(?:Date|Sent):([^\n]{6,60})/.exec(head)?.[1] ?? '')?.[0]);
  return from || day ? { ...(from ? { from } : {}), ...(day ? { day } : {}) } : null;
}

/** A subject without "Re:", "Fwd:" (RFC 5322, 3.6.5) and the list it went to in brackets (common practice). */
const subjectOf = (subject: string): string =>
  subject
    .replace(/^[\p{Extended_Pictographic}\uFE0F\s]+/u, '')
    .replace(/^(?:\s*(?:re|fwd?|aw|wg)\s*:|\s*\[[^\]]{1,40}\](?=\s*\S))+\s*/i, '')
    .trim() || subject.trim();

/** Who writes: "Ness at The Letter" is Ness, and where the letter names its writer by that name, the whole of it. */
function senderOf(name: string, read: RawDocument): string {
  const bare = name.replace(/\s+(?:at|from|via|of|@)\s.*$|\s*[|(].*$/i, '').trim() || name;
  const rows = [...read.blocks, ...(read.leftOut ?? [])].map((b) => b.text);
  const whole = rows.flatMap((r) => /\b(?:[Ww]ritten|[Ww]ords|[Tt]ext|[Ss]tory) by ((?:\p{Lu}[\p{L}.'’-]*|van|von|de|der|den|la)(?:\s(?:\p{Lu}[\p{L}.'’-]*|van|von|de|der|den|la)){1,3})/u.exec(r)?.[1] ?? []); // prettier-ignore
  const named = whole.map((w) => w.replace(/(?<=\p{Ll}{2})\..*$|\.$/u, ''));
  // Under the name of the whole letter ("The Grindstone") somebody else writes, where it says who.
  const letter = /^The\s/.test(bare) && new Set(named).size === 1;
  return bare.includes(' ') && !letter
    ? bare
    : (named.find((w) => letter || w.startsWith(`${bare} `)) ?? bare);
}

export const mailOpener: SourceOpener = {
  id: 'mail',
  accepts: (_bytes, head) => {
    const lines = head.replace(/\r/g, '').split('\n').slice(0, 60);
    const blank = lines.indexOf('');
    const headers = (blank < 0 ? lines : lines.slice(0, blank)).filter((l) => !/^\s/.test(l));
    return (
      headers.length >= 3 &&
      HEADER.test(headers[0]) &&
      headers.filter((l) => /^[\w-]+\s*:/.test(l)).length >= headers.length * 0.9 &&
      headers.filter((l) => HEADER.test(l)).length >= 3
    );
  },
  open: async (bytes) => {
    let mail;
    try {
      mail = await PostalMime.parse(bytes, { maxNestingDepth: 20 });
    } catch {
      throw new SourceError(
        'unreadable',
        'This letter or saved page is broken, so it can’t be opened. Paste its words instead.',
      );
    }
    const saved =
      mail.headers.some((h) => h.key === 'snapshot-content-location') ||
      /<(?:article|main|nav)\b/i.test(mail.html ?? '');
    // A newsletter is laid out; a letter is typed, whatever its program makes of it.
    const laidOut = /<(?:table|h[1-6]|img)\b/i.test(mail.html ?? '');
    const subject = mail.subject ? subjectOf(mail.subject) : undefined;
    const raw: RawDocument =
      mail.html && (saved || laidOut || !mail.text)
        ? await htmlReader.read(mail.html, subject)
        : await textReader.read(ownWords(mail.text ?? ''), subject);
    // Several letters one under the other are a thread, whoever wrote the first.
    const several = (mail.text?.match(/^From: .+\r?\n(?:[\w-]+: .+\r?\n){0,12}?(?:Subject|Date): /gm) ?? [])
      .length;
    if (several && !mail.html)
      return textReader.read(`From: ${mail.from?.name ?? ''} <${mail.from?.address ?? ''}>\nSubject: ${mail.subject ?? ''}\nDate: ${mail.date ?? ''}\n\n${mail.text}`); // prettier-ignore
    const passedOn = forwardedHead(mail.text ?? [...(raw.leftOut ?? []), ...raw.blocks].map((b) => b.text).join('\n')); // prettier-ignore
    const date = passedOn?.day ?? isoDate(mail.date);
    // A laid-out letter shows its own headline; the subject is often the sender's line above several things.
    const shown = raw.title && raw.leftOut;
    if (subject && !shown) raw.title = subject;
    // "By Ann Hale" over the words says more than the name that the letter was sent under.
    const sender = passedOn?.from ?? mail.from?.name;
    const closed = sender ? undefined : closedBy((mail.text ?? '').split(/\r?\n/).filter((l) => l.trim()));
    if (!saved && !raw.authors && (sender || closed))
      raw.authors = [sender ? senderOf(sender, raw) : closed!];
    if (date && !raw.published) raw.published = date;
    const address = mail.headers.find((h) => h.key === 'snapshot-content-location')?.value;
    if (address) raw.address = address;
    return raw;
  },
};

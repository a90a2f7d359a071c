/**
 * A simulated text service on loopback, in the common chat-completions shape and in plain text: it streams, counts tokens,
 * answers orders for the demo scripts with replies written by hand, any other order with plain text close to the facts it
 * was given, and on demand behaves badly. Which way, the name of the model or the address says: "stand-in/lost-hedge".
 */
import { readFileSync, readdirSync } from 'node:fs';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tellAlone } from '@ursprung/core/draft';
import { makeTagger, type Tagger } from '@ursprung/core/tagger';

export const BEHAVIOURS = [
  'good',
  'wrong-length',
  'made-up-number',
  'lost-hedge',
  'altered-quote',
  'invented-expert',
  'wrong-name',
  'denied',
  'source-words',
  'obeys',
  'thinks',
  'data',
  'worst',
  'chatter',
  'markdown',
  'other-order',
  'cut-off',
  'repeated',
  'refusal',
  'unauthorised',
  'too-many',
  'broken',
  'slow',
  'silent',
  'huge',
] as const;
export type Behaviour = (typeof BEHAVIOURS)[number];

export interface TextService {
  /** "127.0.0.1:PORT", as the server's setting takes it. */
  host: string;
  /** The address to give: everything before "/chat/completions". */
  url: string;
  /** The address that takes plain text and gives it back; a behaviour goes behind it ("/lost-hedge"). */
  textUrl: string;
  key: string;
  /** Orders it was sent, in order. */
  orders: readonly string[];
  close: () => Promise<void>;
}

/** Anybody who runs the demo may ask it; a wrong key is refused, as a real one would be. */
export const STAND_IN_KEY = 'stand-in';
const LARGEST_ORDER = 1_000_000;
/** A token is about 0.75 word (common practice, no published source). */
const WORDS_A_TOKEN = 0.75;
const tokensOf = (text: string) => Math.ceil(text.split(/\s+/).filter(Boolean).length / WORDS_A_TOKEN);

interface HandLine {
  refs: string[];
  text: string;
}
const FOLDER = new URL('../../standins/data/replies/', import.meta.url);
/** The shipped replies, by the title of the source they were written for. */
function handWritten(): Map<string, HandLine[]> {
  return new Map(
    readdirSync(FOLDER)
      .sort()
      .map((file) => {
        const [title, ...rows] = readFileSync(new URL(file, FOLDER), 'utf8').trim().split('\n');
        const lines = rows.map((row) => {
          const at = row.indexOf(' | ');
          const refs = row.slice(0, at);
          return { refs: refs === '-' ? [] : refs.split(' '), text: row.slice(at + 3) };
        });
        return [title, lines] as const;
      }),
  );
}

interface OrderedSection {
  number: number;
  words: number;
  told: { ref: string; text: string }[];
  more: { ref: string; text: string }[];
}

/** Sections and facts of an order, read from its text as any writer reads it. */
export function sectionsOfOrder(order: string): OrderedSection[] {
  const out: OrderedSection[] = [];
  let offered = false;
  for (const row of order.split('\n')) {
    const head = /^SECTION (\d+) of \d+: .*?, (\d+) words$/.exec(row);
    if (head) {
      out.push({ number: Number(head[1]), words: Number(head[2]), told: [], more: [] });
      offered = false;
    }
    if (/^Only if there is room/.test(row)) offered = true;
    if (/^(?:Said exactly|Their passages|These lines stay|THE REPLY)/.test(row)) offered = true;
    const fact = /^- ([A-L]\d+)(?:, [A-L]\d+)* «(.*)»$/.exec(row);
    const section = out[out.length - 1];
    if (fact && section) (offered ? section.more : section.told).push({ ref: fact[1], text: fact[2] });
  }
  return out;
}

const words = (text: string) => text.split(/\s+/).filter(Boolean).length;

/** The lines written by hand that tell what a section asks for; more of them, where it asks for more words. */
function handReply(section: OrderedSection, lines: readonly HandLine[]): string[] {
  const told = new Set(section.told.map((f) => f.ref));
  const more = new Set(section.more.map((f) => f.ref));
  const fits = (l: HandLine | undefined, refs: ReadonlySet<string>) =>
    l !== undefined && l.refs.some((r) => refs.has(r));
  const chosen = new Set(lines.filter((l) => fits(l, told)));
  const count = () => [...chosen].reduce((n, l) => n + words(l.text), 0);
  for (const l of lines) if (fits(l, more) && count() + words(l.text) <= section.words) chosen.add(l);
  // A line without facts goes between two that are told.
  lines.forEach((l, i) => {
    if (!l.refs.length && lines[i - 1] && chosen.has(lines[i - 1]) && lines[i + 1] && chosen.has(lines[i + 1])) chosen.add(l); // prettier-ignore
  });
  return lines.filter((l) => chosen.has(l)).map((l) => l.text);
}

/** The kind of source that an order is written from, by what it says of who speaks. */
const kindOfOrder = (order: string) =>
  /^- It is one person’s own story/m.test(order) ? 'forum' : /^- Speak to the listener/m.test(order) ? 'howto' : 'news'; // prettier-ignore

let tagger: Tagger | undefined;
/** Facts told by the drafting rules, in short breaths: the stand-in has no words of its own. */
const byRule = (order: string, texts: readonly string[]): string[][] =>
  tellAlone(texts, kindOfOrder(order), 'brisk', (tagger ??= makeTagger())).map((lines, i) =>
    lines.map((line) => clipped(line, texts[i])),
  );

/** A line in fewer words of its source than run on: cut before what only adds to it. */
const MOST_RUN = 7;
const ADDS = new Set('in on at by with for from after before while when where which who because and as over under through during between near to'.split(' ')); // prettier-ignore
function clipped(line: string, source: string): string {
  const bare = (w: string) => w.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
  const [own, theirs] = [line.split(' '), ` ${source.split(/\s+/).map(bare).join(' ')} `];
  const runs = (from: number, to: number) => theirs.includes(` ${own.slice(from, to).map(bare).join(' ')} `);
  const start = own.findIndex((_, i) => i + MOST_RUN < own.length && runs(i, i + MOST_RUN + 1));
  if (start < 0 || /[“”]/.test(line)) return line;
  for (let end = start + MOST_RUN; end > Math.max(3, start + 2); end--)
    if (ADDS.has(bare(own[end] ?? '')))
      return `${own
        .slice(0, end)
        .join(' ')
        .replace(/[,;:]$/, '')}.`;
  return line;
}

/** What the stand-in writes of an order: by hand for the demo, else by the drafting rules, and it says so. */
export function replyTo(order: string): { sections: { number: number; lines: string[] }[]; byHand: boolean } {
  const sections = sectionsOfOrder(order);
  const titles = handWritten();
  const hand = [...titles].find(([, lines]) => {
    const asked = sections.flatMap((s) => s.told.map((f) => f.ref));
    return asked.length > 0 && titleFits(lines, sections);
  });
  const facts = (s: OrderedSection) => [...s.told, ...s.more];
  const told = hand ? [] : byRule(order, sections.flatMap((s) => facts(s).map((f) => f.text))); // prettier-ignore
  return {
    byHand: hand !== undefined,
    sections: sections.map((s) => ({
      number: s.number,
      lines: hand ? handReply(s, hand[1]) : filled(s, facts(s).map((f) => ({ ref: f.ref, lines: told.shift()! }))), // prettier-ignore
    })),
  };
}

/** As many of a section's facts as its words hold, those that must be said before others, told in their order. */
function filled(section: OrderedSection, facts: readonly { ref: string; lines: string[] }[]): string[] {
  let left = section.words;
  const chosen = facts.filter((f, i) => {
    const length = words(f.lines.join(' '));
    const fits = i === 0 || length <= left + 3;
    if (fits) left -= length;
    return fits;
  });
  const at = (ref: string) => Number(ref.slice(1));
  return chosen.sort((a, b) => (a.ref[0] === b.ref[0] ? at(a.ref) - at(b.ref) : 0)).flatMap((f) => f.lines);
}

/** Whether an order is for a source that was written for: its facts share the words of the lines that name them. */
function titleFits(lines: readonly HandLine[], sections: readonly OrderedSection[]): boolean {
  const facts = new Map(
    sections.flatMap((s) => [...s.told, ...s.more].map((f) => [f.ref, f.text.toLowerCase()] as const)),
  );
  const names = lines.flatMap((l) =>
    (l.text.match(/(?<=[a-z,] )\p{Lu}\p{L}+|\b\d[\d,.]*\d\b/gu) ?? []).flatMap((name) =>
      l.refs.map((ref) => ({ name, ref })),
    ),
  );
  const known = names.filter(({ ref }) => facts.has(ref));
  const shared = known.filter(({ name, ref }) => facts.get(ref)!.includes(name.toLowerCase()));
  return known.length > 0 && shared.length / known.length > 0.6;
}

/** A follow-up's rows: the lines that failed and the facts not said, each with what it rests on. */
function againRows(order: string): string[] {
  const rows: { mark: string; ref: string; fact: string }[] = [];
  let mark = '';
  for (const row of order.split('\n')) {
    const line = /^\[(\d+)\] «/.exec(row);
    const unsaid = /^\[([A-L]\d+)\] «(.*)»$/.exec(row);
    const rests = /^ {2}rests on ([A-L]\d+) «(.*)»$/.exec(row);
    if (line) mark = line[1];
    else if (unsaid) rows.push({ mark: unsaid[1], ref: unsaid[1], fact: unsaid[2] });
    else if (rests && mark) {
      rows.push({ mark, ref: rests[1], fact: rests[2] });
      mark = '';
    }
  }
  // Of the sources written for, the one whose lines say what these facts say; else none.
  const written = (lines: readonly HandLine[]) =>
    rows.map(({ ref, fact }) =>
      lines.find((l) => l.refs.includes(ref) && words(l.text) > 3 && sharesWords(l.text, fact)),
    );
  const count = (found: readonly unknown[]) => found.filter(Boolean).length;
  const [best] = [...handWritten().values()].map(written).sort((x, y) => count(y) - count(x));
  const hand = count(best) > rows.length / 2 ? best : [];
  return rows.map((r, i) => `[${r.mark}] ${hand[i]?.text ?? byRule(order, [r.fact])[0].join(' ')}`);
}

/** Whether a line has two of its longer words, or its only one, from a fact. */
function sharesWords(line: string, fact: string): boolean {
  const long = [...new Set(line.toLowerCase().match(/[\p{L}\p{N}]{5,}/gu) ?? [])];
  const inFact = new Set(fact.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);
  return long.filter((w) => inFact.has(w)).length >= Math.min(2, Math.max(1, long.length));
}

/** A section's facts as the order has them. */
const factsOf = (order: string, number: number): string[] =>
  (sectionsOfOrder(order).find((s) => s.number === number)?.told ?? []).map((f) => f.text);

/** One line: what it rests on, told by rule; what claims nothing stays as it stands. */
function lineReply(order: string): string {
  const facts = [...order.matchAll(/^- [A-L]\d+ «(.*)»$/gm)].map((m) => m[1]);
  const [, stands] = /^As it stands: «(.*)»$/m.exec(order) ?? [];
  return facts.length ? byRule(order, facts).flat().join(' ') : (stands ?? '');
}

const CONFESSION =
  '(This is a stand-in for a text service. It has no words of its own: these are the facts of the order, told by rule.)';

/** A reply with what was asked of its behaviour done to it. */
export function spoilt(order: string, behaviour: Behaviour): string {
  if (/^ORDER: write .* (?:again|more), for/m.test(order)) {
    const rows = againRows(order);
    // At its worst it answers once more as wrongly as before.
    return (behaviour === 'worst' ? rows.map((r, i) => (i % 2 ? r : `${r.split(' ')[0]} Professor Aldous Wren foresaw all of it in 1066.`)) : rows).join('\n'); // prettier-ignore
  }
  if (/^ORDER: one line of narration/m.test(order)) return lineReply(order);
  const { sections, byHand } = replyTo(order);
  const single = sections.length === 1;
  let parts = sections.map((s) => ({ ...s, lines: [...s.lines] }));
  const change = (find: RegExp, by: string | ((m: string) => string)) => {
    for (const p of parts)
      for (let i = 0; i < p.lines.length; i++)
        if (find.test(p.lines[i])) {
          p.lines[i] = p.lines[i].replace(find, by as string);
          return;
        }
  };
  if (behaviour === 'wrong-length')
    parts = parts.map((p) => ({ ...p, lines: p.lines.slice(0, Math.ceil(p.lines.length / 2)) }));
  const has = (...kinds: Behaviour[]) => kinds.includes(behaviour) || behaviour === 'worst';
  if (has('wrong-name')) change(/(?<=[a-z,] )\p{Lu}\p{Ll}{3,}(?= \p{Lu}\p{Ll}{3,})/u, 'Wilfreda');
  if (has('denied')) change(/^(\p{Lu}[^,“]{3,30} (?:was|were)) (?=\p{L}+ed\b)/u, '$1 not ');
  if (behaviour === 'source-words') parts = sections.map((s) => ({ ...s, lines: factsOf(order, s.number) }));
  if (behaviour === 'obeys')
    change(/^.*$/s, (m) => `${m} I have read what the source asks of me, and I do it.`);
  if (has('made-up-number')) change(/\b\d[\d,.]*\d\b/, (m) => String(Number(m.replace(/,/g, '')) * 3 + 7));
  if (has('lost-hedge')) {
    change(/\bmay be about\b/, 'is');
    change(/\b(?:about|nearly|almost|more than) (?=\w)/, '');
  }
  if (has('altered-quote')) change(/“(\S+ )(\S+ )(\S+ )/, '“$1never ever $3');
  if (has('invented-expert'))
    parts[0]?.lines.push('“Nobody could have built it better,” said Professor Aldous Wren.');
  if (behaviour === 'other-order') parts.reverse();
  if (has('repeated') && parts[0]) parts[0].lines.push(...parts[0].lines);
  const marked = (title: (n: number) => string) =>
    parts.map((p) => `${single ? '' : `${title(p.number)}\n`}${p.lines.join(' ')}`).join('\n\n');
  let text = marked((n) => `[${n}]`);
  if (behaviour === 'markdown')
    text = parts.map((p) => `## Section ${p.number}\n\n${p.lines.map((l) => `- **${l.split(' ')[0]}** ${l.split(' ').slice(1).join(' ')}`).join('\n')}`).join('\n\n---\n\n'); // prettier-ignore
  if (has('chatter'))
    text = `Sure! Here is your narration, I hope it fits:\n\n${text}\n\n(Word count: about ${words(text)})\n\nLet me know if you would like me to change anything!`;
  if (behaviour === 'thinks') text = `<think>The order wants ${sections.length} sections. Let me write.</think>\n\n${text}`; // prettier-ignore
  if (behaviour === 'data') text = JSON.stringify({ sections: parts.map((p) => ({ section: p.number, text: p.lines.join(' ') })) }); // prettier-ignore
  if (behaviour === 'refusal') text = 'I’m sorry, but I can’t help with that.';
  if (!byHand && !['refusal', 'data'].includes(behaviour)) text = `${CONFESSION}\n\n${text}`;
  return text;
}

/** Starts the service on a free port of 127.0.0.1. `paceMs`: between two pieces of a stream. */
export function startTextService({ paceMs = 12 }: { paceMs?: number } = {}): Promise<TextService> {
  const orders: string[] = [];
  const server = createServer((req, res) => void answer(req, res, orders, paceMs).catch(() => res.destroy()));
  return new Promise((resolve) =>
    server.listen(0, '127.0.0.1', () => {
      const host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
      resolve({
        host,
        url: `http://${host}/v1`,
        textUrl: `http://${host}/text`,
        key: STAND_IN_KEY,
        orders,
        close: () =>
          new Promise((done) => {
            server.closeAllConnections();
            server.close(() => done());
          }),
      });
    }),
  );
}

const json = (res: ServerResponse, status: number, body: unknown, headers: Record<string, string> = {}) =>
  res.writeHead(status, { 'content-type': 'application/json', ...headers }).end(JSON.stringify(body));
const refusal = (res: ServerResponse, status: number, message: string, headers?: Record<string, string>) =>
  json(res, status, { error: { message, type: 'error', code: status } }, headers);

async function bodyOf(req: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of req as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > LARGEST_ORDER) throw new Error('too large');
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}

interface Asked {
  model?: string;
  messages?: { role?: string; content?: string }[];
  stream?: boolean;
}

/** How often each order was refused for now: the second time it is answered. */
const refusedOnce = new Map<string, number>();

async function answer(
  req: IncomingMessage,
  res: ServerResponse,
  orders: string[],
  paceMs: number,
): Promise<void> {
  const [, plain] = /^\/text((?:\/[\w-]+)?)$/.exec(req.url ?? '') ?? [];
  if (req.method !== 'POST' || (plain === undefined && !/\/chat\/completions$/.test(req.url ?? '')))
    return void refusal(res, 404, 'No such address.');
  const raw = await bodyOf(req);
  if (req.headers.authorization !== `Bearer ${STAND_IN_KEY}`)
    return void refusal(res, 401, 'This key is not known here.');
  let asked: Asked = {};
  if (plain === undefined)
    try {
      asked = JSON.parse(raw) as Asked;
    } catch {
      return void refusal(res, 400, 'The request is no JSON.');
    }
  const order = plain === undefined ? (asked.messages ?? []).map((m) => m.content ?? '').join('\n\n') : raw;
  orders.push(order);
  const named = (plain ?? asked.model ?? 'stand-in').split('/')[1] ?? 'good';
  const behaviour = BEHAVIOURS.find((b) => b === named) ?? 'good';
  if (behaviour === 'unauthorised') return void refusal(res, 401, 'This key is not known here.');
  if (behaviour === 'broken') return void refusal(res, 500, 'Something broke.');
  if (behaviour === 'too-many') {
    const before = refusedOnce.get(order) ?? 0;
    refusedOnce.set(order, before + 1);
    if (before === 0) return void refusal(res, 429, 'Too many requests.', { 'retry-after': '1' });
  }
  if (behaviour === 'silent') return;
  const text =
    behaviour === 'huge'
      ? `${spoilt(order, 'good')}\n\n${'And it went on. '.repeat(330_000)}`
      : spoilt(order, behaviour);
  const usage = { prompt_tokens: tokensOf(order), completion_tokens: tokensOf(text), total_tokens: tokensOf(order) + tokensOf(text) }; // prettier-ignore
  if (plain === undefined && !asked.stream)
    return void json(res, 200, { choices: [{ index: 0, message: { role: 'assistant', content: text }, finish_reason: 'stop' }], usage }); // prettier-ignore
  res.writeHead(200, {
    'content-type': plain === undefined ? 'text/event-stream' : 'text/plain; charset=utf-8',
  });
  const send = (data: unknown) =>
    res.write(`data: ${typeof data === 'string' ? data : JSON.stringify(data)}\n\n`);
  const pieces =
    text.length > 100_000 ? (text.match(/[\s\S]{1,16384}/g) ?? []) : (text.match(/\s*\S+/g) ?? []);
  const wait = behaviour === 'slow' ? Math.max(paceMs, 150) : text.length > 100_000 ? 0 : paceMs;
  for (const [i, content] of pieces.entries()) {
    if (res.destroyed) return;
    if (behaviour === 'cut-off' && i > pieces.length / 2) return void res.destroy();
    if (plain === undefined) send({ choices: [{ index: 0, delta: { content } }] });
    else res.write(content);
    if (wait) await new Promise((r) => setTimeout(r, wait));
  }
  if (plain !== undefined) return void res.end();
  send({ choices: [{ index: 0, delta: {}, finish_reason: 'stop' }] });
  send({ choices: [], usage });
  send('[DONE]');
  res.end();
}

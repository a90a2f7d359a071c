/**
 * Fetching a page that somebody gave the address of. Only http and https, only public addresses (checked again at every
 * hop and on the address that is really connected to, so that neither a redirect nor a name that answers differently the
 * second time gets inside), with limits on size, time and type, and robots.txt (RFC 9309) respected.
 */
import { lookup as dnsLookup } from 'node:dns';
import { BlockList, isIP } from 'node:net';
import ipaddr from 'ipaddr.js';
import robotsParser from 'robots-parser';
import { Agent, buildConnector, request, type Dispatcher } from 'undici';
import { LARGEST_FILE } from '@ursprung/core/source';
import { ApiError } from './errors.ts';

export const READER_NAME = 'UrsprungReader';
const MOST_HOPS = 5;
const LARGEST_ROBOTS = 500 * 1024;
const TYPES =
  /^(?:text\/|application\/(?:xhtml\+xml|xml|json|ld\+json|pdf|rss\+xml|atom\+xml|epub\+zip|rtf|x-bibtex|x-research-info-systems|vnd\.citationstyles\.csl\+json|vnd\.openxmlformats-officedocument\.wordprocessingml\.document|vnd\.oasis\.opendocument\.text|octet-stream)|message\/rfc822|multipart\/related)/i;

export interface LinkSettings {
  /** "host:port" pairs that may be fetched though they are not public: the stand-in news desk. */
  allow?: readonly string[];
  /** For the whole fetch, hops and robots.txt included, in milliseconds. */
  withinMs?: number;
  largest?: number;
}

export interface Fetched {
  bytes: Uint8Array;
  /** Where it was found in the end. */
  address: string;
}

const refused = (message: string) => new ApiError('link-refused', `${message} Paste the text instead.`);

/** What is not the open internet: IANA's registries of special-purpose addresses (RFC 6890 and its updates), multicast (RFC 5771), and what carries an IPv4 address inside (6to4, Teredo). */
const SPECIAL_4 = ['0.0.0.0/8', '10.0.0.0/8', '100.64.0.0/10', '127.0.0.0/8', '169.254.0.0/16', '172.16.0.0/12', '192.0.0.0/24', '192.0.2.0/24', '192.31.196.0/24', '192.52.193.0/24', '192.88.99.0/24', '192.168.0.0/16', '192.175.48.0/24', '198.18.0.0/15', '198.51.100.0/24', '203.0.113.0/24', '224.0.0.0/4', '240.0.0.0/4']; // prettier-ignore
const SPECIAL_6 = ['2001::/23', '2001:db8::/32', '2002::/16', '2620:4f:8000::/48', '3fff::/20']; // prettier-ignore
/** All that is given out as the open internet of version 6 (RFC 4291, section 2.4); everything else is something else. */
const OPEN_6 = '2000::/3';

const [special, open] = [new BlockList(), new BlockList()];
for (const [list, ranges, family] of [
  [special, SPECIAL_4, 'ipv4'],
  [special, SPECIAL_6, 'ipv6'],
  [open, [OPEN_6], 'ipv6'],
] as const)
  for (const range of ranges) {
    const [net, bits] = range.split('/');
    list.addSubnet(net, Number(bits), family);
  }

/** Whether an IP address belongs to the open internet. One of version 4 written as version 6 is what it stands for. */
export function isPublic(address: string): boolean {
  if (!ipaddr.isValid(address)) return false;
  const parsed = ipaddr.process(address);
  const plain = parsed.toString();
  return parsed.kind() === 'ipv4'
    ? !special.check(plain, 'ipv4')
    : open.check(plain, 'ipv6') && !special.check(plain, 'ipv6');
}

/** A connection that refuses any address that is not public, at the moment it connects. `allow`: hosts inside the network, each on its own port only. */
export function guardedAgent(
  allow: ReadonlySet<string>,
  waits: { headersTimeout: number; bodyTimeout: number } = { headersTimeout: 10_000, bodyTimeout: 10_000 },
): Agent {
  const connectors = [true, false].map((inside) =>
    buildConnector({
      timeout: 8000,
      lookup: (hostname, options, callback) =>
        dnsLookup(hostname, { ...options, all: true }, (error, addresses) => {
          if (error) return callback(error, '', 4);
          if (!inside && addresses.some((a) => !isPublic(a.address)))
            return callback(Object.assign(new Error('inside'), { code: 'INSIDE' }), '', 4);
          if ((options as { all?: boolean }).all)
            return (callback as unknown as (e: null, a: typeof addresses) => void)(null, addresses);
          callback(null, addresses[0].address, addresses[0].family);
        }),
    }),
  );
  return new Agent({
    connect: (options, callback) => {
      const port = options.port || (options.protocol === 'https:' ? '443' : '80');
      const inside = allow.has(`${options.hostname}:${port}`);
      connectors[inside ? 0 : 1](options, callback);
    },
    ...waits,
  });
}

/** The page behind an address. Throws ApiError 'link-refused' with one reason in words. */
export async function fetchLink(address: string, settings: LinkSettings = {}): Promise<Fetched> {
  const allow = new Set(settings.allow ?? []);
  const agent = guardedAgent(allow);
  const signal = AbortSignal.timeout(settings.withinMs ?? 25_000);
  try {
    let url = checked(address, allow);
    for (let hop = 0; hop <= MOST_HOPS; hop++) {
      if (!(await mayRead(url, agent, signal)))
        throw refused('That site asks not to be read by programs (robots.txt).');
      const answer = await get(url, agent, signal);
      const { statusCode, headers, body } = answer;
      if (statusCode >= 300 && statusCode < 400 && headers.location) {
        await body.dump();
        let next: URL;
        try {
          next = new URL(String(headers.location), url);
        } catch {
          throw refused('That page sends its readers to an address that is none.');
        }
        url = checked(next.href, allow);
        continue;
      }
      return { bytes: await taken(answer, settings.largest ?? LARGEST_FILE), address: url.href };
    }
    throw refused('That page sends its readers on again and again.');
  } catch (error) {
    throw described(error);
  } finally {
    await agent.destroy().catch(() => undefined);
  }
}

/** The address as one that may be asked, or the reason why not. */
export function checked(address: string, allow: ReadonlySet<string>): URL {
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    throw refused('That is no address that can be read.');
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:')
    throw refused('Only pages on http and https are read.');
  if (url.username || url.password) throw refused('An address with a name and password in it is not read.');
  const host = url.hostname.replace(/^\[|\]$/g, '');
  // A literal address is never looked up, so it is checked here.
  if (isIP(host) && !isPublic(host) && !allow.has(url.host))
    throw refused('That address is inside a private network and is not read.');
  if (/(?:^|\.)(?:localhost|local|internal|lan|home|corp)$/i.test(host) && !allow.has(url.host))
    throw refused('That address is inside a private network and is not read.');
  return url;
}

const get = (url: URL, agent: Agent, signal: AbortSignal): Promise<Dispatcher.ResponseData> =>
  request(url, {
    dispatcher: agent,
    signal,
    headers: {
      'user-agent': `${READER_NAME}/1`,
      accept: 'text/html,application/xhtml+xml,application/pdf,*/*;q=0.5',
      'accept-encoding': 'identity',
    },
  });

async function mayRead(url: URL, agent: Agent, signal: AbortSignal): Promise<boolean> {
  const file = new URL('/robots.txt', url);
  const { statusCode, body } = await get(file, agent, signal);
  // RFC 9309: no file, or one that may not be seen, allows all; a server in trouble forbids for now.
  if (statusCode >= 500) throw refused('That site is in trouble and says nothing of what may be read.');
  if (statusCode !== 200) {
    await body.dump();
    return true;
  }
  const rules = new TextDecoder().decode(await limited(body, LARGEST_ROBOTS, false));
  return robotsParser(file.href, rules).isAllowed(url.href, READER_NAME) !== false;
}

const STATUS: Readonly<Record<number, string>> = {
  204: 'That address answers with nothing.',
  401: 'That page wants a name and password.',
  402: 'That page wants to be paid.',
  403: 'That site does not let programs read this page.',
  404: 'There is no page at that address.',
  410: 'That page was taken down.',
  429: 'That site is asked too often; try again later.',
  451: 'That page may not be shown for legal reasons.',
};

async function taken(
  { statusCode, headers, body }: Dispatcher.ResponseData,
  largest: number,
): Promise<Uint8Array> {
  if (statusCode !== 200) {
    await body.dump();
    throw refused(
      STATUS[statusCode] ??
        (statusCode >= 500
          ? `That site is in trouble (it answers ${statusCode}).`
          : `That site answers ${statusCode} instead of the page.`),
    );
  }
  const type = String(headers['content-type'] ?? 'text/html');
  if (!TYPES.test(type)) {
    await body.dump();
    throw refused(`That address holds ${type.split(';')[0].slice(0, 40)}, no text.`);
  }
  if (Number(headers['content-length'] ?? 0) > largest) {
    await body.dump();
    throw tooLarge(largest);
  }
  const bytes = await limited(body, largest, true);
  if (!bytes.length) throw refused('That address answers with nothing.');
  return bytes;
}

const tooLarge = (largest: number) => refused(`That page has more than ${Math.round(largest / 1048576)} MB.`);

/** The body up to a size; what is longer is refused, or cut when it need not be whole. */
async function limited(body: AsyncIterable<Buffer>, largest: number, whole: boolean): Promise<Uint8Array> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of body) {
    size += chunk.length;
    if (size > largest) {
      if (whole) throw tooLarge(largest);
      break;
    }
    chunks.push(chunk);
  }
  return new Uint8Array(Buffer.concat(chunks));
}

function described(error: unknown): Error {
  if (error instanceof ApiError) return error;
  const { name, code, cause } = error as { name?: string; code?: string; cause?: { code?: string } };
  const why = code ?? cause?.code ?? '';
  if (why === 'INSIDE') return refused('That address leads inside a private network and is not read.');
  if (name === 'TimeoutError' || name === 'AbortError' || /TIMEOUT/.test(why))
    return refused('That site took too long to answer.');
  if (why === 'ENOTFOUND' || why === 'EAI_AGAIN') return refused('There is no site of that name.');
  if (/CERT|SSL|TLS/.test(why)) return refused('That site can’t prove that it is who it says.');
  return refused('That site can’t be reached.');
}

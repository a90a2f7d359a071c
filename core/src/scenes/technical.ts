/**
 * Words of computing that are borrowed from things: in a film about software a package is no parcel and a root no root of a
 * tree. There they are shown by what one sees of a computer; elsewhere they mean what they say.
 */
/** Words that tell that a text is about software. */
const SIGNS =
  /\b(?:software|computers?|install(?:s|ed|ing|ation)?|files?|filenames?|filesystems?|director(?:y|ies)|commands?|users?|usernames?|passwords?|servers?|networks?|networking|configur\w+|kernels?|packages?|programs?|programming|source code|browsers?|internet|websites?|databases?|encodings?|scripts?|boot(?:s|ed|ing)?|disks?|protocols?|operating systems?|Unix|Linux|GNU|hackers?|compilers?|algorithms?)\b/gi;
const LEAST_SIGNS = 5;
const LEAST_SHARE = 0.015;

/** Whether a text is about software: several of its words, and often. */
export function isTechnical(texts: readonly string[]): boolean {
  const text = texts.join(' ');
  const signs = text.match(SIGNS) ?? [];
  const words = text.split(/\s+/).length;
  return (
    new Set(signs.map((s) => s.toLowerCase())).size >= LEAST_SIGNS && signs.length >= words * LEAST_SHARE
  );
}

const SCREEN = 'lines of text on a screen';
const COMMAND = 'command line on a screen';
const RACKS = 'server racks';
const CABLES = 'network cables';
const HANDS = 'hands at a keyboard';
/** What a word is shown by, and what a search for it would bring; null where it brings nothing by itself. */
const BORROWED: Readonly<Record<string, readonly [picture: string, would: string | null]>> = {
  package: [SCREEN, 'a parcel'], environment: [COMMAND, 'a landscape'], locale: [SCREEN, 'a place'], console: [COMMAND, 'a game console'],
  root: [COMMAND, 'roots of a tree'], shell: [COMMAND, 'a sea shell'], tool: [COMMAND, 'a hand tool'], utility: [COMMAND, null], port: [CABLES, 'a harbour'],
  host: [RACKS, 'a host at a table'], kernel: [SCREEN, 'a seed'], tree: [SCREEN, 'a tree'], branch: [SCREEN, 'a branch of a tree'], fork: [SCREEN, 'a fork for eating'],
  thread: [SCREEN, 'sewing thread'], pipe: [COMMAND, 'a water pipe'], socket: [CABLES, 'a wall socket'], bus: ['circuit board', 'a city bus'], cloud: [RACKS, 'clouds'],
  container: [RACKS, 'a shipping container'], client: [HANDS, 'a customer'], daemon: [RACKS, 'a demon'], driver: [SCREEN, 'a driver at the wheel'], mirror: [RACKS, 'a mirror'],
  node: [RACKS, null], patch: [SCREEN, 'a patch of cloth'], session: [HANDS, null], stack: [SCREEN, 'a stack of things'], string: [SCREEN, 'a piece of string'],
  table: [SCREEN, 'a table'], token: [SCREEN, 'a token'], volume: ['hard disk', 'a book'], wizard: [SCREEN, 'a wizard'], image: [SCREEN, 'a picture'],
  interface: [SCREEN, null], library: [SCREEN, 'a library'], archive: [SCREEN, 'an archive'], partition: ['hard disk', 'a partition wall'], cache: ['circuit board', null],
  buffer: ['circuit board', null], bridge: [CABLES, 'a bridge'], tunnel: [CABLES, 'a tunnel'], firewall: [RACKS, 'a wall of fire'], gateway: [RACKS, 'a gateway'],
  worm: [SCREEN, 'a worm'], virus: [SCREEN, 'a virus under a microscope'], bug: [SCREEN, 'an insect'], window: ['open windows on a screen', 'a window in a house'],
  character: [SCREEN, 'a film character'], exchange: [CABLES, 'a stock exchange'], installation: [HANDS, 'an art installation'], setting: [SCREEN, 'a film set'],
  file: ['list of files on a screen', null], directory: ['list of files on a screen', null], folder: ['list of files on a screen', 'a paper folder'], command: [COMMAND, null],
  server: [RACKS, null], network: [CABLES, 'a net'], user: [HANDS, null], program: [SCREEN, null], software: [SCREEN, null], code: [SCREEN, null], system: [HANDS, null],
  password: ['password field on a screen', null], encoding: [SCREEN, null], script: [SCREEN, 'a film script'], memory: ['circuit board', null], field: [SCREEN, 'a field of grass'],
  record: [SCREEN, 'a record'], key: [HANDS, 'a door key'], menu: [SCREEN, 'a menu in a restaurant'], mouse: [HANDS, null], platform: [RACKS, 'a railway platform'], monitor: ['computer monitor', null],
}; // prettier-ignore

/** How a word of computing is shown in a film about software, and what a search for it would bring instead. */
export const borrowed = (lemma: string): { picture: string; would: string | null } | null => {
  const known = Object.hasOwn(BORROWED, lemma) ? BORROWED[lemma] : undefined;
  return known ? { picture: known[0], would: known[1] } : null;
};

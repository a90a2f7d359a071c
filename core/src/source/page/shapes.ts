/** Shapes that words on pages have: times, days, addresses, separators. Patterns of form, not of subject. */

const MONTH = '(?:Jan(?:uary)?|Feb(?:ruary)?|Mar(?:ch)?|Apr(?:il)?|May|June?|July?|Aug(?:ust)?|Sep(?:t(?:ember)?)?|Oct(?:ober)?|Nov(?:ember)?|Dec(?:ember)?)'; // prettier-ignore
const DAY_OF_MONTH = '\\d{1,2}(?:st|nd|rd|th)?';
/** A day with its year, or a day and month; also as C's asctime writes it ("Jun  4 10:22:31 UTC 2007"). */
export const DAY = new RegExp(
  `\\b(?:${MONTH}\\s{1,2}\\d{1,2}\\s\\d{2}:\\d{2}:\\d{2}\\s(?:[A-Z]{3,4}\\s)?\\d{4}|${DAY_OF_MONTH}\\s(?:of\\s)?${MONTH}\\.?(?:,?\\s\\d{4})?|${MONTH}\\.?\\s${DAY_OF_MONTH}(?:,?\\s\\d{4})?|${MONTH}\\.?,?\\s(?:\\d{4}|['’]\\d{2})|\\d{4}-\\d{2}-\\d{2}|\\d{1,2}[/.]\\d{1,2}[/.]\\d{2,4}|\\d{1,2}-\\d{1,2}-\\d{4})(?:\\b|(?=T\\d{2}))`,
  'i',
);
export const CLOCK =
  /\b\d{1,2}[:.]\d{2}(?:[:.]\d{2})?\s?(?:[ap]\.?m\.?|GMT|UTC|BST|CET|h)?(?![\d\p{L}])|\b\d{1,2}\s?[ap]\.?m\b/iu;
const UNIT_AGO = 's|m|h|d|w|mo|y|yr|sec(?:ond)?s?|min(?:ute)?s?|hrs?|hours?|days?|weeks?|months?|years?';
/** "2h ago", "3 days ago", "yesterday at", "just now". */
export const AGO = new RegExp(
  `\\b(?:\\d+|an?|one|two|three|last)\\s?(?:${UNIT_AGO})\\.?\\s(?:ago|old)\\b|\\byesterday(?:,? at)?\\b|\\bjust now\\b`,
  'i',
);
const UNIT = `${UNIT_AGO}|yrs|wks?|mths?`;
const AGE_AT_END = new RegExp(`(?:^|[\\s|·•,–—-])\\d{1,3}\\s?(?:${UNIT})\\.?:?$`, 'i');
const AGE_BETWEEN = new RegExp(`(?:^|[|·•,–—-]\\s*)\\d{1,3}\\s?(?:${UNIT})\\s*[|·•,–—-]`, 'i');
/** Before a name of one or two words, and nothing else. */
const AGE_BEFORE = new RegExp(
  `^\\d{1,3}\\s?(?:${UNIT})\\s(?!(?:read|watch|listen|left|later|before|after|away|walk|drive|old)\\b)(?=\\S+(?:\\s\\S+)?$)(?!.*[.!?]$)`,
  'i',
);
/** Before what can be done with a post ("3d Like Reply 41"). */
const AGE_OVER_ACTIONS = new RegExp(`^\\d{1,3}\\s?(?:${UNIT})\\s(?=(?:like|reply|react|share)\\b)`, 'i');
/** "Working time: 2 hrs" says how long, not how long ago. */
const LABELLED_SPAN = new RegExp(`^[\\p{L} ]{2,30}:\\s\\d{1,3}\\s?(?:${UNIT})\\.?$`, 'iu');
const AGES = [AGE_BETWEEN, AGE_AT_END, AGE_BEFORE, AGE_OVER_ACTIONS];
/** "20h", "3 hrs" alone, at either end of a row, or set apart in it: how long ago, without saying "ago". */
export const tellsAge = (text: string) =>
  text.length <= 60 && !LABELLED_SPAN.test(text) && AGES.some((age) => age.test(text));
export const withoutAge = (text: string) => AGES.reduce((rest, age) => rest.replace(age, ' '), text).trim();
export const ADDRESS =
  /https?:\/\/|\b(?:ftp|mailto|news|tel|urn|doi):(?=[\p{L}\d])|\bwww\.|\b[\w.+-]{1,64}@[\w-]{1,64}\.\w+|(?:^|\s)[@#]\p{L}[\w-]{2,}|\b[\w-]{1,63}\.(?:com|org|net|example|io|co\.uk|info)\b|\b[a-z\d-]{2,63}\.[a-z]{2,6}\/[\w-]+/iu;
export const TELEPHONE = /(?:\+\d{1,3}[\s-]?)?\(?\b0\d{2,5}\)?[\s-]\d{3,4}[\s-]?\d{3,4}\b/;
/** Signs that part things set in a row. */
export const PARTED = /[|·•»›→▸►◄«‹–—/:>](?=\s)|::/g;

/** "Posted: Thu May 30, 2013 8:14 pm   Post subject: …": fields in a row, the first of them a time. */
const FIELDS =
  /^(?:posted|sent|written|added|submitted)(?: on)?:\s[^:]{0,24}\d[^:]{0,12}:\d{2}(?:\s?[ap]m)?\s+\p{L}+(?:\s\p{L}+)?:/iu;

/** A stamp: a row of few words whose business is to say when. A sentence with a date in it is none. */
export function isStamp(text: string): boolean {
  if (text.length < 300 && FIELDS.test(text) && DAY.test(text.slice(0, 60))) return true;
  if (text.length > 110) return false;
  const clocked = CLOCK.test(text);
  if (!AGO.test(text) && !DAY.test(text)) return false;
  const rest = withoutTimes(text).match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
  if (/^(?:last\s)?(?:edited|modified|updated)\b/i.test(text)) return rest <= 14;
  if (/[.!?]["'”’]?$/.test(text) && rest > 2) return false;
  return rest <= (clocked || AGO.test(text) ? 14 : 5);
}

/** How much of a text is nothing but time. */
export function withoutTimes(text: string): string {
  return text
    .replace(new RegExp(DAY.source, 'gi'), ' ')
    .replace(new RegExp(CLOCK.source, 'giu'), ' ')
    .replace(new RegExp(AGO.source, 'gi'), ' ')
    .replace(/\b(?:Mon|Tues?|Wed(?:nes)?|Thu(?:rs)?|Fri|Sat(?:ur)?|Sun)(?:day)?\b,?/gi, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}

/** Who made a picture, at the end of what is said under it. */
export const CREDIT =
  /\s*[([]?(?:photo(?:graph)?s?|pictures?|images?|illustrations?|drawings?|credits?|video|graphics?|map)\s?(?:credits?|courtesy(?: of)?|by)?\s?[:/|©].*$|\s*[([]?(?:photo(?:graph)?|picture|image|illustration|drawing) (?:by|courtesy of|©).*$|\s*©.*$/i;

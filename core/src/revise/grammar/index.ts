/** Notes whose words no pattern holds: read clause by clause, by act and roles, everything else left over. All wishes are read, or none. */
import { bareNote } from '../bare.ts';
import { QUOTED, asksFor, partsOf } from '../plainly.ts';
import type { Request, ReviseContext, Scope } from '../types.ts';
import { actOf, actsIn, readAct, restBeside, together, wish, type ActId, type Read } from './acts.ts';
import { MASK, maskAt, rolesOf, type Quote } from './roles.ts';

/** Where one clause ends and another may begin: not between the members of a list. */
const JOINTS = new RegExp(
  `\\s*,\\s+(?!(?:and\\s+|or\\s+)?(?:the\\s+)?(?:\\d|${MASK}|one\\b|two\\b|three\\b|four\\b|five\\b|six\\b|seven\\b|eight\\b|nine\\b|ten\\b))(?:and\\s+|but\\s+|then\\s+|so\\s+)*|\\s+(?:and|but|then)\\s+(?=(?:then |also |please |maybe |perhaps |could |can |let |if |once |after that |don['’]t )|(?:lock|unlock|move|put|cut|drop|delete|remove|lose|leave|keep|make|give|add|split|join|merge|swap|change|replace|call|rename|trim|shorten|close|end|open|start|take|bring|stop|pause|wait|skip|say|write|use|round|tell|get|kill)\\b)|\\s+[-–—]+\\s+|:\\s+|\\?\\s+`,
  'giu',
);
/** What must stay as it is: a wish about nothing that changes. */
const STAYS = /\b(?:stays?|keep|same words|untouched|unchanged|as (?:it|they|she|he) (?:is|are)|only there|other \p{L}+ as they are|leave \S+(?: just| exactly)? as|nothing else)\b/iu; // prettier-ignore
/** What it is about was said before. */
const POINTS = /\b(?:it|that|this|them|those|these|both)\b/i;
/** "…, and one after": another pause at the same place. */
const ONE_MORE = /^(?:and )?(?:one|another|the same) (?:more )?(after|before)(?: (?:it|that))?$/i;
/** "do not round it": holds back, and asks for nothing. */
const REFUSES = /^(?:but |and )?(?:please )?(?:do not|don['’]t|never) /i;
/** "…, to cut on": what it is for. */
const PURPOSE = /^(?:to|so (?:that )?(?:i|we|they|it)|for) /i;
/** "is that a section of its own?" */
const WONDERS = /^(?:is|are|was|were|do|does|did|isn['’]t|why|who|how come|how am) /i;
/** "we'd be grateful if", and the second "if" of such a sentence. */
const HOPES =
  /\b(?:grateful|glad|happy|nice|great|good|lovely|helpful|wonderful|better|appreciate it|appreciated|love it|like it) if\b|(?<=\b(?:grateful|glad|happy|nice|great|good|lovely|helpful|wonderful|better|appreciate it|appreciated|love it|like it) if\b.*,? and )if\b/gi;
/** What makes a wish depend on something; not the courtesy "if possible". */
const DEPENDS = /\b(?:if|unless|only when|in case|provided)\b(?! (?:possible|you can|you could|you like|you don['’]t mind|that works|that['’]s|it works|it['’]s|ok|okay)\b)/i; // prettier-ignore

/** Whether the script writes a word in capitals among words that it doesn't. */
const isAcronym = (word: string, { sections }: ReviseContext) =>
  sections.some((s) => s.lines.some((l) => new RegExp(`(?<![\\p{L}\\p{N}])${word}(?![\\p{L}\\p{N}])`, 'u').test(l.text) && /\p{Ll}{3}/u.test(l.text))); // prettier-ignore

export type NoteRead = { requests: Request[] } | { unknown: string } | null;

/** Figures that a note says must not change: those of its sentences that say so. */
const keptIn = (note: string): string[] =>
  note
    .split(/(?<=[.;!?])\s+|, (?=while|but)/)
    .filter(
      (s) =>
        /\b(?:do not|don['’]t|not|stays?|keep|exact(?:ly)?|as (?:it|they) (?:is|are))\b/i.test(s) &&
        !/\b(?:no|without) decimals?\b/i.test(s),
    )
    .flatMap((s) => s.match(/\d[\d.,:]*\d|\d/g) ?? []);

/** "say OIHC in full, it's Outer Isles Harbour Commission": an acronym, and words of the note that begin with its letters. */
function inFull(note: string, context: ReviseContext): Request[] | null {
  if (
    !/\b(?:(?:write|spell|say|read|give) (?:it |that |this |\p{Lu}+ )?(?:out|in full)|in full|full name|stands? for|means)\b/iu.test(
      note,
    )
  )
    return null;
  for (const [word] of note.matchAll(/(?<![\p{L}\p{N}])\p{Lu}{2,6}(?![\p{L}\p{N}])/gu)) {
    if (
      !isAcronym(word, context) &&
      !context.sections.some((s) => s.lines.some((l) => l.text.includes(word)))
    )
      continue;
    const words = [...word].map((c) => `${c}[\\p{L}’'-]*`).join('(?: (?:of|the|and|for|in))? ');
    const full = new RegExp(`(?<![\\p{L}])${words}(?![\\p{L}])`, 'iu').exec(note.replace(word, ''))?.[0];
    if (full) return [wish('replace-text', context, { text: word, by: full })];
  }
  return null;
}

export function readNote(note: string, context: ReviseContext): NoteRead {
  const requests: Request[] = [];
  const kept = keptIn(note);
  let said: Quote | null = null;
  const full = inFull(note, context);
  if (full) return { requests: full };
  let before: Scope | null = null;
  for (const part of partsOf(note)) {
    const quoted: string[] = [];
    const mask = (words: string) => maskAt(quoted.push(words) - 1);
    // Words in capitals that the script has are quoted, in effect.
    const masked = part
      .replace(/\s*(?:\.{2,}|…)\s*/g, ' ')
      .replace(HOPES, 'please')
      .replace(QUOTED, (q) => mask(q.slice(1, -1).replace(/[.,]$/, '')))
      .replace(/(?<![\p{L}\p{N}'’-])\p{Lu}{2,}(?![\p{L}\p{N}-])/gu, (w) =>
        isAcronym(w, context) ? mask(w) : w,
      );
    if (DEPENDS.test(masked)) return null;
    const clauses = masked.split(JOINTS).map((c) => bareNote(c)).filter(Boolean); // prettier-ignore
    let open: string[] = [];
    let asked = false;
    let last: ActId | null = null;
    const tryRead = (text: string): Read => {
      const roles = rolesOf(text, quoted, before, context);
      for (const act of actsIn(text)) {
        const read = readAct(act, { roles, context, before, kept, said });
        if (!read) continue;
        if (Array.isArray(read)) {
          const { scope } = read.at(-1)!;
          before = scope.type === 'whole' ? (roles.places[0]?.scope ?? before) : scope;
          last = act;
        }
        return read;
      }
      return null;
    };
    // "…, leave more air": the same once more, with nothing of its own.
    const again = (clause: string) => {
      const { places, quotes, amounts } = rolesOf(clause, quoted, null, context);
      return (
        last !== null && actsIn(clause).includes(last) && !places.length && !quotes.length && !amounts.length
      );
    };
    for (let i = 0; i < clauses.length; i++) {
      const clause = clauses[i];
      if (
        STAYS.test(clause) &&
        (requests.length || clauses.length > 1) &&
        actsIn(clause).every((a) => a === 'lock')
      )
        continue;
      const other = ONE_MORE.exec(clause)?.[1];
      if (other && before && requests.at(-1)?.operation.id.startsWith('rest')) {
        requests.push(restBeside(other.toLowerCase() === 'before' ? 'before' : 'after', before, context));
        asked = true;
        continue;
      }
      // Why it is wished, or what somebody only asks.
      if (PURPOSE.test(clause) && requests.length) continue;
      if (REFUSES.test(clause) && !actsIn(clause).includes('lock')) {
        asked = true;
        continue;
      }
      const wanted = actOf(clause) !== null && !WONDERS.test(clause);
      if (!wanted) {
        open.push(clause);
        continue;
      }
      // What it doesn't name itself stands in a clause beside it.
      const beside = clauses[i + 1] && actOf(clauses[i + 1]) === null ? clauses[i + 1] : null;
      const joined = open.length ? [`${open.join(', ')}, ${clause}`] : [];
      // A place beside it is where it is wished, unless it names one itself.
      const placed = () => {
        const [own, other] = [clause, open.join(', ')].map((text) => rolesOf(text, quoted, before, context));
        return !own!.places.length && Boolean(other!.places.length || other!.missing);
      };
      // "…, by 4 seconds": how much, behind its comma.
      const amount = (text: string) => rolesOf(text, quoted, before, context).amounts.length > 0;
      const measured = beside && amount(beside) && !amount(clause) ? [`${clause}, ${beside}`] : [];
      const tries = [...measured, ...(joined.length && (POINTS.test(clause) || placed()) ? [...joined, clause] : [clause, ...joined]), ...(beside ? [`${clause}, ${beside}`] : [])]; // prettier-ignore
      if (again(clause)) continue;
      let read: Read = null;
      for (const text of tries) {
        read = tryRead(text);
        if (read) break;
      }
      // A clause that asks for nothing may have the words of a place.
      if (read && 'unknown' in read && !asksFor(clause)) read = null;
      if (read && 'unknown' in read) return read;
      if (!read) {
        // A clause that only gives a reason may have the words of an act.
        if (!asksFor(clause)) {
          open.push(clause);
          continue;
        }
        return null;
      }
      requests.push(
        ...read.filter(
          (r) =>
            !requests.some(
              (q) =>
                q.operation === r.operation &&
                q.scope.says === r.scope.says &&
                JSON.stringify(q.slots) === JSON.stringify(r.slots),
            ),
        ),
      );
      asked = true;
      open = [];
    }
    // "The same for whatever is like it": a wish of which nobody knows what it takes in.
    if (!asked && /\b(?:same|likewise|also|too)\b/i.test(masked) && !STAYS.test(masked)) return null;
    if (!asked && asksFor(part) && !(STAYS.test(masked) && requests.length)) return null;
    if (!asked) {
      const { places, amounts, quotes } = rolesOf(masked, quoted, before, context);
      said = quotes.find((q) => q.said) ?? null;
      // "A second each": how long what was wished before is to be.
      if (amounts.length && !places.length)
        for (const [i, r] of requests.entries())
          if (/^rest/.test(r.operation.id) && !r.amount)
            requests[i] = {
              ...r,
              amount: amounts[0]!.amount,
              slots: { ...r.slots, amount: masked.slice(amounts[0]!.start, amounts[0]!.end) },
            };
      if (places.length) before = together(places, context);
    }
  }
  return requests.length ? { requests } : null;
}

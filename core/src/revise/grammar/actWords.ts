/** The words in which each change is asked for: verbs of WordNet (`verbs.ts`), nouns and adjectives that people use of scripts. */
import { MASK } from './roles.ts';
import { verbs } from './verbs.ts';

export type ActId = 'undo' | 'unlock' | 'lock' | 'pause' | 'title' | 'merge' | 'split' | 'swap' | 'replace' | 'length' | 'move' | 'remove' | 'question' | 'names' | 'restore' | 'round' | 'figures' | 'simple' | 'spelling' | 'short forms' | 'tense' | 'person' | 'end at' | 'twice' | 'units' | 'slower' | 'active' | 'soften' | 'references' | 'labels' | 'say so'; // prettier-ignore

export const act = (source: string) => new RegExp(source, 'iu');
const ONE = '(?:just )?(?:one|a single)';
export const UNIT = '(?:nautical miles?|kilomet(?:re|er)s?|kms?|met(?:re|er)s?|cent?imet(?:re|er)s?|millimet(?:re|er)s?|miles?|feet|foot|yards?|inch(?:es)?|kilos?|kilograms?|kg|grams?|ounces?|tonnes?|tons?|lit(?:re|er)s?|gallons?|pints?|hectares?|acres?)'; // prettier-ignore
const WHOLE_ROLE = '(?:cold open|opener|hook|opening line|closer|closing line|(?:very )?(?:first|last|final) (?:line|thing|sentence|words?))'; // prettier-ignore
/** Verbs that ask for a cut of some of a part as often as for its end. */
const EITHER = ['cut', 'lose', 'chop'];

/** What a place does, or is done to it, so that it stands elsewhere. */
const MOVED = `\\b(?:${verbs(['move'])}|comes?|goes?|belongs?|stands?|sits?|open(?:s|ing)? (?:with|on)|starts? (?:with|on|it)|begin(?:s|ning)? (?:with|on)|leads? with|end(?:s|ing)? (?:with|on)|clos(?:e|es|ing) (?:with|on)|finish(?:es|ing)? (?:with|on)|first|last)\\b|\\b(?:as|make|be(?:come)?)\\b.* ${WHOLE_ROLE}(?=$|[,.])`;
const PLACED =
  '\\b(?:at the (?:very )?(?:start|end|top|beginning|bottom)|up top|before|after|earlier|later)\\b';

/** By the first that is found. What is named by a noun (a pause, a title) is asked for whatever verb stands with it. */
const ACTS: readonly (readonly [ActId, RegExp])[] = [
  ['undo', act(`\\b(?:${verbs(['undo'])}|take (?:it|that) back|(?:as|like) it was(?: before)?$)`)],
  ['say so', act('\\b(?:say|mention|state) (?:so|that|this)(?: (?:just )?once)?(?=$|[,.;]| (?:near|at|in|right|up|before|after|early)\\b)')],
  ['unlock', act('\\b(?:un(?:lock|freeze)(?:ed)?)\\b')],
  ['lock', act('(?<!\\b(?:the|a|an|that|this|his|her|its|their|our|your|my) )\\b(?:lock(?:ed)?(?: down)?|freeze|frozen|hands off|(?:do not|don[\'’]t|nobody|never|not to be) (?:touch|change|alter|edit)(?:e[sd]|s)?|nothing (?:\\S+ ){0,5}?(?:may|must|should|can|is to|will) (?:change|be (?:changed|touched|altered))|(?:signed off|final(?:ised)?)(?: now)?$)\\b')],
  ['pause', act('(?<!\\b(?:after|before|behind|at|in|of|during) the )(?:\\b(?:pauses?|beats?|silences?|(?<!\\b(?:one|single|same) )breath(?:er)?s?|gaps?|dead air)\\b|(?<!\\bthe )\\brests?\\b)|\\b(?:sec(?:ond)?s?|moment) of (?:nothing|quiet|air|silence|black|room|space|rest)\\b|\\b(?:leave|give|add|allow|put) (?:\\S+ ){0,4}?(?:secs?|seconds?|\\ds|moment)(?: \\S+)? (?:after|before|between|behind)\\b|\\b(?:wait|hold|breathe|stop) (?:for )?(?:an?|one|two|\\d+s?)\\b|\\b(?:breathe|wait|pause|linger|hang|hold|stay) (?:right |just |a (?:bit|moment|second|beat) )?(?:after|before|between|there)\\b|\\b(?:let|allow|give) (?:\\S+ ){1,8}?(?:(?:to )?(?:land|sink in|settle|breathe|hang|ring out)|room|space|air|a moment)\\b|\\b(?:\\d+(?:[.,]\\d+)?|an?|one|two|three|half a) ?(?:s|secs?|seconds?|moments?)\\b(?: \\S+){0,3}? (?:after|before|between|behind|following)\\b')],
  ['references', act('\\b(?:foot-?notes?|references|citations?|bibliograph(?:y|ies)|works cited|(?:reading|source) list)\\b')],
  ['labels', act('\\b(?:captions|labels|kickers|head(?:er|line)s|(?:everything|anything|whatever|lines?) (?:that|which)[’\']?(?:s| is| are|re)? (?:not|no|isn[’\']t|aren[’\']t) (?:an? |real |proper |complete |whole )*sentences?)\\b')],
  ['title', act(`\\b(?:titles?|headings?|headline|${verbs(['rename'], ['title', 'entitle'])}|call (?:it|this|that|the (?:section|part|script|video|film|episode))|(?:should|could) be called|name (?:of )?the (?:section|part))\\b`)],
  ['restore', act(`\\b(?:restore|${verbs(['restore'])}|(?:original|source|paper)(?:['’]s)? (?:own )?(?:wording|words|phrasing|text)|as (?:the source|the paper|the article) (?:has|says|puts) it)\\b`)],
  ['question', act('\\bquestion\\b')],
  ['round', act(`(?<!\\b(?:turn|turned|change|way) (?:(?:it|that|this|them) )?(?:a)?)\\bround(?:ed|er)?\\b(?! (?:off )?the (?:script|film))|\\bdecimals?\\b|\\b${verbs(['round'])}\\b`)],
  ['figures', act('\\b(?:figures|numbers|digits|numerals)\\b.*\\b(?:words|figures|digits|numerals)\\b|\\b(?:in|as|into) words\\b')],
  ['units', act(`\\b(?:in|into|to|as|use|using|give|say|want|no|not|than|of) (?:the )?(?:${UNIT}|metric|imperial)\\b|\\b(?:metric|imperial) (?:units?|system|measures?|figures)\\b|\\bconvert\\b`)],
  ['spelling', act('\\b(?:british|american|us|uk) (?:english|spelling)')],
  ['short forms', act('\\bcontractions?\\b')],
  ['tense', act('\\b(?:present|past)\\b(?= tense|$|[,.;])|\\btense\\b.*\\b(?:present|past)\\b|\\b(?:no|never|not|historic|simple) (?:the )?(?:past|present)\\b|\\b(?:present|past)-tense\\b|\\b(?:in|into|to|use|using|keep|all) (?:it |the |simple |historic )*(?:present|past)\\b(?! \\p{L}+(?:s|years?|weeks?)\\b)')],
  ['active', act('\\bactive(?: voice)?\\b|\\bturn (?:it|that|this) (?:a)?round\\b|\\bpassives?\\b')],
  ['person', act('\\b(?:first|second|third) person\\b|(?<![\\p{L}\\p{N}])[“"]?(?:i|we|you|he|she|they)[”"]? (?:to|into|instead of|rather than|not) [“"]?(?:i|we|you|he|she|they)\\b')],
  ['simple', act(`\\b(?:${verbs(['simplify'])}|simple(?:r)?|easier|plainer|plain (?:words|english)|(?:difficult|hard|fancy|big|complicated) words|(?:kids?|child(?:ren)?|pupils?|graders?|(?:year[- ]olds?)|lay ?(?:person|people)|beginners?|non-experts?|everyone|everybody|anyone|grandm\\p{L}+) (?:can |could |would |should |to |will |also )*(?:understands?|follows?|gets?)|for (?:children|kids|beginners|lay ?(?:people|men)|(?:\\p{L}+[- ]){1,2}year[- ]olds?))\\b`)],
  ['soften', act(`\\b(?:${verbs(['soften'])}|softer|milder|less (?:strong|harsh|colou?rful|dramatic|salesy|hyped?)|toned down)\\b`)],
  ['end at', act('\\b(?:end|stop|finish)s? (?:right |just )?(?:before|after)\\b')],
  ['slower', act('\\b(?:slower|slow(?:ed)? down|more slowly|less (?:fast|quick(?:ly)?|rushed)|too (?:fast|quick)|\\d{2,3} ?(?:wpm|words (?:a|per) minute)|faster|quicker|speed(?:ier)?|(?:more|extra|a (?:bit|little) more) (?:room|air|space|breathing space)|room to breathe)\\b')],
  ['merge', act(`\\b(?:${verbs(['merge'], ['mix', 'link', 'connect', 'compound'])}|(?:in|into|as|make) ${ONE} (?:sentence|line|section|part|paragraph)|(?:be|become) (?:just )?(?:one|a single|the same)(?: (?:sentence|line|section|part|paragraph))?(?=$|[,.?!;])|(?:be|become) (?:just )?(?:one|a single|the same) (?:sentence|line|section|part|paragraph)|part of the (?:one|section|part|next|previous)|belongs? (?:together|with)|(?:put|run|pull|bring) (?:\\S+ ){0,4}together|(?<=^|, )${ONE} (?:sentence|line|section|part|paragraph)$)(?=$|[^\\p{L}])`)],
  ['split', act(`\\b(?:${verbs(['split'])}|break (?:it |this |that |the )?(?:up|in|into|after|at|before|\\S+ (?:in|up|into))|(?:in|into|as|make|makes|be|become|to|^)(?: it| that| this)? ?\\b(?:two|three) (?:separate )?(?:sentences|lines|sections|parts|paragraphs)|in two|(?:a |its |their )(?:own|new|separate) (?:section|paragraph|part)|new (?:sentence|section|part|paragraph|line)|full stop (?:after|before|at|from|with))\\b`)],
  ['swap', act(`\\b(?:${verbs(['swap'], ['trade', 'flip'])}|trade places|(?:the )?other way (?:a)?round|change (?:the )?(?:places?|positions?|order))\\b`)],
  ['names', act('\\b(?:anonymi[sz]e[d]?|change(?: the| any| real)* names?|(?:do not|don[\'’]t|never|not) (?:be )?named?|(?:hide|no|without|leave out|drop|remove|cut|take out) (?:\\S+ ){0,4}?(?:sur|first |last |full |real )?names?|nameless|unnamed)\\b')],
  ['replace', act(`\\b(?:${verbs(['replace'], ['right'])}|change[d]?|instead of|rather than|in place of|(?:should|must|ought to|has to|needs to) (?:read|say|be)|say|write|use|read|(?:make|turn) (?:it|that|this|${MASK}) (?:in)?to\\b|['’]d rather|would (?:rather|prefer)|(?:put|prefer|have) ${MASK}|make ${MASK}[^.]*${MASK})|\\b(?:would|could|might|may|how about|what about|maybe|perhaps|better|try) ${MASK}|->|→|=>|${MASK} ?(?:for|not|=) ?${MASK}`)],
  ['remove', act(`\\b${verbs(['remove'], EITHER)}\\b|^no(?: more)? (?=\\S)|\\bnothing (?:more )?(?:after|before|behind)\\b`)],
  ['length', act(`\\b(?:${verbs(['shorten', 'lengthen'], EITHER)}|short(?:er|en|ened)|long(?:er)?(?! ago)|tighter|half (?:as long|(?:of )?(?:the (?:length|time|words)|it|that))|too long|drags?|at (?:the )?most|no (?:more|longer) than|max(?:imum)?|tops|under|(?:cut|chop) (?:it |this |that |the \\S+ )?(?:down|back|to|by)|(?:less|more) (?:time|room|air|seconds))\\b|(?:\\b|\\d)(?:seconds?|secs?|s) (?:off|less|more)\\b`)],
  ['twice', act('\\b(?:twice|two times?|repeats?|repeated|repetitions?)\\b')],
  ['move', act(`${MOVED}|${PLACED}`)],
  ['remove', act(`\\b(?:${verbs(['remove'])}|take[n]? (?:\\S+ ){0,4}?off|without|(?:don['’]t|do not|doesn['’]t|not) need(?:ed)?|no need|unnecessary|superfluous|redundant|not (?:useful|necessary|needed)|gone|nope|can go|has to go|must go|should go|needs to go|go away|goes)\\b|(?<!\\brun |\\bof )\\b(?:out|away)$|\\bmake .* (?:disappear|vanish)\\b`)],
]; // prettier-ignore

/** The acts whose words stand in a clause, the likeliest first. */
export const actsIn = (text: string): ActId[] => [
  ...new Set(ACTS.filter(([, r]) => r.test(text)).map(([id]) => id)),
];

export const MOVES = act(`${MOVED}|\\b(?:hear|told|tell|be)\\b`);
export const NEGATES = act(`\\b(?:no|not|none|without|fewer|never|don['’]t|${verbs(['remove'])})\\b`);
export const CUTS = act(`\\b${verbs(['remove'])}\\b|\\b(?:no|without|out|gone|off)\\b`);
export const FASTER = /\b(?:faster|quicker|speed (?:it |this |that |everything )?up)\b/i;
/** Acts that are about the whole where they name no place. */
export const PLACELESS: ReadonlySet<ActId> = new Set([
  'say so',
  'replace',
  'undo',
  'soften',
  'spelling',
  'person',
  'names',
  'references',
  'labels',
]);

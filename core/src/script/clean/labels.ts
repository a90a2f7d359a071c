/** Labels that drafts put before a colon, and names of their parts: who speaks, what is seen or heard, what is about the draft. Common practice, no published source. */

/** "VO - …" is a label like "VO: …" when it is in capitals. */
const DASHED =
  /^(\s*\**)(VO|V\.O\.|NARRATOR|NARRATION|HOST|AUDIO|VISUALS?|VIDEO|SFX|FX|MUSIC|SOUND|ON[- ]SCREEN(?: TEXT)?|TEXT|GRAPHICS?|B-ROLL|CAMERA)\s+[-–—]\s+(?=\S)/;

/** A row without marks of layout around its words. */
export const bare = (row: string) =>
  row
    .replace(DASHED, '$1$2: ')
    .replace(/^\s*(?:>\s?)+/, '')
    .replace(/^\s*(?:[-*•–]|\d{1,2}[.)])\s+(?=\*{0,2}[\p{L}[(])/u, '')
    .replace(/^\s*([*_])([^*_:]{1,30}:)\1\s*/, '$2 ')
    .replace(/^\s*([*_])(?=[^\s*_])(.*[^\s*_])\1\s*$/, '$2')
    .replace(/\*\*|__|^[\s\p{Extended_Pictographic}\uFE0F\u200D]+/gu, '')
    .trim();
/** A row of marks that parts what is above from what is below. */
export const isRule = (row: string): boolean =>
  /^\s*(?:[-*_=~—.#]\s*){3,}$/.test(row) || /^\s*`{3,}/.test(row);

export const NARRATOR =
  /^((?:main |lead |tag )?(?:narrator|narration|narr?\.?|ann(?:n?cr?|ouncer)|voice(?: ?[\dA-Z])?|on[- ]?cam(?:era)?|(?:piece )?to camera|ptc|stand-?up|reporter|correspondent|speaker notes?|voice[- ]?over(?: script)?|v\.?\/?o\.?|host|presenter|speaker(?: ?[\dA-Z])?|anchor|audio|spoken(?: text)?|script|dialogue|say|read|copy))(?:\s*[([][^)\]]{0,60}[)\]])?\s*:\s*((?:\S.*)?)$/i;
/** Whether a row begins with a narrator's label. */
export const isNarratorLabel = (row: string): boolean => NARRATOR.test(bare(row));
export const PICTURE =
  /^(?:suggested |possible |key |opening |closing |background |on[- ]?screen )?(?:visuals?|show|seen|video|pictures?|images?|photos?|on[- ]?screen(?: text| graphic)?|b[- ]?roll|footage|stock footage|music(?: (?:cue|bed|track|style|mood|idea|throughout|under|out|up|fades?))?|sounds?(?: effects?| design| bed| throughout)?|sfx|vfx|fx|graphics?|animations?|text(?: overlay| on screen)?|overlay|captions?|subtitles?|lower third|transitions?|camera(?: angle| movement)?|shots?|shot list|angle|scene(?: description)?|action|prompts?|image prompt|ai prompt|thumbnail(?: text| idea)?|editing|editor(?:['’]s)? notes?|(?:copy |sub-?|video )?editor|producer|director|client|reviewer|legal|fact[- ]?check(?:er|ing)?|notes? (?:to|for) [\p{L} ]{1,20}|alt(?:ernat(?:e|ive))?(?: (?:line|hook|ending|take|version))?|clips?|grabs?|archive audio|sot|nats?(?: sot)?|(?:sound ?)?bites?|actualit(?:y|ies)|up ?sound|super|cg|gfx|locator|slate|in ?cue|out ?cue|for the [a-z]+(?: [a-z]+)?|to the [a-z]+|director['’]?s? notes?|production notes?|stage directions?|ambience|ambient|mood music|props?|end (?:card|screen)|title card|credits|chyron)\s*(?:#?\d+\s*)?(?:[([][^)\]]{0,60}[)\]]\s*)?[:：]\s*((?:\S.*)?)$/iu;
export const isPictureLabel = (row: string): boolean => PICTURE.test(bare(row));
export const BRIEF =
  /^(?:cast|pron(?:unciations?|ounced?)?|talent|voice talent|word count|words|read(?:ing)? time|target audience|audience|tone(?: of voice)?|style|mood|format|genre|logline|setting|characters?|pacing|pace|voice style|language|platform|niche|(?:(?:video|upload|seo|search|channel|yt) )?(?:keywords?|tags?|hash ?tags?|description)|pinned(?: comment)?|end ?screen|blurb|video title|title options?|alternative titles?|call to action type|aspect ratio|frame|version|rev(?:ision)?|draft|author|writer|written by|credit|source|sources|date|draft date|contact|copyright|client|project|episode|goal|objective|hook type|theme|(?:fact[- ]?check(?:ing)?|script|pronunciation|voice|delivery|casting|timing|legal) notes?|job (?:no\.?|number)|pick-?ups?|sign-?off)\s*[:：]\s*((?:\S.*)?)$/i;
export const SECTION_WORD =
  /^(?:cold open|teaser|hook|intro(?:duction)?|opening|outro|conclusion|body|main(?: (?:body|content|part|section))?|middle|start|closing|close|ending|call to action|cta|summary|recap|epilogue|prologue|climax|resolution|setup|background|payoff|transition|bridge|sponsor(?: segment)?|thumbnail|title card|credits|the end|end|fin)(?:\s*(?:#?\d+|[IVX]+))?\s*[:.]?$/i;
/** The name of a part and a colon, with words behind it. */
export const SECTION_LABEL =
  /^(?:\d{1,2}[.)]\s*)?((?:cold open|teaser|hook|intro(?:duction)?|opening|outro|conclusion|body|main (?:body|content|part|points?|section)|middle|closing|ending|call to action|cta|recap|epilogue|prologue|climax|resolution|setup|set-up|payoff|twist|reveal|turn|problem|solution|build(?:-?up)?|segment|section|part|point|act|scene)(?:\s*#?(?:\d{1,2}|[IVX]{1,4}|[A-E](?=\s*:)))?)(?:\s*[([][^)\]]{0,30}[)\]])?\s*(?::|\s[–—-])\s+(\S.*[.!?…]["”’)]?)$/i;
/** "Scene 2 – The gate: …" */
export const NAMED_PART =
  /^(?:scene|section|part|chapter|segment|act|beat|point|slide|clip)\s*#?(?:\d{1,3}|[IVX]{1,5})\s*[–—-]\s*([^:.!?]{2,50}):\s+(\S.*[.!?…]["”’)]?)$/i;
export const STRONG_LABEL = /^(?:cold open|teaser|hook|intro|outro|cta|call to action)\b/i;
export const NUMBERED_HEAD =
  /^(?:scene|section|part|chapter|segment|act|beat|point|slide|paragraph|block|clip|page)\s*(?:#\s*)?(?:\d{1,3}|[IVXLC]{1,5}|one|two|three|four|five|six|seven|eight|nine|ten)\b\s*(?:[:.–—|-]\s*((?:\S.*)?))?$/i;
export const TITLE = /^(?:(?:working |video |episode )?title|headline)\s*[:：]\s*(\S.*)$/i;
export const TRANSITION =
  /^(?:(?:slow|quick|hard|smash|match|jump) )?(?:cut|fade|dissolve|crossfade|wipe)s?(?:\s+(?:to|in|out|into))?(?:\s+(?:black|white))?\s*:\s*((?:\S.*)?)$/i;
export const NO_SPEAKER =
  /^(?:step|tip|number|no|rule|fact|reason|question|answer|warning|note|remember|result|lesson|point|and|but|so|or|the|one|two|three|first|second|third|finally|because|today|now|then|here|this|that|it|plus|bonus|myth|truth|spoiler|ps|fun fact|in|at|on|for|think|imagine|problem|solution|pros?|cons?|before|after|day|week|year|meaning|moral)\b/i;
/** Whether a row begins with a label of any kind. */
export const isLabelled = (row: string): boolean =>
  [NARRATOR, PICTURE, BRIEF, TRANSITION].some((label) => label.test(bare(row)));

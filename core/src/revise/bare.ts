/** A note without what is only polite. */

const POLITE =
  /^(?:(?:ok(?:ay)?|hey|hi|so|well|also|and|then|now|maybe|perhaps|hmm+)[,:]?\s+)*(?:(?:please|pls|plz|kindly)(?: to)?\s+)?(?:(?:can|could|would|will|might|may) (?:you|we|i)(?: please| kindly| possibly| perhaps)*(?: just)?(?: (?:consider|mind|be so (?:kind|good) as to|try to)(?: just)?)?\s+|(?:would|is|might) it (?:be )?(?:at all )?possible (?:for (?:you|us) )?to (?:have )?|(?:i(?: was|[’']m)?|we(?: were|[’']re|[’']d been)?|i had been) wonder(?:ed|ing)? (?:if|whether) (?:(?:we|you|i) (?:could|might|can) )?|(?:how|what) about (?:we )?|why (?:not|don[’']t we)\s+|i (?:think|feel|guess|suppose|believe)(?: that)?\s+|i(?:[’']d| would) (?:like|prefer|love)(?: (?:you )?to| it if you(?:[’']d)?)?\s+|i (?:want|need)(?: you)?(?: to)?\s+|let[’']s\s+|we (?:should|need to|could|must)\s+|you (?:should|could|can)\s+|(?:please )?make sure (?:to|that)\s+|try to\s+|just\s+|simply\s+|go ahead and\s+)*(?:please\s+)?/i;
/** What is only polite or unsure, wherever it stands. */
export const COURTESIES =
  "pls|plz|thx|thanks|thank you|many thanks|cheers|ta|kindly|perhaps|possibly|maybe|if possible|if you can|if you could|if i may|if that[’']?s (?:ok|okay|alright|all right|possible|not too much (?:trouble|work))|(?:i|we) (?:must|have to|should|can|will) (?:admit|say|confess|add)(?: that)?|to be honest|tbh|lol|imo|imho";
const TAIL = new RegExp(`(?:,?\\s+(?:please|${COURTESIES}|for me|a bit please|ok\\??))*[.!?\\s]*$`, 'i');

/** A note without the courtesies around it. */
export const bareNote = (note: string): string =>
  note.replace(/[‘’]/g, '’').replace(/\s+/g, ' ').trim().replace(POLITE, '').replace(TAIL, '').trim();

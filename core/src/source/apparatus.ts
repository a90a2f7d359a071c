/** Headings of what stands behind an article and is no part of it (usual in encyclopedias and journals; common practice). */
export const APPARATUS =
  /^(?:references?|notes?(?: and references)?|external links?|further reading|see also|bibliography|sources?|footnotes|citations?|acknowledge?ments?|related (?:articles|topics|stories|links|posts)|comments?(?: \(\d+\))?|leave a (?:reply|comment)|read more|you (?:might|may) also like|categories|tags)\s*:?$|^(?:more (?:on|from|in) |share this)/i;

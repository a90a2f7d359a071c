/** Headings of what stands behind an article and is no part of it (usual in encyclopedias and journals; common practice). */
export const APPARATUS =
  /^(?:references?|notes?(?: and references)?|external links?|further reading|see also|bibliography|sources?|footnotes|citations?|acknowledge?ments?|related (?:articles|topics|stories|links|posts)|comments?(?: \(\d+\))?|leave a (?:reply|comment)|read more|more (?:on|from|in) .*|you (?:might|may) also like|categories|tags|share this.*)\s*:?$/i;

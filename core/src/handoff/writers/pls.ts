/** Pronunciation Lexicon Specification 1.0 (W3C): a lexeme for each name and hard word. */
import type { Writer } from '../writer.ts';
import { xmlRoot, xmlString, xmlText } from '../xml.ts';

export const pls: Writer = {
  id: 'pls',
  name: 'Pronunciation lexicon',
  says: 'PLS: how names and hard words are said, in IPA or by other words',
  loses: 'everything but the words it explains',
  extension: 'pls',
  mime: 'application/pls+xml',
  for: ['voice'],
  write: ({ sayings, language }) => {
    const root = xmlRoot();
    const lexicon = root.ele('http://www.w3.org/2005/01/pronunciation-lexicon', 'lexicon', {
      version: '1.0',
      alphabet: 'ipa',
      'xml:lang': language,
    });
    for (const s of sayings) {
      const lexeme = lexicon.ele('lexeme');
      lexeme.ele('grapheme').txt(xmlText(s.word));
      if (s.ipa) lexeme.ele('phoneme').txt(xmlText(s.ipa));
      else lexeme.ele('alias').txt(xmlText(s.respelled));
    }
    return xmlString(root);
  },
};

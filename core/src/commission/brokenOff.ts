/** What came of an answer that broke off: in the middle of a sentence it has no last sentence. */
export const wholeSentences = (text: string): string => text.replace(/[^.!?…”"’)\]]*$/, '');

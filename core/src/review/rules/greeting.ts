import { at, type Rule } from '../rule.ts';

const GREETING =
  /^(?:(?:hi|hello|hey|greetings|welcome|good (?:morning|evening|afternoon))\b[^.!?]*|what[’']s up\b[^.!?]*|(?:in|on) (?:this|today[’']s) (?:video|episode|film)\b[^.!?]*|today,? (?:we|i)(?:[’']re| are|[’']m| am|[’']ll| will)? (?:going to|gonna|talk|look|explor|dive|learn|discuss|cover)[^.!?]*|my name is\b[^.!?]*|before we (?:start|begin|get started|dive)[^.!?]*|don[’']t forget to (?:like|subscribe)[^.!?]*|(?:please )?(?:like and subscribe|smash|hit) [^.!?]*|let[’']s (?:get started|dive (?:right )?in(?:to it)?|get (?:right )?into it|jump (?:right )?in(?:to it)?|begin)[^.!?]*)[.!?]?$/i;
export const isGreeting = (text: string): boolean => GREETING.test(text.trim());
const OPENING_MS = 20_000;

export const greeting: Rule = {
  id: 'greeting',
  area: 'language',
  name: 'Greeting',
  cost: { each: 3, most: 6 },
  script: ({ lines }) =>
    lines
      .filter((l) => !l.fixed && l.startMs < OPENING_MS && isGreeting(l.text))
      .map((l) => ({
        ...at(
          l,
          0,
          l.text.length,
          `The opening spends ${(l.ms / 1000).toFixed(1)} s on a greeting; the listener came for the story.`,
          {
            says: 'Leave it out',
            safe: !l.locked && lines.length > 1,
            edits: [{ line: l.id, remove: true }],
          },
        ),
        line: l.id,
      })),
};

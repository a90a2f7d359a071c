/** One invented sentence, as it stands and as each mood tells it: what an order shows of a mood. It is in no source. */
import type { Mood } from '../script/file.ts';

export const AS_IT_STANDS =
  'The ferry, which had crossed the sound since 1931, was taken out of service in March after its boiler was found to be cracked, to the regret of the cook.';

export const IN_MOOD: Readonly<Record<Mood, string>> = {
  calm: 'Since 1931 the ferry had crossed the sound. In March it stopped. Its boiler was cracked.',
  brisk: 'Then, in March, the boiler cracked. The ferry stopped.',
  warm: 'The cook was sorry. Since 1931 there had always been a ferry, and in March it didn’t come.',
  dry: 'In service: since 1931. Out of service: March. One boiler, cracked.',
  grave: 'The ferry had crossed the sound since 1931. In March its boiler was found to be cracked. It did not cross again.',
  light: 'The ferry had been crossing since 1931, and nobody thought to ask the boiler. The cook took it hardest.',
  suspense: 'In March the ferry didn’t come. It always came. Something was wrong below.',
  playful: 'What stops a ferry that hasn’t stopped since 1931? A crack. Ask the cook.',
}; // prettier-ignore

import { at, type Rule } from '../rule.ts';

const SAYS =
  /\b(?:sa(?:id|ys?|ying)|told|tells?|wrote|writes?|written|asked?|asks|answer(?:ed|s)|called|calls|named|word|words|read|reads|according|replied|shouted|whispered|cried|put it|recall(?:ed|s)|explain(?:ed|s)|add(?:ed|s)|warn(?:ed|s)|insist(?:ed|s)|admit(?:ted|s)|remember(?:ed|s)|describ(?:ed|es)|sign|note|letter|headline|motto|entry|line|heard|thought|known as|sentence|question|phrase|quote)\b/i;
const LEAST_WORDS = 2;

export const unheardQuote: Rule = {
  id: 'unheard-quote',
  area: 'speech',
  name: 'A quote the ear can’t hear',
  cost: { each: 0.8, most: 5 },
  script: ({ lines }) =>
    lines.flatMap((line, i) =>
      line.quotes.flatMap(([start, end]) => {
        const inside = line.text.slice(start, end);
        const whole = start === 0 && end >= line.text.length - 1;
        const around = line.text.slice(0, start) + line.text.slice(end);
        const near = `${lines[i - 1]?.text ?? ''} ${lines[i + 1]?.text ?? ''}`;
        if (inside.split(/\s+/).length < LEAST_WORDS || SAYS.test(around)) return [];
        // Quotes that follow one another are one speech; its speaker was named before it.
        if (whole && (SAYS.test(near) || (lines[i - 1]?.quotes.length ?? 0) > 0)) return [];
        if (/[:—–]\s*$/.test(line.text.slice(0, start)) || /:$/.test(lines[i - 1]?.text ?? '')) return [];
        return [
          {
            ...at(
              line,
              start,
              end,
              'Nothing says that somebody else’s words begin here: an ear hears no quotation marks.',
            ),
            line: line.id,
          },
        ];
      }),
    ),
};

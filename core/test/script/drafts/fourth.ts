/** A fourth set of labelled drafts, made after the rules had been mended for the third. All invented. */
export const FOURTH: readonly (readonly [string, string, string])[] = [
  [
    'a brief in bold, then the words',
    `**Tone:** dry
**Duration:** 30 seconds

A lock keeper in Marrowgate counted boats for forty years.

He never told anyone how many.`,
    `A lock keeper in Marrowgate counted boats for forty years.

He never told anyone how many.`,
  ],
  [
    'a table without a header',
    `| 0:00 | a ledger | He wrote every boat down. |
| 0:04 | a fire | Then the ledger burned. |`,
    `He wrote every boat down.

Then the ledger burned.`,
  ],
  [
    'narrator in lower case',
    `narrator: He wrote every boat down.
visual: a ledger
narrator: Then the ledger burned.`,
    `He wrote every boat down. Then the ledger burned.`,
  ],
  [
    'part headings in words',
    `Part One
He wrote every boat down.

Part Two
Then the ledger burned.`,
    `He wrote every boat down.

Then the ledger burned.`,
  ],
  [
    'a parenthesis that is a whole spoken sentence',
    `He wrote every boat down. (It took him forty years.)
(Nobody had asked him to.)`,
    `He wrote every boat down. (It took him forty years.) (Nobody had asked him to.)`,
  ],
  [
    'times with dashes before each row',
    `0:00 – 0:05 | He wrote every boat down.
0:05 – 0:09 | Then the ledger burned.`,
    `He wrote every boat down. Then the ledger burned.`,
  ],
  [
    'closing remark about length',
    `He wrote every boat down.

Then the ledger burned.

This script is about 12 words and should run roughly 5 seconds.`,
    `He wrote every boat down.

Then the ledger burned.`,
  ],
  [
    'cut and fade lines',
    `FADE IN:
He wrote every boat down.
SMASH CUT TO: the fire
Then the ledger burned.
Fade to black.`,
    `He wrote every boat down. Then the ledger burned.`,
  ],
  [
    'captions with a position setting',
    `WEBVTT

00:01.000 --> 00:03.000 line:80% align:start
He wrote every boat down.

00:03.200 --> 00:05.000
(page turning)
Then the ledger burned.`,
    `He wrote every boat down. Then the ledger burned.`,
  ],
  [
    'dialogue with names in bold',
    `**Ada:** Who counts the boats?
**Vane:** I do.
**Ada:** And who counts you?`,
    `Who counts the boats?

I do.

And who counts you?`,
  ],
  [
    'pause marks with slashes and dots',
    `He counted... and counted. <pause> Then he stopped.`,
    `He counted... and counted. Then he stopped.`,
  ],
  [
    'quoted title and hook labels',
    `Video title: "The Man Who Counted Boats"
Hook:
Who counts boats?

Main:
A man in Marrowgate did.`,
    `Who counts boats?

A man in Marrowgate did.`,
  ],
  [
    'a spoken scene',
    `Scene of the crime: a lock, a lamp, a ledger.
The sound: nothing at all.`,
    `Scene of the crime: a lock, a lamp, a ledger. The sound: nothing at all.`,
  ],
  [
    'a list of spoken steps',
    `1. Cut the paint.
2. Push with both hands.
3. Stop if it cracks.`,
    `Cut the paint. Push with both hands. Stop if it cracks.`,
  ],
  ['hashtags in speech', `They called it #nine, like a lock.`, `They called it #nine, like a lock.`],
  [
    'emphasis inside a label row',
    `VO: It was *his* ledger. [beat] And it *burned*.`,
    `It was his ledger. And it burned.`,
  ],
  [
    'source list at the end',
    `It burned in a night.

Sources:
- Marrowgate Record, 1931
- Lock book, volume 4`,
    `It burned in a night.`,
  ],
  [
    'on-screen captions before the words',
    `ON SCREEN: 1931
It burned in a night.
ON SCREEN: 1932
And nobody had a copy.`,
    `It burned in a night. And nobody had a copy.`,
  ],
  [
    'two speakers in a screenplay with a shot',
    `INT. LOCK HOUSE - NIGHT

CLOSE ON a lamp.

VANE
I had them all.

INSERT - THE LEDGER

ADA
(reading)
Nine thousand and four.`,
    `I had them all.

Nine thousand and four.`,
  ],
  [
    'a word count in the heading',
    `## The fire (64 words)
It burned in a night.

## The copy [0:20]
There was one.`,
    `It burned in a night.

There was one.`,
  ],
];

/** A sixth set of labelled drafts, made after the rules had been mended for the fifth. All invented. */
export const SIXTH: readonly (readonly [string, string, string])[] = [
  [
    'labels in capitals with dashes',
    `VO - The kiln was lit once a year.
VISUAL - smoke over roofs
VO - Nobody slept that night.`,
    `The kiln was lit once a year. Nobody slept that night.`,
  ],
  [
    'a storyboard in three columns without pipes',
    `Time\tAudio\tVideo
0:00\tThe kiln was lit once a year.\tsmoke
0:05\tNobody slept that night.\twindows`,
    `The kiln was lit once a year.

Nobody slept that night.`,
  ],
  [
    'headings with em dashes and times',
    `INTRO — 0:00 to 0:10

The kiln was lit once a year.

THE NIGHT — 0:10 to 0:30

Nobody slept.`,
    `The kiln was lit once a year.

Nobody slept.`,
  ],
  [
    'a reply that lists its changes',
    `Here's the updated script with a stronger hook:

Who lights a fire and then prays for rain?

The potters of Marrowgate did, once a year.

I've removed the greeting and tightened the ending. Want me to try another version?`,
    `Who lights a fire and then prays for rain?

The potters of Marrowgate did, once a year.`,
  ],
  [
    'parenthetical asides and cues mixed',
    `The fire (it was oak, always oak) burned for three days. (crackling) On the fourth (nobody knows why) it went out.`,
    `The fire (it was oak, always oak) burned for three days. On the fourth (nobody knows why) it went out.`,
  ],
  [
    'subtitles with speaker dashes and music',
    `1
00:00:00,000 --> 00:00:02,000
♪ low drum ♪

2
00:00:02,000 --> 00:00:04,000
[Narrator] The kiln was lit once a year.`,
    `The kiln was lit once a year.`,
  ],
  [
    'a screenplay with a continued speech',
    `INT. KILN - NIGHT

MARTHA (V.O.)
We lit it with oak.
(beat)
Always oak.

MARTHA (V.O.) (CONT'D)
And then we waited.`,
    `We lit it with oak. Always oak.

And then we waited.`,
  ],
  [
    'questions and answers in speech',
    `Why oak? Because it burns slowly.
Why three days? Because the clay says so.`,
    `Why oak? Because it burns slowly. Why three days? Because the clay says so.`,
  ],
  [
    'stage notes in braces and angle brackets',
    `{smoke} We lit it with oak. <pause 1s> Always oak. {fade}`,
    `We lit it with oak. Always oak.`,
  ],
  [
    'numbered scenes with visuals beneath',
    `Scene 1
Visual: smoke
Voiceover: We lit it with oak.

Scene 2
Visual: faces
Voiceover: And then we waited.`,
    `We lit it with oak.

And then we waited.`,
  ],
  [
    'markdown table with bold heads',
    `| **Video** | **Voice-over** |
| :-- | :-- |
| smoke | We lit it with **oak**. |
| faces | And then we waited. |`,
    `We lit it with oak.

And then we waited.`,
  ],
  [
    'a year as a list mark and a sentence with a colon',
    `1911: the kiln cracks.
1912: it cracks again.
After that: silence.`,
    `1911: the kiln cracks. 1912: it cracks again. After that: silence.`,
  ],
  [
    'an end card and credits',
    `And then we waited.

END CARD: Subscribe
Credits: music by nobody`,
    `And then we waited.`,
  ],
  [
    'thumbnail and title ideas before the words',
    `Title ideas:
- The Kiln
- Three Days of Oak

Script:
We lit it with oak.`,
    `We lit it with oak.`,
  ],
  [
    'dashes that are speech',
    `We lit it with oak - always oak - and waited.
— Who is there? asked the watchman.`,
    `We lit it with oak - always oak - and waited. — Who is there? asked the watchman.`,
  ],
  [
    'sound in capitals inside a sentence',
    `The door opened [CREAK] and he looked in.`,
    `The door opened and he looked in.`,
  ],
  [
    'a part with a duration in words',
    `Part 2: The wait (approx. 20 seconds)
We waited for three days.`,
    `We waited for three days.`,
  ],
  [
    'quoted narration under labels on their own',
    `Narrator:
"We lit it with oak."

Visual:
Fire.

Narrator:
"We waited."`,
    `"We lit it with oak."

"We waited."`,
  ],
  [
    'html with headings',
    `<h2>The kiln</h2><p>We lit it with <em>oak</em>.</p><p>[smoke]</p>`,
    `We lit it with oak.`,
  ],
  [
    'music that is the subject',
    `Music was forbidden near the kiln. The only sound: the fire. The potters said it sang.`,
    `Music was forbidden near the kiln. The only sound: the fire. The potters said it sang.`,
  ],
];

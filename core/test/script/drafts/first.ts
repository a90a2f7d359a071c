/** Labelled drafts, the half that the rules were written on: what the style is, the draft, its narration. All invented. */
export const FIRST: readonly (readonly [string, string, string])[] = [
  [
    'chatter, headings with times, a closing offer',
    `Sure! Here's a 60-second script about the boat lift:

**Hook (0:00–0:08)**
Forty tonnes of boat, and nothing holds it up but water.

**The problem (0:08–0:30)**
Before the lift there were nine locks. *(pause)* Each one took twenty minutes.

**Outro (0:30–0:60)**
So next time you see a lock, think of the lift.

Would you like me to make it shorter or add more humor?`,
    `Forty tonnes of boat, and nothing holds it up but water.

Before the lift there were nine locks. Each one took twenty minutes.

So next time you see a lock, think of the lift.`,
  ],
  [
    'two columns with pipes',
    `| Time | Visual | Narration |
|---|---|---|
| 0:00 | Drone shot of the river | The Orrin runs fast here. |
| 0:06 | Close-up of the gate [slow] | And the gate has held it back for a hundred years. |`,
    `The Orrin runs fast here.

And the gate has held it back for a hundred years.`,
  ],
  [
    'two columns set apart by blanks',
    `VIDEO                          AUDIO

Wide shot of the weir          NARRATOR: Nobody comes here
at dawn.                       before six.

Close-up: a hand on a wheel    Then the keeper turns the wheel.`,
    `Nobody comes here before six.

Then the keeper turns the wheel.`,
  ],
  [
    'a screenplay',
    `INT. WHEELHOUSE - NIGHT

Rain on the glass. A lamp swings.

NARRATOR (V.O.)
Ada Quill had worked the lift for nineteen years.

ADA
(quietly)
It never made that sound before.

CUT TO:

EXT. LOWER BASIN - DAWN

NARRATOR (V.O.)
In the morning the trough was empty.`,
    `Ada Quill had worked the lift for nineteen years.

It never made that sound before.

In the morning the trough was empty.`,
  ],
  [
    'Fountain with a title page, notes and marks',
    `Title: The Lift
Credit: written by
Author: A. Writer
Draft date: 3 May

.THE GATE

@Narrator
The gate *never* closes. [[check this]]

> FADE OUT.

/* cut for time
NARRATOR
This is gone.
*/

NARRATOR
Until it does.`,
    `The gate never closes.

Until it does.`,
  ],
  [
    'labels that stand alone',
    `Visual:
Slow pan across the roofs.
Pigeons.

Narrator:
The roofs of Marrowgate are all slate.
Every one of them.

Music:
Strings, low.

Narrator:
Except one.`,
    `The roofs of Marrowgate are all slate. Every one of them.

Except one.`,
  ],
  [
    'a spoken “cut to” and a spoken list',
    `The film would cut to the bridge here, the director said. We won't.

Number five: the weir.
Number four: the footbridge.`,
    `The film would cut to the bridge here, the director said. We won't.

Number five: the weir. Number four: the footbridge.`,
  ],
  [
    'starred words that are spoken',
    `It was *never* meant to move. **Never.**
The word they used was *sway*.`,
    `It was never meant to move. Never. The word they used was sway.`,
  ],
  [
    'tags of a synthesizer',
    `<speak>The bridge swayed.<break time="700ms"/> Then it stopped.</speak>`,
    `The bridge swayed. Then it stopped.`,
  ],
  [
    'captions with sounds and a voice',
    `WEBVTT

NOTE made by hand

1
00:00:00.000 --> 00:00:02.400
<v Mara>The bridge swayed.

2
00:00:02.400 --> 00:00:04.000
[wood creaking]
Nobody <i>ran</i>.`,
    `The bridge swayed.

Nobody ran.`,
  ],
  [
    'a bracket over several rows',
    `The crowd went quiet.
[Shot of the crowd,
seen from the tower,
holding lanterns]
Then somebody laughed.`,
    `The crowd went quiet. Then somebody laughed.`,
  ],
  [
    'front matter and code fences',
    `---
title: The lift
tags: [water, iron]
---

\`\`\`
The lift needs no engine.
\`\`\``,
    `The lift needs no engine.`,
  ],
  [
    'word counts and timings everywhere',
    `[0:00] The bell rang twice.
(12 words)
[0:05] Nobody answered it.
Total word count: 24 words
Estimated time: 0:12`,
    `The bell rang twice. Nobody answered it.`,
  ],
  [
    'speakers by name, twice each',
    `Mara: Did you hear the bell?
Tom: I thought it was the wind.
Mara: There was no wind.`,
    `Did you hear the bell?

I thought it was the wind.

There was no wind.`,
  ],
  [
    'a colon that is spoken',
    `One thing is clear: the bell rang.
The reason: nobody had tied it down.`,
    `One thing is clear: the bell rang. The reason: nobody had tied it down.`,
  ],
  [
    'capital headings',
    `THE BELL

It hung in the lower tower.

WHAT HAPPENED NEXT

It fell.`,
    `It hung in the lower tower.

It fell.`,
  ],
  [
    'numbered sections with a line of prose below',
    `1. The flood
In 1931 the water rose four metres in a night.

2. The wall
So the town built a wall out of its own roofs.`,
    `In 1931 the water rose four metres in a night.

So the town built a wall out of its own roofs.`,
  ],
  [
    'brief lines before the draft',
    `Title: The Night the Water Rose
Tone: calm
Target audience: adults
Length: 1 minute

In 1931 the water rose four metres in a night.`,
    `In 1931 the water rose four metres in a night.`,
  ],
  [
    'emoji labels',
    `🎬 Scene 1: The tower
🎙️ Narrator: The bell hung in the lower tower.
🎵 Music: soft piano
📷 Visual: the bell, from below`,
    `The bell hung in the lower tower.`,
  ],
  [
    'directions in round brackets and a spoken aside',
    `The keeper (a man called Vane) never slept. (cut to the keeper's room) He counted the boats (all nine of them).`,
    `The keeper (a man called Vane) never slept. He counted the boats (all nine of them).`,
  ],
  [
    'setext headings and rules',
    `The lift
========

It is made of iron.

The river
---------

It is made of rain.`,
    `It is made of iron.

It is made of rain.`,
  ],
  [
    'a spoken time and a running time',
    `8:16 was when the cable parted.
0:10 - Nobody was on board.`,
    `8:16 was when the cable parted. Nobody was on board.`,
  ],
  [
    'links and footnotes',
    `The lift opened in 1889.[1] It is on the [Orrin](https://example.org/orrin).[2]`,
    `The lift opened in 1889. It is on the Orrin.`,
  ],
  [
    'picture prompts between paragraphs',
    `The town sold its roofs.

Image prompt: a town without roofs, oil painting, wide shot

By spring there was a wall.

AI prompt: a slate wall at dawn`,
    `The town sold its roofs.

By spring there was a wall.`,
  ],
];

/** Labelled drafts made after the rules were finished, to see how they do on styles they have not met. All invented. */
export const THIRD: readonly (readonly [string, string, string])[] = [
  [
    'a numbered storyboard',
    `Shot 1: exterior, rain
Narration: It rained for nine days.
Shot 2: a gutter, close
Narration: On the tenth the drains gave up.`,
    `It rained for nine days. On the tenth the drains gave up.`,
  ],
  [
    'markdown with nested heads and bold numbers',
    `# Nine Days of Rain
## 1. The rain
It rained for **nine** days.
## 2. The drains
On the tenth the drains gave up.`,
    `It rained for nine days.

On the tenth the drains gave up.`,
  ],
  [
    'a voice-over column called Script',
    `| Scene | Script | B-roll |
| --- | --- | --- |
| Opening | Have you ever heard a drain give up? | drain |
| 2 | It sounds like a cough. | street |`,
    `Have you ever heard a drain give up?

It sounds like a cough.`,
  ],
  [
    'chatter that begins with “Here’s”',
    `Here's the narration you asked for:

A drain is a promise.

It says the water will leave.

Feel free to adjust the tone as needed.`,
    `A drain is a promise.

It says the water will leave.`,
  ],
  [
    'spoken words about comments',
    `Tell me in the comments: which drain would you save?
Let me know below if your street floods.`,
    `Tell me in the comments: which drain would you save? Let me know below if your street floods.`,
  ],
  [
    'a speaker in capitals with a mood',
    `VANE (O.S.): Close the gate.
QUILL: It is closed.
VANE (O.S.): Then close it again.`,
    `Close the gate.

It is closed.

Then close it again.`,
  ],
  [
    'inline times in brackets',
    `The gate closed at nine. (0:12) By ten the water was at the door. (0:18)`,
    `The gate closed at nine. By ten the water was at the door.`,
  ],
  [
    'a music line with a long wish',
    `Music: low strings, building slowly
until the last line.
The gate closed at nine.`,
    `The gate closed at nine.`,
  ],
  [
    'quotes that are spoken',
    `“Close it again,” said Vane.
“It was never open,” said Quill.`,
    `“Close it again,” said Vane. “It was never open,” said Quill.`,
  ],
  [
    'a subtitle file with formatting',
    `1
00:00:00,500 --> 00:00:02,000
<font color="#fff">The gate</font>

2
00:00:02,000 --> 00:00:03,500
was never open.`,
    `The gate was never open.`,
  ],
  [
    'asterisk cues alone on a row',
    `*rain*

The gate was never open.

*(thunder, far off)*

It only looked it.`,
    `The gate was never open.

It only looked it.`,
  ],
  [
    'hook and labels with dashes',
    `HOOK - The gate
Nobody opened the gate.

POINT 1 - The key
There was no key.`,
    `Nobody opened the gate.

There was no key.`,
  ],
  [
    'a year at the start of a row',
    `1931. The river comes up the stairs.
1932. It comes up again.`,
    `1931. The river comes up the stairs. 1932. It comes up again.`,
  ],
  ['square brackets with a sound in a sentence', `And then [door slams] nothing.`, `And then nothing.`],
  [
    'a script with a call to action part',
    `Main content:
Cut the paint first. Then push.

CTA:
Write and tell me what was behind yours.`,
    `Cut the paint first. Then push.

Write and tell me what was behind yours.`,
  ],
  [
    'a reply with two versions of the length',
    `The gate was never open.

(Approximately 45 seconds at 150 wpm)
Estimated runtime: 45 s`,
    `The gate was never open.`,
  ],
  [
    'voice-over in Fountain with an extension and a parenthetical',
    `EXT. WEIR - NIGHT

Mist.

NARRATOR (V.O.) (CONT'D)
(slow)
The weir was built by hand.
By forty hands.`,
    `The weir was built by hand. By forty hands.`,
  ],
  [
    'picture ideas in a list under each paragraph',
    `The weir was built by hand.

- Visual: hands, stone
- Sound: water

It took a summer.`,
    `The weir was built by hand.

It took a summer.`,
  ],
  [
    'transition words that are speech',
    `Transition is hard for a town. Music helped. So did footage of the old weir, shown every Friday.`,
    `Transition is hard for a town. Music helped. So did footage of the old weir, shown every Friday.`,
  ],
  [
    'html paragraphs pasted as text',
    `<p>The weir was built by hand.</p>
<p>It took a <strong>summer</strong>.</p>`,
    `The weir was built by hand. It took a summer.`,
  ],
];

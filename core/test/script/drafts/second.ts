/** Labelled drafts, the half that no rule was written on. All invented. */
export const SECOND: readonly (readonly [string, string, string])[] = [
  [
    'a reply with a plan after it',
    `Absolutely! Here is the revised narration, about 45 seconds long:

The sash window is older than glass you can see through.

It moves because two weights you never see move the other way.

---
This version is tighter and removes the greeting. Let me know if you'd like another pass!`,
    `The sash window is older than glass you can see through.

It moves because two weights you never see move the other way.`,
  ],
  [
    'tab separated columns',
    `Shot\tDescription\tVO
1\tA window from outside\tEvery old house has one that sticks.
2\tA knife along the paint\tNine times in ten it is only paint.`,
    `Every old house has one that sticks.

Nine times in ten it is only paint.`,
  ],
  [
    'narration column in the middle, seconds at the end',
    `| # | Voiceover | On screen | Sec |
|:--|:--|:--|--:|
| 1 | Eels travel at night. | eel, moonlight | 3 |
| 2 | So what does a street lamp do to them? | lamp on a bridge | 4 |`,
    `Eels travel at night.

So what does a street lamp do to them?`,
  ],
  [
    'HTML-like emphasis',
    `<b>Nothing</b> moves<br/> until you cut the <em>paint</em>.`,
    `Nothing moves until you cut the paint.`,
  ],
  [
    'act headings with dashes',
    `ACT ONE – THE SHOP

There was a clock shop on Tanner Street.

ACT TWO – THE LEDGER

In the back there was a ledger nobody had opened.`,
    `There was a clock shop on Tanner Street.

In the back there was a ledger nobody had opened.`,
  ],
  [
    'host labels with moods in brackets',
    `HOST [warm]: You know the shop I mean.
HOST [leaning in]: The one with no sign.
B-ROLL: the street, empty
HOST: It closed in March.`,
    `You know the shop I mean. The one with no sign. It closed in March.`,
  ],
  [
    'sound cues in capitals',
    `The clock stopped. (SFX: TICKING STOPS) Nobody looked up. (MUSIC OUT)`,
    `The clock stopped. Nobody looked up.`,
  ],
  [
    'SRT with dialogue dashes',
    `1
00:00:01,000 --> 00:00:03,500
- Who bought the clock?
- Nobody did.

2
00:00:04,000 --> 00:00:06,000
♪ slow strings ♪
It was never for sale.`,
    `Who bought the clock? Nobody did. It was never for sale.`,
  ],
  [
    'an honest “fade” in speech',
    `Fade the lights and you can see them. The eels, I mean.`,
    `Fade the lights and you can see them. The eels, I mean.`,
  ],
  [
    'a question and an answer that are spoken',
    `Question: who paid for the bridge?
Answer: you did.`,
    `Question: who paid for the bridge? Answer: you did.`,
  ],
  [
    'bold labels with the colon inside',
    `**Narrator:** The river is slow here.

**Visual:** reeds, low sun

**Narrator:** It only looks slow.`,
    `The river is slow here.

It only looks slow.`,
  ],
  [
    'a starred cue and a starred word',
    `He opened it. *long pause* It was *empty*.`,
    `He opened it. It was empty.`,
  ],
  [
    'director’s notes',
    `Director's note: keep this light.
The council met eleven times.
Note to editor: use the archive photo here.
It decided nothing.`,
    `The council met eleven times. It decided nothing.`,
  ],
  [
    'a timed list of sections',
    `[0:00-0:15] INTRO
A bridge swayed on a Tuesday.

[0:15-0:40] BODY
By Wednesday it was shut.`,
    `A bridge swayed on a Tuesday.

By Wednesday it was shut.`,
  ],
  [
    'pauses with seconds',
    `She read the name. [pause 2s] Then she closed the book. (beat)`,
    `She read the name. Then she closed the book.`,
  ],
  [
    'a screenplay with two speakers and a transition',
    `EXT. TANNER STREET - DAY

A shop with no sign.

MR HALE
You're late.

VOICE
I'm eleven years late, Mr Hale.

FADE OUT.`,
    `You're late.

I'm eleven years late, Mr Hale.`,
  ],
  [
    'a spoken number in a list',
    `Three rules.
One: never force it.
Two: never heat it.
Three: call someone.`,
    `Three rules. One: never force it. Two: never heat it. Three: call someone.`,
  ],
  [
    'end matter',
    `It still ticks.

[END]

#clocks #history #shorts
Thumbnail text: IT STILL TICKS
Word count: 3`,
    `It still ticks.`,
  ],
  [
    'curly brackets and prompts',
    `{wide shot of the weir} The weir sings when the water is low. {hold 3s}`,
    `The weir sings when the water is low.`,
  ],
  [
    'quoted mail with marks',
    `> **Scene 2**
> The lamp went out at nine.
> _Sound: a switch_
> The eels came at ten.`,
    `The lamp went out at nine. The eels came at ten.`,
  ],
  [
    'a heading with a number sign that is spoken text',
    `The plate says #12. Nobody knows what happened to the other eleven.`,
    `The plate says #12. Nobody knows what happened to the other eleven.`,
  ],
  [
    'on-screen text in several forms',
    `[TEXT ON SCREEN: "1889"] The lift opened on a Monday.
On screen: £310
Lower third: Ida Rennick, keeper
It cost more than the town.`,
    `The lift opened on a Monday. It cost more than the town.`,
  ],
  [
    'bullets under a visual label',
    `Visuals:
- the tower
- the bell
Voiceover:
The bell weighs nine tonnes.`,
    `The bell weighs nine tonnes.`,
  ],
  [
    'narration in quotation marks',
    `Narrator: "The bell weighs nine tonnes."
Narrator: "It has rung twice."`,
    `"The bell weighs nine tonnes." "It has rung twice."`,
  ],
  [
    'an in-world camera',
    `The camera sat on the bridge for a year. In July it took the picture: one eel, one lamp, one shadow.`,
    `The camera sat on the bridge for a year. In July it took the picture: one eel, one lamp, one shadow.`,
  ],
  [
    'a script notes block at the end',
    `The window opens now.

Script notes:
- Keep the last line slow.
- Total runtime: 0:06`,
    `The window opens now.`,
  ],
];

/** Ways to set a narration among notes for the film, each a function of its lines and pictures. Invented; common practice, no published source. */
export interface Story {
  lines: readonly string[];
  pictures: readonly string[];
}
export const STORIES: readonly Story[] = [
  {
    lines: [
      'In 1904 a lighthouse on the Carrow bank went dark for one night, and three ships missed it by the width of a street.',
      'The keeper had fallen from his ladder. He could not stand, so he did the only thing left to him.',
      'He lit a storm lamp, held it against the glass with his good arm, and counted to a hundred. Then he counted again.',
      'By morning he had counted to a hundred four hundred times.',
      'The captains never met him. They sent a clock instead, and nobody has ever set it right.',
      'So the next time somebody tells you that one person can’t make a difference, ask them what time it is in Carrow.',
    ],
    pictures: ['sea at night', 'the ladder', 'lamp on glass', 'sunrise', 'clock face', 'black'],
  },
  {
    lines: [
      'Nobody in Tallow Street could sleep, and nobody could say why.',
      'It began in March with a hum, so low that you felt it in your teeth before you heard it.',
      'The council sent a man with a box. The box said there was nothing there.',
      'Then a girl of nine put her ear to a lamp post and laughed.',
      'Bees. Forty thousand of them, in a pipe the width of your wrist.',
      'They moved the bees in May. And do you know what the street says now? It’s too quiet.',
    ],
    pictures: [
      'street at night',
      'wave form',
      'man with box',
      'girl, lamp post',
      'bees macro',
      'empty street',
    ],
  },
];

type Form = (s: Story) => string;
const rows = (s: Story, row: (line: string, picture: string, i: number) => string, between = '\n') =>
  s.lines.map((line, i) => row(line, s.pictures[i], i)).join(between);
const capital = (text: string) => text[0].toUpperCase() + text.slice(1);

export const FORMS: Readonly<Record<string, Form>> = {
  'records of settings': (s) =>
    `project: night\nstatus: draft 4\n\n${rows(s, (l, p, i) => `- scene: ${i + 1}\n  picture: ${p}\n  vo: ${l}`)}`,
  'a numbered list of shots with a voice behind dashes': (s) =>
    `NIGHT - shot list v2\n\n${rows(s, (l, p, i) => `${i + 1}. ${capital(p)} -- VO: ${l}`)}\n\nMusic throughout: low strings, no drums.`,
  'elements of its own': (s) =>
    `<title>The night</title>\n<music>strings, pp</music>\n${rows(s, (l, p) => `<broll>${p}</broll>\n<vo>${l}</vo>`)}`,
  'an editor’s remarks and another wording between paragraphs': (s) =>
    `# The night, v3\n\n### Hook (22 words)\n\n${s.lines[0]}\n\n### The fall (19 words)\n\n~~He was called Fenn.~~ ${s.lines[1]}\n\n> EDITOR: can we check the ladder? I'd swear it was a stair.\n\n${s.lines[2]}\n\n### Dawn (11 words)\n\n${s.lines[3]}\n\nALT: By morning he had lost count.\n\n${s.lines[4]}\n\n${s.lines[5]}\n\n---\nTotal: 118 words, about 47 seconds at 150 wpm.`,
  'comments of a word processor below': (s) =>
    `The night\nScript, final\n\n${rows(s, (l, _, i) => (i === 0 ? `${l}[a]` : i === 4 ? `${l}[b]` : l), '\n\n')}\n\n[a]Can we source this? It sounds like a lot.\n[b]love this line\n2 total reactions\nAda Marsh reacted with 👍 at 2024-02-11 10:22`,
  'notes of slides': (s) =>
    rows(
      s,
      (l, p, i) => `Slide ${i + 1}\nTitle: ${capital(p)}\nImage: ${i}.jpg\nSpeaker notes:\n${l}`,
      '\n\n',
    ),
  'quotations between directions in whole sentences': (s) =>
    rows(s, (l, p) => `We hold on the ${p} for a moment. Narrator:\n"${l}"`),
  'copy for a prompter': (s) =>
    `[PROMPTER COPY - speed 4]\n\n${rows(s, (l, _, i) => l.replace(/, /g, ', / ') + (i === 1 ? '\n\n(BREATH)' : ''), '\n\n')}\n\n[END OF PROMPTER COPY]`,
  'signs of camera, microphone and loudspeaker': (s) =>
    `🎬 NIGHT | 47s short\n\n${rows(s, (l, p, i) => `[00:0${i} - 00:0${i + 1}]\n🎙️ ${l}\n🎞️ ${p}\n🔊 wind`, '\n\n')}\n\n#shorts #history`,
  'a table with what is heard first': (s) =>
    `| Audio | Picture | Time |\n|---|---|---|\n${rows(s, (l, p, i) => `| ${l} | ${p} | 0:0${i} |`)}`,
  'a narrator’s name above each speech, sounds between': (s) =>
    `CAST: Narrator (female, forties), no other voices.\nNOTE TO MIXER: keep the wind under -24.\n\n${rows(s, (l, _, i) => `NARRATOR${i === 1 ? " (CONT'D)" : ''}\n${l}\n\nSOUND: a lamp is lit.`, '\n\n')}\n\nEND.`,
  'speech markup (SSML 1.1)': (s) =>
    `<?xml version='1.0'?>\n<speak version='1.1' xml:lang='en-GB'>\n${rows(s, (l) => `<p>${l}</p><break time='800ms'/>`)}\n<!-- end card here -->\n</speak>`,
  'an answer of an assistant with times in bold': (s) =>
    `Sure thing! Here's a 45-second script. I leaned into the mystery a bit 🌊\n\n${rows(s, (l, _, i) => `**[0:0${i}]** ${l}`, '\n\n')}\n\n**Why this works:**\n- Opens on a concrete image\n- Ends on a question the viewer can answer\n\nWould you like a shorter version, or should I suggest B-roll for each line?`,
  'comma-separated values': (s) =>
    `#,Visual,Narration,SFX,Dur\n${rows(s, (l, p, i) => `${i + 1},"${p}","${l}",,8s`)}`,
  'bullets for pictures above each paragraph': (s) =>
    `THE NIGHT\nby the Lantern Room - draft of 4 May\n\n${rows(s, (l, p, i) => `${['COLD OPEN', 'ACT ONE', 'ACT TWO', 'TURN', 'TAG', 'OUT'][i]}\n• ${capital(p)}\n• No music yet\n${l}`, '\n\n')}\n\n(c) Lantern Room. Do not circulate.`,
  'indented narration between rows for the edit': (s) =>
    `The night, reading copy. Anything not indented is for the edit.\n\n${rows(s, (l, p) => `        ${l}\n\n${capital(p)}.`, '\n\n')}`,
  'radio copy in two columns of labels': (s) =>
    `THE NIGHT  -  radio copy  -  1'05"\n\n${rows(s, (l, p, i) => `${'ANNCR:'.padEnd(12)}${l}${i % 2 ? `\n${'FX:'.padEnd(12)}${p.toUpperCase()}` : ''}`)}\n\nENDS`,
  'comments of HTML and folded notes': (s) =>
    `# The night\n\n<!-- v2, shortened by 8 seconds -->\n\n${rows(s, (l, p) => `${l} <!-- ${p} -->`, '\n\n')}\n\n<details>\n<summary>Research</summary>\n\nThe council file is from 1998. Ask Pat for the scan.\n\n</details>`,
  'labels nobody knows, of what is seen and what is heard': (s) =>
    rows(s, (l, p, i) => `BEAT ${i + 1}\nWhat we see: ${p}\nWhat we hear: ${l}`, '\n\n'),
  'columns named picture and sound': (s) => `PICTURE\tSOUND\n${rows(s, (l, p) => `${p}\t${l}`)}`,
  'counts of words behind each line': (s) => rows(s, (l, _, i) => `0:0${i}  ${l} [${l.split(' ').length}w]`),
  'narration in italics': (s) =>
    `Start slowly.\n\n${rows(s, (l, p) => `*${l}*\n\n${capital(p)}, held for two seconds.`, '\n\n')}`,
  'how each line is said, in brackets': (s) =>
    rows(
      s,
      (l, _, i) => `(${['whispering', 'slowly', 'matter of fact', 'brighter', 'big', 'dry'][i]}) ${l}`,
      '\n\n',
    ),
  'pictures behind two strokes': (s) => rows(s, (l, p) => `${l}   // ${p}`, '\n\n'),
  'an outline with settings (Org Mode)': (s) =>
    `#+TITLE: The night\n#+AUTHOR: Lantern Room\n\n* Hook\n${s.lines[0]}\n* Middle\n** TODO check the date\n:PROPERTIES:\n:SHOT: waveform\n:END:\n${s.lines.slice(1, 5).join('\n\n')}\n* End\n${s.lines[5]}`,
  'numbers of lines': (s) => rows(s, (l, _, i) => `00${i + 1}  ${l}`),
  'arrows from picture to words': (s) =>
    `THE NIGHT / 35s\n\n${rows(s, (l, p) => `${p} → "${l}"`)}\n\nCTA card → (no voice)`,
  'tracked changes (CriticMarkup)': (s) =>
    `The night - for approval\n\n${rows(s, (l, _, i) => (i === 1 ? l.replace(' in ', ' {--on--}{++in++} ') : i === 3 ? `${l} {>>really? - JP<<}` : l), '\n\n')}\n\nApproved: ______   Date: ______`,
  'a screenplay': (s) =>
    rows(
      s,
      (l, p, i) =>
        `${i % 2 ? 'INT' : 'EXT'}. ${p.toUpperCase()} - NIGHT\n\nWe see it for a moment.\n\n                    NARRATOR (V.O.)\n          ${l}`,
      '\n\n',
    ),
  'parts of narration and lists of pictures under each heading': (s) =>
    [0, 2, 4]
      .map((k) => `## Part ${k / 2 + 1}\n\n**Narration**\n\n${s.lines[k]}\n\n${s.lines[k + 1]}\n\n**Visual notes**\n\n- ${s.pictures[k]}\n- ${s.pictures[k + 1]}`)
      .join('\n\n'), // prettier-ignore
  'cues between waves and in angles': (s) =>
    `${s.lines[0]}\n\n... (2s)\n\n${s.lines[1]}\n${s.lines[2]}\n\n~ music swells ~\n\n${s.lines[3]}\n\n<beat>\n\n${s.lines[4]}\n\n***\n\n${s.lines[5]}`,
  'a column of roles': (s) => rows(s, (l, p, i) => `0:0${i}\tVO\t${l}\n0:0${i}\tPIC\t${p}`),
  'roles nobody knows, before a stroke': (s) => rows(s, (l, p) => `N | ${l}\nP | ${p}`),
  'bullets with pictures below each': (s) => rows(s, (l, p) => `- ${l}\n  - ${p}`),
  'numbered labels of sound and picture': (s) => rows(s, (l, p, i) => `A${i + 1}: ${l}\nV${i + 1}: ${p}`),
  'a letter without its head': (s) =>
    `Hi Jo,\n\nScript below, 44 seconds on my phone.\n\n---\n${rows(s, (l) => l, '\n\n')}\n---\n\nShout if anything sounds off. Recording Thursday 10am.\n\nBest,\nMarlo`,
  'time codes with frames (SMPTE ST 12-1)': (s) => rows(s, (l, _, i) => `00:00:0${i}:12  ${l}`, '\n\n'),
  'notes under a plain name below': (s) =>
    `The night\nA one-minute memoir\n\n${rows(s, (l) => l, '\n\n')}\n\nProduction notes\nKeep it dry. No music until the kitchen.`,
  'settings with tables (TOML 1.0)': (s) =>
    `title = "The night"\n\n${rows(s, (l, p) => `[[scene]]\nvisual = "${p}"\nnarration = '''${l}'''`)}`,
};

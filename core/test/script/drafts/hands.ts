/** Drafts in the notations of many hands, and what is spoken in them: the same four sentences each time. Invented; common practice, no published source. */
export const A = 'The boat went up in the lift that morning. Nobody at all was hurt.';
export const B = 'By noon the whole town stood at the gate, and waited for the second boat.';
export const C = 'It never came. The cable had parted in the night.';
export const D = 'They found the keeper in the wheelhouse, asleep, with the kettle still warm.';
const ABC = `${A} ${B} ${C}`;
const ALL = `${ABC} ${D}`;

/** What the case shows, the draft, its narration. */
export const HANDS: readonly (readonly [string, string, string])[] = [
  [
    'chat export',
    `[12:04] Mara: ok here goes, last version\n[12:05] Mara: ${A} ${B} ${C}\n[12:09] Tom: love it, maybe shorter?\n[12:10] Mara: sure, tomorrow`,
    ABC,
  ],
  [
    'bracket labels',
    `[VO] ${A}\n[VISUAL] boat in the lift, wide\n[VO] ${B}\n[SFX] cable snaps\n[VO] ${C}`,
    ABC,
  ],
  ['section labels with words', `Hook: ${A}\n\nBody: ${B}\n\nCTA: ${C}`, ABC],
  ['section labels bold', `**Hook (0:00–0:08):** ${A}\n\n**Main point:** ${B}\n\n**Outro:** ${C}`, ABC],
  [
    'label column',
    `VO      ${A}\nSFX     a cable, snapping\nVO      ${B}\nVIDEO   wide of the gate\nVO      ${C}`,
    ABC,
  ],
  ['label tabs', `VO\t${A}\nSFX\ta cable, snapping\nVO\t${B}\nVIDEO\twide of the gate\nVO\t${C}`, ABC],
  [
    'caps directions',
    `OPEN ON A HARBOUR AT DAWN.\n\n${A}\n\nTHE LIFT BEGINS TO MOVE. GULLS.\n\n${B}\n\nSLOW PUSH IN ON THE CABLE.\n\n${C}`,
    ABC,
  ],
  [
    'quoted lines',
    `Shot of the lift.\n"${A}"\n\nCrowd, from above. Hold.\n"${B}"\n\nThe cable.\n"${C}"`,
    ABC,
  ],
  [
    'page headers',
    `Boat Lift / Draft 3\n\n${A}\n\nBoat Lift – draft 3 – page 2\n\n${B}\n\nBoat Lift – draft 3 – page 3\n\n${C}`,
    ABC,
  ],
  ['line numbers', `1  ${A}\n2  ${B}\n3  ${C}`, ABC],
  [
    'box',
    `┌────────┬──────────┐\n│ Narration │ Picture │\n├────────┼──────────┤\n│ ${A} │ lift │\n│ ${B} │ crowd │\n│ ${C} │ cable │\n└────────┴──────────┘`,
    ABC,
  ],
  [
    'grid',
    `+----------------------------+------------+\n| Narration                  | Picture    |\n+============================+============+\n| The boat went up in the    | lift,      |\n| lift that morning. Nobody  | wide       |\n| at all was hurt.           |            |\n+----------------------------+------------+\n| ${B}| crowd |\n+----------------------------+------------+\n| ${C} | cable |\n+----------------------------+------------+`,
    ABC,
  ],
  [
    'todo',
    `[ ] find a picture of the gate\n[x] check the year\n\n${A}\n\nTODO: ask Mara about the date\n\n${B} (check this!)\n\n${C} (TK)`,
    ABC,
  ],
  [
    'obsidian',
    `---\ntags: [lift]\n---\n# Lift\n\n${A} %%too long?%%\n\n> [!note] For the edit\n> use the old photo\n\n${B} ==${C}==\n`,
    ABC,
  ],
  [
    'org',
    `#+TITLE: Lift\n#+AUTHOR: M\n* The lift\n${A}\n* The gate\n:PROPERTIES:\n:time: 12\n:END:\n${B}\n${C}`,
    ABC,
  ],
  ['old and new', `OLD: The boat was lifted.\nNEW: ${A}\n\nOLD: People waited.\nNEW: ${B}\n\nNEW: ${C}`, ABC],
  [
    'pronunciation',
    `The boat went up at Worcester (WUSS-ter) that morning. ${B} (pronounced GATE) ${C}`,
    `The boat went up at Worcester that morning. ${B} ${C}`,
  ],
  ['alternates', `${A} [or: Everybody lived.] ${B}\n(alt: It was late.)\n${C}`, ABC],
  [
    'mid talk',
    `${A}\n\nI wasn't sure about this next paragraph, do you want me to shorten the scene?\n\n${B}\n\n${C}`,
    ABC,
  ],
  ['numbered shots', `1. WS lift, dawn (4s)\nVO: ${A}\n2. CU gate (3s)\nVO: ${B}\n3. Cable\nVO: ${C}`, ABC],
  ['narrator dash', `Narrator — ${A}\nMusic — low strings\nNarrator — ${B}\nNarrator — ${C}`, ABC],
  [
    'dialogue',
    `MARA: Is it up?\nNARRATOR: ${A}\nTOM: It is.\nNARRATOR: ${B} ${C}`,
    `Is it up? ${A} It is. ${B} ${C}`,
  ],
  [
    'mail plain',
    `From: A <a@x.example>\nTo: B <b@x.example>\nSubject: script\nDate: today\n\nHi Bo,\n\nHere is the narration, second version, with your cuts.\n\n${A}\n\n${B}\n\n${C}\n\nLet me know if the ending works.\n\nBest,\nAnn`,
    ABC,
  ],
  [
    'quoted mail',
    `Looks good to me, I only changed one word in the second paragraph.\n\nOn Tue, Bo wrote:\n> ${A}\n> ${B}\n> ${C}\n`,
    ABC,
  ],
  ['transcript', `00:00:01 Speaker 1\n${A}\n\n00:00:08 Speaker 1\n${B}\n\n00:00:15 Speaker 1\n${C}`, ABC],
  ['outline words', `I. The lift\n${A}\n\nII. The gate\n${B}\n\nIII. The end\n${C}`, ABC],
  [
    'aside paragraphs',
    `(Somebody told me later that it was a goat.)\n\n${A}\n\n${B}\n\n${C}`,
    `(Somebody told me later that it was a goat.) ${A} ${B} ${C}`,
  ],
  [
    'spoken notes',
    `Note: the boat was not new. ${A}\n\nScene of the crime, they called it. ${B}\n\nHere's the thing. ${C}`,
    `Note: the boat was not new. ${A} Scene of the crime, they called it. ${B} Here's the thing. ${C}`,
  ],
  [
    'spoken lists',
    `Three things went wrong.\n\n1. The cable was old.\n2. The keeper was asleep.\n3. Nobody asked why.\n\n${C}`,
    `Three things went wrong. The cable was old. The keeper was asleep. Nobody asked why. ${C}`,
  ],
  [
    'spoken colon',
    `The answer: a cable. The reason: rust.\n\nHere is what the keeper wrote: "Gone." ${B}\n\n${C}`,
    `The answer: a cable. The reason: rust. Here is what the keeper wrote: "Gone." ${B} ${C}`,
  ],
  [
    'spoken short',
    `Silence.\n\nThen a bell.\n\nAnd then, nothing.\n\n${C}`,
    `Silence. Then a bell. And then, nothing. ${C}`,
  ],
  [
    'xml prompt',
    `<script>\n<scene id="1"><narration>${A}</narration><visual>lift</visual></scene>\n<scene id="2"><narration>${B} ${C}</narration><visual>gate</visual></scene>\n</script>`,
    ABC,
  ],
  [
    'json',
    JSON.stringify(
      {
        title: 'Lift',
        scenes: [
          { scene: 1, narration: A, visual: 'lift', seconds: 4 },
          { scene: 2, narration: B + ' ' + C, visual: 'gate', seconds: 6 },
        ],
      },
      null,
      1,
    ),
    ABC,
  ],
  [
    'labels alone on rows',
    `AUDIO\n${A}\n\nVIDEO\nwide of the lift, fog\n\nAUDIO\n${B}\n\nVIDEO\ncrowd from above\n\nAUDIO\n${C} ${D}`,
    ALL,
  ],
  [
    'bullets with labels',
    `## Scene 1\n- Narration: ${A}\n- Visual: lift, fog\n- Music: none\n\n## Scene 2\n- Narration: ${B}\n- Visual: gate\n\n## Scene 3\n- Narration: ${C} ${D}\n- Visual: wheelhouse`,
    ALL,
  ],
  [
    'nested bullets',
    `* Scene 1\n  * VO: ${A}\n  * Visuals: the lift at dawn, then the gate\n* Scene 2\n  * VO: ${B}\n  * Visuals: crowd\n* Scene 3\n  * VO: ${C} ${D}`,
    ALL,
  ],
  [
    'bold lead scene',
    `**Scene 1 – The lift:** ${A}\n\n**Scene 2 – The gate:** ${B}\n\n**Scene 3 – The end:** ${C} ${D}`,
    ALL,
  ],
  ['trailing slashes comment', `${A} // too fast?\n${B}\n${C} // check the date with Mara\n${D}`, ALL],
  [
    'emoji labels',
    `🎬 wide shot of the lift in fog\n🎙️ ${A}\n🎵 low strings come in\n🎙️ ${B}\n📷 old photograph of the gate\n🎙️ ${C} ${D}`,
    ALL,
  ],
  ['double braces', `{{slow}} ${A} <<pause>> ${B} {{louder}} ${C} ${D}`, ALL],
  ['title and byline', `The Boat Lift at Orrin\nby Mara Ellis\n\n${A}\n\n${B}\n\n${C} ${D}`, ALL],
  [
    'plain section titles',
    `The lift\n\n${A}\n\nThe crowd at the gate\n\n${B}\n\nWhat happened in the night\n\n${C}\n\n${D}`,
    ALL,
  ],
  [
    'slides',
    `Slide 1: The lift\n• up in four minutes\n• forty tonnes\nNotes: ${A}\n\nSlide 2: The gate\n• noon\nNotes: ${B}\n\nSlide 3: The end\n• cable\nNotes: ${C} ${D}`,
    ALL,
  ],
  [
    'label in the row',
    `Shot 1, wide of the lift. VO: ${A}\nShot 2, crowd. VO: ${B}\nShot 3, the cable. VO: ${C} ${D}`,
    ALL,
  ],
  [
    'cells with labels',
    `| Picture | Sound |\n|---|---|\n| lift | VO: ${A}<br>SFX: chain rattles |\n| gate | VO: ${B} |\n| night | MUSIC: drum<br>VO: ${C} ${D} |`,
    ALL,
  ],
  [
    'news package',
    `ANCHOR: ${A}\n\nSOT (Ellis, keeper's daughter, 0:08): "He never slept on shift in his life."\n\nREPORTER: ${B}\n\nNATS: chain, water\n\nREPORTER: ${C} ${D}\n\nSUPER: Mara Ellis / Keeper's daughter`,
    ALL,
  ],
  [
    'cast list',
    `Cast: NARRATOR, warm, forties\n\nNARRATOR: ${A}\n\nNARRATOR: ${B}\n\nNARRATOR: ${C} ${D}`,
    ALL,
  ],
  [
    'insertions in quotes',
    `${A} “He said [the keeper] was asleep,” the report has it. ${B} ${C} ${D}`,
    `${A} “He said the keeper was asleep,” the report has it. ${B} ${C} ${D}`,
  ],
  [
    'word count fields',
    `BOAT LIFT | 58 words | 0:24\n\n${A}\n\n${B}\n\n${C} ${D}\n\nWords: 58 | Est. read time: 0:24`,
    ALL,
  ],
  [
    'chatty start and end',
    `Okay, so I took another pass at it. The hook is sharper now and the middle scene is about ten seconds shorter.\n\n${A}\n\n${B}\n\n${C} ${D}\n\nThat lands at about 58 words, so roughly 24 seconds. I left the kettle in because I think it's the best image you have.`,
    ALL,
  ],
  [
    'chatty with heading',
    `Of course. Below is the tightened version:\n\n## Final narration\n\n${A}\n\n${B}\n\n${C} ${D}\n\n## Why I changed the ending\n\nThe old one repeated the hook. This one closes on an image.`,
    ALL,
  ],
  ['two takes struck', `${A}\n\n~~By noon everybody was there.~~\n\n${B}\n\n${C} ${D}`, ALL],
  [
    'music credits',
    `${A}\n\n${B}\n\n${C} ${D}\n\nMusic: "Slow Water" by Hana Obel (CC BY 4.0)\nFootage: town archive\nSubscribe: https://lift.example/sub`,
    ALL,
  ],
  [
    'vtt',
    `WEBVTT\n\nNOTE draft 2\n\n00:01.000 --> 00:04.000\n<v Narrator>${A}\n\n00:04.000 --> 00:08.000\n<v Narrator>${B}\n\n00:08.000 --> 00:12.000\n${C} ${D}`,
    ALL,
  ],
  [
    'podcast',
    `[THEME MUSIC UP]\n\nHOST: ${A}\n\n[AD BREAK – 30 s]\n\nHOST (laughs): ${B}\n\n[MUSIC UNDER]\n\nHOST: ${C} ${D}\n\n[THEME OUT]`,
    ALL,
  ],
  [
    'star footnote',
    `The boat went up in the lift that morning.* Nobody at all was hurt.\n\n${B}\n\n${C} ${D}\n\n* The town archive has the hour as nine.`,
    ALL,
  ],
  [
    'spoken title said',
    `This is the boat lift at Orrin.\n\n${A}\n\n${B}\n\n${C} ${D}`,
    `This is the boat lift at Orrin. ${ALL}`,
  ],
  [
    'spoken verse',
    `A boat, a lift, a morning,\nand nobody at all was hurt.\n\nA town, a gate, a noon,\nand nobody at all was late.`,
    `A boat, a lift, a morning, and nobody at all was hurt. A town, a gate, a noon, and nobody at all was late.`,
  ],
  [
    'spoken questions',
    `What is a lift?\n\nWhy does it stop?\n\nHere's why.\n\n${C}`,
    `What is a lift? Why does it stop? Here's why. ${C}`,
  ],
  [
    'spoken first person about film',
    `I filmed the lift for a year. You can see the gate in every take.\n\n${B}\n\n${C} ${D}`,
    `I filmed the lift for a year. You can see the gate in every take. ${B} ${C} ${D}`,
  ],
  [
    'spoken labels',
    `Cause: rust. Effect: a town without boats.\n\nThe verdict: nobody's fault.\n\n${C} ${D}`,
    `Cause: rust. Effect: a town without boats. The verdict: nobody's fault. ${C} ${D}`,
  ],
  [
    'spoken countdown',
    `Number three: the gate.\n\n${B}\n\nNumber two: the cable.\n\n${C}\n\nNumber one: the keeper.\n\n${D}`,
    `Number three: the gate. ${B} Number two: the cable. ${C} Number one: the keeper. ${D}`,
  ],
  [
    'spoken caps',
    `${A}\n\nNOBODY.\n\n${B}\n\nNOT EVEN THE MAYOR.\n\n${C} ${D}`,
    `${A} NOBODY. ${B} NOT EVEN THE MAYOR. ${C} ${D}`,
  ],
  ['spoken years', `1904. ${A}\n\n1911. ${B}\n\n1923. ${C} ${D}`, `1904. ${A} 1911. ${B} 1923. ${C} ${D}`],
  [
    'spoken letter',
    `${A}\n\n"Dear Mara,\nthe lift is closed. Come home.\nYour father."\n\n${C} ${D}`,
    `${A} "Dear Mara, the lift is closed. Come home. Your father." ${C} ${D}`,
  ],
  [
    'sub-bullets',
    `${A}\n  - show: lift, fog\n${B}\n  - show: the crowd, from above\n${C} ${D}\n  - show: kettle`,
    ALL,
  ],
  ['manner label', `Softly: ${A}\n\n${B}\n\nWhispering: ${C}\n\n${D}`, ALL],
  [
    'table pasted as text',
    `Scene\nNarration\nVisual\n1\n${A}\nlift in fog\n2\n${B}\ncrowd\n3\n${C} ${D}\nkettle`,
    ALL,
  ],
  ['hashtags behind', `${A} #lift #orrin\n\n${B}\n\n${C} ${D} #night`, ALL],
  ['mention', `${A}\n\n@tom is the date right?\n\n${B}\n\n${C} ${D}`, ALL],
  [
    'bold narration',
    `lift in fog, wide\n**${A}**\n\ncrowd from above. Hold it.\n**${B}**\n\nthe cable, close\n**${C} ${D}**`,
    ALL,
  ],
  [
    'forwarded',
    `see below, last version from Mara\n\n---------- Forwarded message ---------\nFrom: Mara <m@x.example>\nDate: Tue\nSubject: script\nTo: Bo\n\n${A}\n\n${B}\n\n${C} ${D}\n\nCheers,\nMara`,
    ALL,
  ],
  [
    'invisible',
    `The boat went\u00ad up in the lift\u200b that morning. Nobody at all was hurt.\n\n${B}\n\n${C} ${D}`,
    ALL,
  ],
  [
    'shot list and vo',
    `SHOT LIST\n1. Lift, fog\n2. Gate\n3. Kettle\n\nVOICE-OVER\n${A}\n\n${B}\n\n${C} ${D}`,
    ALL,
  ],
  [
    'brief on top',
    `Client: Orrin Town\nJob: Boat lift film\nLength: 60"\nDeadline: Friday\n\n${A}\n\n${B}\n\n${C} ${D}`,
    ALL,
  ],
  ['reading notes in caps in line', `${A} SLOW DOWN HERE ${B}\n\n${C} [BREATH] ${D}`, ALL],
  ['numbered paragraphs', `1. ${A}\n\n2. ${B}\n\n3. ${C}\n\n4. ${D}`, ALL],
  ['lettered beats', `(a) ${A}\n\n(b) ${B}\n\n(c) ${C} ${D}`, ALL],
  [
    'notes after dash row',
    `${A}\n\n${B}\n\n${C} ${D}\n\n—\n\nNotes for Tom: leave two seconds after the kettle. Use the old map if the drone is late.`,
    ALL,
  ],
  [
    'google doc comments',
    `${A}[a]\n\n${B}[b]\n\n${C} ${D}\n\n[a]nice\n[b]can we say crowd instead of town?`,
    ALL,
  ],
  ['variants of a line', `${A}\n\n${B}\n\nALT: By noon they were all there.\n\n${C} ${D}`, ALL],
  [
    'stage brackets in the middle',
    `The boat [beat] went up in the lift that morning. Nobody (pause) at all was hurt. ${B} ${C} ${D}`,
    ALL,
  ],
  ['time in margin', `${A} (0:05)\n${B} (0:11)\n${C} ${D} (0:20)`, ALL],
  ['percent of runtime', `[0–10%] ${A}\n[10–50%] ${B}\n[50–100%] ${C} ${D}`, ALL],
  [
    'scene slugs',
    `SCENE 1 – LIFT – DAWN\n${A}\n\nSCENE 2 – GATE – NOON\n${B}\n\nSCENE 3 – WHEELHOUSE\n${C} ${D}`,
    ALL,
  ],
  ['on camera', `ON CAMERA: ${A}\n\nVOICEOVER: ${B}\n\nON CAMERA: ${C} ${D}`, ALL],
  [
    'markdown hr and links',
    `[Research doc](https://docs.example/x)\n\n***\n\n${A}\n\n${B}\n\n${C} ${D}\n\n***\n\n[Asset folder](https://drive.example/y)`,
    ALL,
  ],
  ['signature at the end', `${A}\n\n${B}\n\n${C} ${D}\n\n(c) 2024 Orrin Films. All rights reserved.`, ALL],
  [
    'spoken brackets',
    `${A} (It had been hurt before, twice, but nobody spoke of that.) ${B}\n\n${C} ${D}`,
    `${A} (It had been hurt before, twice, but nobody spoke of that.) ${B} ${C} ${D}`,
  ],
  [
    'spoken lists with bold',
    `Three things.\n\n**Rust.** It eats a cable from inside.\n\n**Sleep.** It comes to every keeper.\n\n**Night.** Nobody looks.`,
    `Three things. Rust. It eats a cable from inside. Sleep. It comes to every keeper. Night. Nobody looks.`,
  ],
  [
    'spoken dialogue',
    `${A}\n\n"Is it up?" she asked.\n\n"Not yet," he said. "Wait."\n\n${C} ${D}`,
    `${A} "Is it up?" she asked. "Not yet," he said. "Wait." ${C} ${D}`,
  ],
  [
    'spoken money',
    `It cost $4.2 million / year – or €3.9 million. That's 24/7 work, 365 days. ${B}`,
    `It cost $4.2 million / year – or €3.9 million. That's 24/7 work, 365 days. ${B}`,
  ],
  [
    'spoken after notes word',
    `Notes were found in the wheelhouse. Sources say he slept. Credits rolled. ${B}`,
    `Notes were found in the wheelhouse. Sources say he slept. Credits rolled. ${B}`,
  ],
];

/** Narration that only looks like something else. */
export const SAID: readonly string[] = [
  'Why does it stop?\n\nBecause nobody looked at the cable.\n\nAnd who should have looked?\n\nThe keeper, who was asleep at the time.',
  'Sound: it needs something to travel in. That is why space is quiet.\n\nThe air does the work.',
  'Scene one of the trial took a day. Scene two took a year.\n\nCut the rope, and the boat drifts. Fade, they called it.\n\nMusic played. The camera saw nothing.',
  'Hook, line and sinker. The town believed it.\n\nIntro music was all they had.\n\nThe end? Not yet.',
  'Question one: who built it? Question two: who paid?\n\nAnswer: nobody knows.\n\nFact: the cable was forty years old.',
  '"Action!" somebody shouted. Nobody moved.\n\nTake two. Take three. On the fourth, the boat rose.',
  'NASA said no. The FBI said nothing. BBC cameras came anyway.\n\nTHE LIFT IS CLOSED, said the sign.\n\nAnd that was that.',
  'Monday: rain. Tuesday: rain. Wednesday: the gate broke.\n\nThursday was dry.',
  'Day 1. The boat arrives.\n\nDay 2. It waits.\n\nDay 3. It leaves.',
  'Visit the lift at noon, and you will see it. Subscribe to nothing. Listen.\n\nYou can read about it in the notes below the gate.',
  'The sign had a #1 on it. Email was not yet known; an @ was a letter on a typewriter.\n\nIt cost 5 * 4 pounds, or 20/- in the old money.',
  'Source of the river: unknown. Length: 40 miles. Speed: slow.\n\nThat is what the map said.',
  'Version one sank. Version two burned. Version three is the one you see in this scene of the city.\n\nI have no words for the colour.',
];

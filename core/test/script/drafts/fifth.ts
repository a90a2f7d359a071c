/** A fifth set of labelled drafts, made after the rules had been mended for the fourth. All invented. */
export const FIFTH: readonly (readonly [string, string, string])[] = [
  [
    'a reply with praise and an offer',
    'Great question! Here’s a draft for your video:\n\nThe footbridge has a heartbeat.\n\nIt is one beat a second.\n\nI can also write a shorter version if you like.',
    'The footbridge has a heartbeat.\n\nIt is one beat a second.',
  ],
  [
    'scene heads in capitals',
    'SCENE 1\n[Visual: footbridge]\nThe footbridge has a heartbeat.\n\nSCENE 2\n[Visual: feet]\nIt is one beat a second.',
    'The footbridge has a heartbeat.\n\nIt is one beat a second.',
  ],
  [
    'music in brackets, labels with a mood',
    '(INTRO MUSIC)\nVO (calm): The footbridge has a heartbeat.\n(SOUND OF STEPS)\nVO: It is one beat a second.',
    'The footbridge has a heartbeat. It is one beat a second.',
  ],
  [
    'a table with bold labels',
    '| Visuals | Audio |\n|--|--|\n| footbridge | **NARRATOR:** The footbridge has a heartbeat. |\n| feet | **NARRATOR:** It is one beat a second. *(pause)* |',
    'The footbridge has a heartbeat.\n\nIt is one beat a second.',
  ],
  [
    'spoken words that cut pictures elsewhere',
    'Pan is a Greek god. Zoom in on him and he laughs.',
    'Pan is a Greek god. Zoom in on him and he laughs.',
  ],
  [
    'steps and tips that are spoken',
    'Step 1: Cut the paint.\nStep 2: Push.\nTip: never use a hammer.',
    'Step 1: Cut the paint. Step 2: Push. Tip: never use a hammer.',
  ],
  [
    'captions with names in capitals',
    '1\n00:00:00,000 --> 00:00:02,000\nMARA: The bridge moved.\n\n2\n00:00:02,100 --> 00:00:04,000\nTOM: So did I.',
    'The bridge moved.\n\nSo did I.',
  ],
  [
    'a shot in stars under a heading',
    '### Opening shot\n*Wide shot of a bridge at dusk.*\n\nThe bridge moved.\n\n### Middle\n\nSo did everyone on it.',
    'The bridge moved.\n\nSo did everyone on it.',
  ],
  [
    'a reference in brackets and one in words',
    'The bridge moved [1]. So did everyone on it (see figure 2).',
    'The bridge moved. So did everyone on it (see figure 2).',
  ],
  [
    'labels with times',
    'Narration (0:00-0:06): The bridge moved.\nNarration (0:06-0:10): So did everyone on it.',
    'The bridge moved. So did everyone on it.',
  ],
  [
    'numbered speakers',
    'Speaker 1: Did it move?\nSpeaker 2: It danced.\nSpeaker 1: Bridges don’t dance.',
    'Did it move? It danced. Bridges don’t dance.',
  ],
  [
    'a sound between two sentences',
    'He said one word: “Run.” [crowd runs] And they ran.',
    'He said one word: “Run.” And they ran.',
  ],
  [
    'heads with seconds',
    'Hook (5 sec)\nHe said one word.\n\nStory (20 sec)\nAnd they ran.',
    'He said one word.\n\nAnd they ran.',
  ],
  ['round list marks', '• The bridge is shut.\n• The river is not.', 'The bridge is shut. The river is not.'],
  [
    'a bold title, counts in bold',
    '**THE BRIDGE THAT DANCED**\n\nIt danced on a Tuesday.\n\n**Word count:** 5\n**Read time:** 2 seconds',
    'It danced on a Tuesday.',
  ],
  [
    'a spoken aside about a voice',
    'Anna whispered (softly, so nobody heard): it moved.',
    'Anna whispered (softly, so nobody heard): it moved.',
  ],
  [
    'rests and stress for a synthesizer',
    'It danced.<break time="1.5s"/> On a Tuesday. <emphasis level="strong">Danced.</emphasis>',
    'It danced. On a Tuesday. Danced.',
  ],
  [
    'days with colons',
    'On Monday: nothing. On Tuesday: a dance.',
    'On Monday: nothing. On Tuesday: a dance.',
  ],
  [
    'cues in capitals and square brackets',
    '[HOST ON CAMERA]\nIt danced on a Tuesday.\n[CUT TO B-ROLL]\nBy Friday it was shut.\n[END SCREEN: subscribe]',
    'It danced on a Tuesday. By Friday it was shut.',
  ],
  [
    'captions of photographs',
    'Caption: the bridge, 1931\nIt danced on a Tuesday.\n\nPhoto: crowd\nBy Friday it was shut.',
    'It danced on a Tuesday.\n\nBy Friday it was shut.',
  ],
];

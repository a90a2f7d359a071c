/** Sixty falsehoods planted in tellings of invented sentences, of the six kinds that a draft made by rule can slip into, each beside a telling that is true. */
export interface Planted {
  kind: 'subject' | 'hedge' | 'thing' | 'denial' | 'order' | 'whole';
  source: string;
  false: string;
  true: string;
}
const row = (kind: Planted['kind'], source: string, wrong: string, right: string): Planted => ({
  kind,
  source,
  false: wrong,
  true: right,
});

export const PLANTED: readonly Planted[] = [
  row(
    'subject',
    'The captain called the harbour when the pilot fell ill.',
    'The captain fell ill.',
    'The captain called the harbour when the pilot fell ill.',
  ),
  row(
    'subject',
    'The mill was sold to a brewer after the owner had gone bankrupt.',
    'The brewer had gone bankrupt.',
    'The owner had gone bankrupt. After that the mill was sold to a brewer.',
  ),
  row(
    'subject',
    'The teacher noticed that two pupils had copied the answers.',
    'The teacher had copied the answers.',
    'Two pupils had copied the answers. The teacher noticed.',
  ),
  row(
    'subject',
    'The bridge collapsed because the river had washed out the pier.',
    'The pier collapsed because the river had washed it out.',
    'The bridge collapsed because the river had washed out the pier.',
  ),
  row(
    'subject',
    'The museum bought the clock from a farmer who had found it in a barn.',
    'The museum had found the clock in a barn.',
    'A farmer had found the clock in a barn. The museum bought it.',
  ),
  row(
    'subject',
    'The council paid the divers who searched the lake.',
    'The council searched the lake.',
    'The council paid the divers who searched the lake.',
  ),
  row(
    'subject',
    'The storm broke the mast while the crew slept below.',
    'The crew broke the mast.',
    'The storm broke the mast while the crew slept below.',
  ),
  row(
    'subject',
    'The judge freed the miner whom the company had accused.',
    'The miner freed the judge.',
    'The judge freed the miner whom the company had accused.',
  ),
  row(
    'subject',
    'The engineer wrote to the minister, and the minister stopped the work.',
    'The engineer stopped the work.',
    'The engineer wrote to the minister. The minister stopped the work.',
  ),
  row(
    'subject',
    'The dog woke the watchman, who rang the bell.',
    'The dog rang the bell.',
    'The dog woke the watchman, who rang the bell.',
  ),

  row(
    'hedge',
    'The fire was probably started by a lamp.',
    'The fire was started by a lamp.',
    'The fire was most likely started by a lamp.',
  ),
  row(
    'hedge',
    'The drug may reduce pain in older patients.',
    'The drug reduces pain in older patients.',
    'The drug may cut pain in older patients.',
  ),
  row(
    'hedge',
    'About 300 people came to the meeting.',
    '300 people came to the meeting.',
    'Around 300 people came to the meeting.',
  ),
  row(
    'hedge',
    'The tower is thought to date from the ninth century.',
    'The tower dates from the ninth century.',
    'The tower is believed to date from the ninth century.',
  ),
  row(
    'hedge',
    'The repairs could take two years.',
    'The repairs take two years.',
    'The repairs could take two years.',
  ),
  row(
    'hedge',
    'Almost half of the nests were empty.',
    'Half of the nests were empty.',
    'Nearly half of the nests were empty.',
  ),
  row('hedge', 'Sleep seems to help memory.', 'Sleep helps memory.', 'Sleep appears to help memory.'),
  row('hedge', 'The ship perhaps struck a rock.', 'The ship struck a rock.', 'The ship maybe struck a rock.'),
  row(
    'hedge',
    'More than 40 boats were lost that night.',
    '40 boats were lost that night.',
    'Over 40 boats were lost that night.',
  ),
  row(
    'hedge',
    'Police believe that the thief had a key.',
    'The thief had a key.',
    'Police think the thief had a key.',
  ),

  row(
    'thing',
    'The dam is 40 metres high and holds 9 million litres.',
    'The dam is 9 metres high.',
    'The dam is 40 metres high. It holds 9 million litres.',
  ),
  row(
    'thing',
    'Of 120 patients 45 slept better and 12 slept worse.',
    'Of 120 patients 12 slept better.',
    'Of 120 patients 45 slept better.',
  ),
  row(
    'thing',
    'The ticket costs £8 for adults and £3 for children.',
    'The ticket costs £3 for adults.',
    'For adults the ticket costs 8 pounds, for children 3.',
  ),
  row(
    'thing',
    'The library has 60 chairs and 14 desks.',
    'The library has 60 desks.',
    'The library has 60 chairs and 14 desks.',
  ),
  row(
    'thing',
    'The line was opened in 1882 and closed in 1961.',
    'The line was closed in 1882.',
    'The line was opened in 1882. It was closed in 1961.',
  ),
  row(
    'thing',
    'Each bell weighs 300 kilograms and rings for 20 seconds.',
    'Each bell rings for 300 seconds.',
    'Every bell weighs 300 kilograms. It rings for 20 seconds.',
  ),
  row(
    'thing',
    'The village has 90 houses, a school with 31 pupils and two wells.',
    'The village has a school with 90 pupils.',
    'The village has 90 houses. Its school has 31 pupils.',
  ),
  row(
    'thing',
    'Errors fell from 50 to 34 in the first group and from 49 to 47 in the second.',
    'Errors fell from 50 to 47 in the first group.',
    'Errors went down from 50 to 34 in the first group.',
  ),
  row(
    'thing',
    'The tunnel took 7 years to dig and cost £22 million.',
    'The tunnel took 22 years to dig.',
    'The tunnel took 7 years to dig.',
  ),
  row(
    'thing',
    'The north pond has 16 frogs, the south pond has 70 newts.',
    'The north pond has 70 frogs.',
    'The north pond has 16 frogs.',
  ),

  row(
    'denial',
    'The inspector did not find the crack.',
    'The inspector found the crack.',
    'The inspector didn’t find the crack.',
  ),
  row(
    'denial',
    'Nobody was hurt in the fall.',
    'Somebody was hurt in the fall.',
    'No one was hurt in the fall.',
  ),
  row(
    'denial',
    'The owner never paid the builders.',
    'The owner paid the builders.',
    'The owner never paid the builders.',
  ),
  row('denial', 'The lamp works without oil.', 'The lamp works with oil.', 'The lamp works without oil.'),
  row(
    'denial',
    'The two groups did not differ in age.',
    'The two groups differed in age.',
    'The two groups didn’t differ in age.',
  ),
  row(
    'denial',
    'There was no bell in the tower.',
    'There was a bell in the tower.',
    'There was no bell in the tower.',
  ),
  row(
    'denial',
    'The harbour cannot take large ships.',
    'The harbour can take large ships.',
    'The harbour can’t take big ships.',
  ),
  row(
    'denial',
    'The map shows none of the wells.',
    'The map shows the wells.',
    'The map shows none of the wells.',
  ),
  row(
    'denial',
    'The letter was not sent before Friday.',
    'The letter was sent before Friday.',
    'The letter wasn’t sent before Friday.',
  ),
  row(
    'denial',
    'The company neither apologised nor paid.',
    'The company apologised and paid.',
    'The company neither apologised nor paid.',
  ),

  row(
    'order',
    'The gate was locked after the guests had left.',
    'The gate was locked before the guests left.',
    'The guests had left. After that the gate was locked.',
  ),
  row(
    'order',
    'She sold the farm before her brother returned.',
    'She sold the farm after her brother returned.',
    'She sold the farm before her brother returned.',
  ),
  row(
    'order',
    'The alarm rang after the water reached the cellar.',
    'The alarm rang before the water reached the cellar.',
    'After the water reached the cellar, the alarm rang.',
  ),
  row(
    'order',
    'They tested the rope before they climbed the tower.',
    'They climbed the tower before they tested the rope.',
    'They tested the rope before they climbed the tower.',
  ),
  row(
    'order',
    'The road was widened after two lorries collided.',
    'Two lorries collided after the road was widened.',
    'Two lorries collided. After that the road was widened.',
  ),
  row(
    'order',
    'The choir sang until the lights failed.',
    'The choir sang after the lights failed.',
    'The choir sang until the lights failed.',
  ),
  row(
    'order',
    'The owner painted the boat before he launched it.',
    'The owner launched the boat before he painted it.',
    'The owner painted the boat before he launched it.',
  ),
  row(
    'order',
    'The doctor arrived after the fever had broken.',
    'The fever broke after the doctor arrived.',
    'The doctor arrived after the fever had broken.',
  ),
  row(
    'order',
    'The bank failed before the mine opened.',
    'The mine opened before the bank failed.',
    'The bank failed before the mine opened.',
  ),
  row(
    'order',
    'The first ship sailed after the ice melted.',
    'The ice melted after the first ship sailed.',
    'After the ice melted, the first ship sailed.',
  ),

  row(
    'whole',
    'Most of the villagers signed the letter.',
    'All of the villagers signed the letter.',
    'Most of the villagers signed the letter.',
  ),
  row('whole', 'Some houses lost their roofs.', 'Houses lost their roofs.', 'Some houses lost their roofs.'),
  row('whole', 'Half of the chairs were broken.', 'The chairs were broken.', 'Half the chairs were broken.'),
  row(
    'whole',
    'Many farmers sold their land.',
    'Every farmer sold their land.',
    'Many farmers sold their land.',
  ),
  row('whole', 'Only the east wing burned.', 'The east wing burned.', 'Just the east wing burned.'),
  row(
    'whole',
    'Few children could read the sign.',
    'The children could read the sign.',
    'Few children could read the sign.',
  ),
  row('whole', 'Several windows were broken.', 'All windows were broken.', 'Several windows were broken.'),
  row('whole', 'Most patients slept better.', 'Patients slept better.', 'Most patients slept better.'),
  row(
    'whole',
    'Some of the letters were never opened.',
    'None of the letters were opened.',
    'Some of the letters were never opened.',
  ),
  row(
    'whole',
    'Each keeper served for two months.',
    'Some keepers served for two months.',
    'Every keeper served for two months.',
  ),
];

/** How central each sentence is: LexRank (Erkan and Radev 2004) on stemmed content words. */

const STOP = new Set(
  'a an the and or but if of to in on at by for from with as is are was were be been am it its this that these those he she they them his her their we us our you your i me my not no so than then there here which who whom whose what when where how has have had do does did will would can could may might must shall should into over under about after before between out up down off all any both each more most other some such only own same very s t'.split(
    ' ',
  ),
);

/** Content stems: lower case, without the commonest English endings (a light stemmer after Harman 1991, "s-stemmer", with -ed and -ing). */
export function stems(text: string): string[] {
  return (text.toLowerCase().match(/[\p{L}\p{N}]+(?:[’'][\p{L}]+)?/gu) ?? [])
    .map((w) => w.replace(/[’'].*$/, ''))
    .filter((w) => w.length > 1 && !STOP.has(w))
    .map((w) =>
      w.length > 4
        ? w
            .replace(/ies$/, 'y')
            .replace(/(?<=[^aeious])es$|(?<=[^us])s$/, '')
            .replace(/(?<=[^e].{2,})(?:ing|ed)$/, '')
        : w.replace(/(?<=..[^us])s$/, ''),
    );
}

const DAMPING = 0.85;
const ROUNDS = 40;
const THRESHOLD = 0.08;
/** Above this many sentences the square of comparisons is too much: each is then compared with its neighbours only. */
const WINDOW = 400;

/** Centrality of each text, 0 to 1 (the most central has 1). */
export function lexRank(texts: readonly string[]): number[] {
  const bags = texts.map((t) => {
    const counts = new Map<string, number>();
    for (const s of stems(t)) counts.set(s, (counts.get(s) ?? 0) + 1);
    return counts;
  });
  const df = new Map<string, number>();
  for (const bag of bags) for (const s of bag.keys()) df.set(s, (df.get(s) ?? 0) + 1);
  const idf = (s: string) => Math.log(1 + texts.length / df.get(s)!);
  const norms = bags.map((bag) => Math.sqrt([...bag].reduce((sum, [s, n]) => sum + (n * idf(s)) ** 2, 0)));
  const links: [number, number][][] = bags.map(() => []);
  for (let i = 0; i < bags.length; i++)
    for (let j = i + 1; j < Math.min(bags.length, i + WINDOW); j++) {
      let dot = 0;
      const [small, large] = bags[i].size < bags[j].size ? [bags[i], bags[j]] : [bags[j], bags[i]];
      for (const [s, n] of small) {
        const other = large.get(s);
        if (other) dot += n * other * idf(s) ** 2;
      }
      const cosine = dot / (norms[i] * norms[j] || 1);
      if (cosine > THRESHOLD) {
        links[i].push([j, cosine]);
        links[j].push([i, cosine]);
      }
    }
  const sums = links.map((l) => l.reduce((s, [, w]) => s + w, 0));
  let rank = bags.map(() => 1);
  for (let round = 0; round < ROUNDS; round++)
    rank = rank.map(
      (_, i) => 1 - DAMPING + DAMPING * links[i].reduce((s, [j, w]) => s + (rank[j] * w) / sums[j], 0),
    );
  const most = Math.max(1e-9, ...rank);
  return rank.map((r) => r / most);
}

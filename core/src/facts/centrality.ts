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
const WINDOW = 250;

/** Centrality of each text, 0 to 1 (the most central has 1). Cosines come from an index of stems, so that texts that share none cost nothing. */
export const lexRank = (texts: readonly string[]): number[] => lexRankOf(texts.map(stems));

/** The same for texts whose stems are known already. */
export function lexRankOf(texts: readonly (readonly string[])[]): number[] {
  const n = texts.length;
  const postings = new Map<string, { at: number[]; counts: number[] }>();
  texts.forEach((own, i) => {
    for (const stem of own) {
      const list = postings.get(stem) ?? { at: [], counts: [] };
      if (!list.at.length) postings.set(stem, list);
      const last = list.at.length - 1;
      if (list.at[last] === i) list.counts[last]++;
      else {
        list.at.push(i);
        list.counts.push(1);
      }
    }
  });
  const norms = new Float64Array(n);
  // Each text's stems as (list of the stem, place in it), with weights of tf and idf.
  const own: { list: number[]; weights: Float64Array; place: number }[][] = texts.map(() => []);
  for (const { at, counts } of postings.values()) {
    const idf = Math.log(1 + n / at.length);
    const weights = Float64Array.from(counts, (c) => c * idf);
    at.forEach((i, place) => {
      norms[i] += weights[place] ** 2;
      own[i].push({ list: at, weights, place });
    });
  }
  for (let i = 0; i < n; i++) norms[i] = Math.sqrt(norms[i]) || 1;
  const links: [from: number, to: number, cosine: number][] = [];
  const dots = new Float64Array(n);
  const sums = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const met: number[] = [];
    for (const { list, weights, place } of own[i])
      for (let k = place + 1; k < list.length && list[k] < i + WINDOW; k++) {
        const j = list[k];
        if (dots[j] === 0) met.push(j);
        dots[j] += weights[place] * weights[k];
      }
    for (const j of met) {
      const cosine = dots[j] / (norms[i] * norms[j]);
      dots[j] = 0;
      if (cosine <= THRESHOLD) continue;
      links.push([i, j, cosine]);
      sums[i] += cosine;
      sums[j] += cosine;
    }
  }
  let rank = new Float64Array(n).fill(1);
  for (let round = 0; round < ROUNDS; round++) {
    const next = new Float64Array(n).fill(1 - DAMPING);
    for (const [i, j, cosine] of links) {
      next[i] += (DAMPING * rank[j] * cosine) / sums[j];
      next[j] += (DAMPING * rank[i] * cosine) / sums[i];
    }
    rank = next;
  }
  const most = rank.reduce((a, b) => Math.max(a, b), 1e-9);
  return Array.from(rank, (r) => r / most);
}

/** The same picture twice, found by what it shows and what that means. */
import type { Kin } from '../language/kin.ts';
import type { Picture } from './pictures.ts';

/** Scenes this close have the same picture more often on purpose than by mistake. */
const NEXT_DOOR = 1;
/**
 * The same picture twice, by meaning: main things that are one or mean the same (WordNet), with the same people. The first
 * stays; a later one is shown another search word that is not in use, or the same thing from nearer.
 */
export function withRepeats(pictures: readonly Picture[], kin: Kin): Picture[] {
  const main = (p: Picture) => {
    const first = p.search.find((w) => w.why !== 'name') ?? p.search[0];
    return first?.why === 'stands for' ? first.text : (first?.key ?? '');
  };
  const last = (key: string) => key.split(' ').at(-1) ?? '';
  const firsts: { p: Picture; at: number; key: string }[] = [];
  return pictures.map((p, at) => {
    const key = main(p);
    if (!key) return p;
    const same = firsts.find(
      (f) =>
        at - f.at > NEXT_DOOR &&
        f.p.size === p.size &&
        f.p.cast.join() === p.cast.join() &&
        (f.key === key || kin.likeness(last(f.key), last(key)) === 1),
    );
    if (!same) {
      firsts.push({ p, at, key });
      return p;
    }
    const other = p.search.find(
      (w) => w.why === 'thing' && w.key !== key && !firsts.some((f) => f.key === w.key),
    );
    return {
      ...p,
      repeat: {
        of: same.p.scene,
        what: p.search.find((w) => w.key === key)?.text ?? key,
        instead: other?.text ?? `${key}, ${p.angle === 'overhead' ? 'from the side' : 'from above'}`,
      },
    };
  });
}

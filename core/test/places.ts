/** Facts under the names that labels of the tests have for them: by their place, "f1", "f2"… */
import type { Fact } from '../src/facts/index.ts';

export function byPlace(facts: readonly Fact[]): Fact[] {
  const names = new Map(facts.map((f, i) => [f.id, `f${i + 1}`]));
  return facts.map((f) => ({
    ...f,
    id: names.get(f.id)!,
    leans: f.leans.map((l) => ({ ...l, on: names.get(l.on)! })),
  }));
}

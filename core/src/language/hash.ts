/** FNV-1a, 32 bits (Fowler, Noll and Vo 1991), from a seed. */
export function fnv1a(text: string, seed = 0): number {
  let h = 0x811c9dc5 ^ seed;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}

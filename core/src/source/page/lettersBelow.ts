/** Letters below each element, its own and those of all in it: one walk, since asking each element costs its whole depth again. */
export function lettersBelow(root: Element | null): ReadonlyMap<Element, number> {
  const out = new Map<Element, number>();
  if (!root) return out;
  const waiting: { element: Element; entered: boolean }[] = [{ element: root, entered: false }];
  for (let top = waiting.pop(); top; top = waiting.pop()) {
    const { element, entered } = top;
    if (!entered) {
      waiting.push({ element, entered: true });
      for (const child of element.children) waiting.push({ element: child, entered: false });
      continue;
    }
    let letters = 0;
    for (const node of element.childNodes)
      letters +=
        node.nodeType === 3 ? (node.textContent ?? '').trim().length : (out.get(node as Element) ?? 0);
    out.set(element, letters);
  }
  return out;
}

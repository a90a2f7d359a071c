/** An atom: the smallest piece of a page or a pasted text that is kept or left out whole. Plain data, whatever it came from. */
import type { BlockType } from '../document.ts';

export interface Atom {
  text: string;
  type: BlockType;
  /** The element that holds it, in capitals; '' in text without tags. */
  tag: string;
  /** Tags above it, the nearest first. */
  above: readonly string[];
  /** Class names and ids of itself and of each element above, the nearest first. */
  named: readonly string[];
  /** How it is marked up: tags and class names of itself and the two elements above. Alike for what is set alike. */
  look: string;
  /** The elements that hold it by number, the nearest first: two atoms with a number in common stand in one element. */
  inside: readonly number[];
  /** Letters of it that are a link's. */
  linked: number;
  /** Letters of it in bold. */
  bold: number;
  step?: number;
  within?: number;
  /** Heads of the table it is a row of; of a row of heads itself, nothing. */
  heads?: readonly string[];
  /** A time the markup gives it (ISO 8601, or a day in words that it shows under the pointer). */
  time?: string;
  /** Short texts that its markup sets apart (links, bold, spans), in order: names stand in such. */
  spans?: readonly string[];
  /** It shares a small element with a picture. */
  pictured?: true;
  /** A rule is drawn over it. */
  ruled?: true;
  /** In text without tags: blank lines before it. */
  gap?: number;
}

export const wordsOf = (text: string): string[] => text.match(/[\p{L}\p{N}]+(?:['’][\p{L}]+)*/gu) ?? [];

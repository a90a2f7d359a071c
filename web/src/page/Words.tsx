/** Two texts as one: what goes is struck in copper, what comes is underlined in spruce. */
import { compareWords } from '@ursprung/core/script';

export function Words({ before, after }: { before: string; after: string }) {
  return (
    <span className="take">
      {compareWords(before, after).map((w, i) =>
        w.change === 'same' ? (
          <span key={i}>{w.text}</span>
        ) : w.change === 'gone' ? (
          <del key={i} className="gonewords">
            {w.text}
          </del>
        ) : (
          <ins key={i} className="newwords">
            {w.text}
          </ins>
        ),
      )}
    </span>
  );
}

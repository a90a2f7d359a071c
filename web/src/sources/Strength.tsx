/** How strong a fact is: a dot on a rule, from nothing at the left to all at the right. */
export function Strength({ of }: { of: number }) {
  return (
    <svg width="44" height="10" role="img" aria-label={`strength ${Math.round(of * 100)} of 100`}>
      <path d="M1 2v6M1 5h42M43 2v6" stroke="var(--mark)" fill="none" />
      <circle cx={1 + 42 * of} cy="5" r="3" fill="var(--ink)" />
    </svg>
  );
}

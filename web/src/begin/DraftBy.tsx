/** Who writes the words: rules at once, the text service in rounds, or a person with an order. */
import { useQuery } from '@tanstack/react-query';
import { api } from '../api.ts';
import { Choice } from '../shell/Choice.tsx';

export type DraftedBy = 'rule' | 'service' | 'person';

/** Letters of an order besides its facts, and for a word that is wanted with the facts it needs (measured on the demo's orders). */
const [ORDER_LETTERS, LETTERS_A_WORD] = [5000, 26];
/** As services tell it (common practice, no published source). */
const [LETTERS_A_TOKEN, TOKENS_A_WORD] = [4, 1 / 0.75];

export function DraftBy({
  value,
  onChange,
  words,
}: {
  value: DraftedBy;
  onChange: (by: DraftedBy) => void;
  words: number;
}) {
  const service = useQuery({ queryKey: ['service'], queryFn: api.service }).data?.service ?? null;
  const tokensIn = (ORDER_LETTERS + words * LETTERS_A_WORD) / LETTERS_A_TOKEN;
  const tokensOut = words * TOKENS_A_WORD;
  const tokens = Math.round((tokensIn + tokensOut) / 100) * 100;
  const cost =
    !service || (service.priceIn === null && service.priceOut === null)
      ? ''
      : `, ${((tokensIn * (service.priceIn ?? 0) + tokensOut * (service.priceOut ?? 0)) / 1e6).toFixed(3)} in its money`;
  const says: Record<DraftedBy, string> = {
    rule: 'At once and on this machine, in words close to the source’s.',
    service: service
      ? `${service.host} gets an order with the facts, about ${tokens.toLocaleString('en')} tokens a round${cost}, at most three rounds. Each line is checked; you see it come.`
      : 'No text service is set. Set one under Commission, in any script.',
    person: 'An order to print or send stands ready under Commission; the answer is typed or pasted there.',
  };
  return (
    <div className="grid grid-cols-[70px_1fr] py-2 border-b border-hair">
      <span className="text-ink3 pt-1">draft by</span>
      <div>
        <Choice
          label="Draft by"
          value={value}
          onChange={onChange}
          options={[
            ['rule', 'rule'] as const,
            ...(service ? [['service', 'text service'] as const] : []),
            ['person', 'a person'] as const,
          ]}
        />
        <p className="m-0 text-ink3 text-[12.5px] leading-[17px]">{says[value]}</p>
      </div>
    </div>
  );
}

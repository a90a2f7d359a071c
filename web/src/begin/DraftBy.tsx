/** Who writes the words: rules at once, the text service in rounds, or a person with an order. */
import { useQuery } from '@tanstack/react-query';
import { api } from '../api.ts';
import { costsOf, moneyText } from '../commission/costs.ts';
import { Row } from './Row.tsx';
import { Choice } from '../shell/Choice.tsx';

export type DraftedBy = 'rule' | 'service' | 'person';

/** Letters of an order, and for each word that is wanted (fitted to 13 orders of the demo's sources; half of them are off by less than 12 %). */
const [ORDER_LETTERS, LETTERS_A_WORD] = [7000, 19];

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
  const size = { letters: ORDER_LETTERS + words * LETTERS_A_WORD, words };
  const { tokens, cost } = service ? costsOf(service, size) : { tokens: 0, cost: null };
  const says: Record<DraftedBy, string> = {
    rule: 'At once and on this machine, in words close to the source’s.',
    service: service
      ? `${service.host} gets an order with the facts, about ${(Math.round(tokens / 100) * 100).toLocaleString('en')} tokens${cost === null ? '' : `, ${moneyText(cost)} in its money`} a round, at most three rounds. Each line is checked; you see it come.`
      : 'No text service is set. Set one under Commission, in any script.',
    person: 'An order to print or send stands ready under Commission; the answer is typed or pasted there.',
  };
  return (
    <Row name="draft by">
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
    </Row>
  );
}

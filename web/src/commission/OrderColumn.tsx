/** The order as a checklist: what is asked, how it sounds, what must be said and when the reply says it. */
import { useMemo, useState } from 'react';
import {
  LEAST_LETTERS,
  disclosureOf,
  type CheckedReply,
  type Order,
  type OrderScope,
  type OrderedFact,
} from '@ursprung/core/commission/desk';
import type { CommissionView, TextServiceState } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { clockText } from '../text/clockText.ts';
import { costsOf, moneyText } from './costs.ts';
import { printOrder } from './printOrder.ts';
import { RoundsPart } from './RoundsPart.tsx';
import type { useRounds } from './useRounds.ts';

/** The letters and words of orders. */
const sizeOf = (orders: readonly Pick<Order, 'text' | 'sections'>[]) => ({
  letters: orders.reduce((n, o) => n + o.text.length, 0),
  words: orders.flatMap((o) => o.sections).reduce((n, s) => n + s.words, 0),
});

export function OrderColumn({
  session,
  scope,
  onScope,
  orders,
  noOrder,
  letters,
  onLetters,
  checked,
  current,
  past,
  onChoose,
  onRemove,
  service,
  onSend,
  onService,
  rounds,
  onProblem,
  fact,
  line,
}: {
  session: ScriptSession;
  scope: OrderScope;
  onScope: (scope: OrderScope) => void;
  orders: Order[] | null;
  noOrder: string | null;
  letters: number;
  onLetters: (letters: number) => void;
  checked: CheckedReply | null;
  current: CommissionView | null;
  past: readonly CommissionView[];
  onChoose: (id: string) => void;
  onRemove: (id: string) => void;
  service: TextServiceState['service'];
  onSend: (order: string) => void;
  onService: () => void;
  rounds: ReturnType<typeof useRounds>;
  onProblem: (error: Error) => void;
  fact: { source: string; fact: string } | null;
  /** The chosen line of ours, to order it alone. */
  line: { section: string; line: string } | null;
}) {
  const sections = useSnapshot(session, (s) => s.sections);
  const [open, setOpen] = useState(false);
  const [part, setPart] = useState(0);
  const [said, setSaid] = useState<string | null>(null);
  const order = orders?.[Math.min(part, orders.length - 1)] ?? null;
  const text = current?.scope.after ? current.order : (order?.text ?? '');
  const title = sections.find((s) => s.id === scope.section)?.title;
  const disclosure = disclosureOf(sections);

  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setSaid('Copied. Paste it to whoever writes.');
    } catch {
      setOpen(true);
      setSaid('Copying is not allowed here; mark the text and copy it.');
    }
  };
  const save = () => {
    const url = URL.createObjectURL(new Blob([text], { type: 'text/plain' }));
    const link = Object.assign(document.createElement('a'), { href: url, download: 'order.txt' });
    link.click();
    URL.revokeObjectURL(url);
  };
  return (
    <section className="min-h-0 overflow-auto px-5 pb-4" aria-label="The order" tabIndex={0}>
      <div className="columnhead border-b border-hair flex gap-3">
        <span className="flex-1">the order</span>
        {order && <span>{text.length.toLocaleString('en')} letters</span>}
      </div>
      <label className="block pt-2">
        <span className="sr-only">What is ordered</span>
        <select
          className="field w-full font-semibold text-ink"
          value={scope.section ?? ''}
          onChange={(e) => onScope(e.target.value ? { section: e.target.value } : {})}
        >
          <option value="">the whole script</option>
          {sections.map((s, i) => (
            <option key={s.id} value={s.id}>
              section {i + 1}, {s.title}
            </option>
          ))}
        </select>
      </label>
      {scope.line ? (
        <p className="text-ink2">
          one line of “{title}”{' '}
          <button
            className="quietpress"
            onClick={() => onScope(scope.section ? { section: scope.section } : {})}
          >
            the whole section again
          </button>
        </p>
      ) : (
        line && (
          <button className="quietpress" onClick={() => onScope(line)}>
            only the chosen line
          </button>
        )
      )}
      {noOrder && (
        <p className="pt-2">
          <span className="finding">No order.</span> {noOrder}
        </p>
      )}
      {!order && !noOrder && <p className="pt-2 text-ink3">writing the order…</p>}
      {order && (
        <>
          <p className="pt-1 text-ink2">
            {current?.scope.after
              ? 'An order for just what failed.'
              : `${order.sections.reduce((n, s) => n + s.words, 0)} words, ${clockText(order.sections.reduce((n, s) => n + s.seconds * 1000, 0))}${orders!.length > 1 ? `, order ${order.part.n} of ${order.part.of}` : ''}`}
            {order.dropped > 0 && `; ${order.dropped} weaker facts left out for length`}
          </p>
          <div className="flex flex-wrap gap-x-4 pt-1">
            <button className="textpress" onClick={() => void copy()}>
              Copy the order
            </button>
            <button className="quietpress" onClick={save}>
              Save
            </button>
            <button className="quietpress" onClick={() => printOrder(text)}>
              Print
            </button>
            <button className="quietpress" aria-expanded={open} onClick={() => setOpen((o) => !o)}>
              {open ? 'Hide it' : 'Read it'}
            </button>
          </div>
          {orders!.length > 1 && (
            <p>
              {orders!.map((o, i) => (
                <button
                  key={i}
                  className="choice"
                  data-state={o === order ? 'checked' : ''}
                  onClick={() => setPart(i)}
                >
                  {i + 1} of {orders!.length}
                </button>
              ))}
            </p>
          )}
          {service && (
            <RoundsPart
              last={rounds.last}
              running={rounds.running}
              scope={scope}
              host={service.host}
              {...costsOf(service, sizeOf(orders!))}
              onStart={(most) => rounds.start(scope, most).catch(onProblem)}
              onStop={() => rounds.stop().catch(onProblem)}
            />
          )}
          {!rounds.running && (
            <Service service={service} order={order} text={text} onSend={onSend} onService={onService} />
          )}
          {said && (
            <p className="text-ink2" role="status">
              {said}
            </p>
          )}
          {open && (
            <pre className="mt-2 p-3 bg-lit border border-hair whitespace-pre-wrap font-sans text-[12px] leading-[17px] select-text">
              {text}
            </pre>
          )}
          <label className="block pt-1 text-ink3">
            at most{' '}
            <input
              type="number"
              className="field w-20 text-ink"
              min={LEAST_LETTERS}
              max={200_000}
              step={1000}
              defaultValue={letters}
              onBlur={(e) => onLetters(Math.max(LEAST_LETTERS, Math.min(200_000, Number(e.target.value) || letters)))} // prettier-ignore
            />{' '}
            letters an order
          </label>
          <Facts order={order} checked={checked} fact={fact} />
        </>
      )}
      {past.length > 0 && (
        <>
          <div className="columnhead border-b border-hair mt-3">replies for this part</div>
          {past.map((c) => (
            <p key={c.id} className="flex gap-2 items-baseline border-b border-hair py-0.5">
              <button
                className={`flex-1 min-w-0 text-left truncate cursor-pointer min-h-6 ${c.id === current?.id ? 'font-semibold text-ink' : 'text-ink2'}`}
                onClick={() => onChoose(c.id)}
              >
                {c.to.who || 'a writer'}
                {c.scope.after ? ', again' : ''}, {stateOf(c)}
                {c.tokensIn + c.tokensOut > 0 &&
                  `, ${(c.tokensIn + c.tokensOut).toLocaleString('en')} tokens${c.cost === null ? '' : `, ${moneyText(c.cost)}`}`}
              </button>
              <button
                className="quietpress"
                onClick={() => onRemove(c.id)}
                aria-label={`Put away the reply of ${c.to.who || 'a writer'}`}
              >
                put away
              </button>
            </p>
          ))}
        </>
      )}
      {disclosure && <p className="pt-3 text-ink2">{disclosure}</p>}
    </section>
  );
}

const stateOf = (c: CommissionView) =>
  ({
    waiting: 'no reply yet',
    arriving: 'arriving',
    arrived: c.at.slice(11, 16),
    broken: 'broke off',
    failed: 'failed',
  })[c.state];

function Service({
  service,
  order,
  text,
  onSend,
  onService,
}: {
  service: TextServiceState['service'];
  order: Order;
  text: string;
  onSend: (order: string) => void;
  onService: () => void;
}) {
  if (!service)
    return (
      <button className="quietpress" onClick={onService}>
        Set a text service to send it to
      </button>
    );
  const { tokens, cost } = costsOf(service, sizeOf([{ text, sections: order.sections }]));
  return (
    <div className="pt-1">
      <button className="textpress text-left" onClick={() => onSend(text)}>
        Send this order, its facts and passages to {service.host}
      </button>
      <p className="text-ink3">
        {service.standIn ? 'a stand-in that ships, on this machine; ' : ''}
        {service.model && `${service.model}; `}
        about {tokens.toLocaleString('en')} tokens
        {cost !== null && `, ${moneyText(cost)} in its money`}; {service.usedTokens.toLocaleString('en')}
        {service.monthlyTokens !== null && ` of ${service.monthlyTokens.toLocaleString('en')}`} used this
        month
        {service.usedCost !== null && ` (${service.usedCost.toFixed(2)})`}{' '}
        <button className="quietpress" onClick={onService}>
          change
        </button>
      </p>
    </div>
  );
}

/** What must be said with the moment the reply says it; the facts that go along, the chosen row's lit. */
function Facts({
  order,
  checked,
  fact,
}: {
  order: Order;
  checked: CheckedReply | null;
  fact: { source: string; fact: string } | null;
}) {
  const facts = order.sections.flatMap((s) => s.facts);
  const must = facts.filter((f) => f.must);
  const rest = facts.filter((f) => !f.must);
  const heard = useMemo(() => {
    const at = new Map<string, number>();
    let ms = 0;
    for (const l of checked?.lines ?? []) {
      at.set(l.id, ms);
      ms += l.ms;
    }
    return at;
  }, [checked]);
  const isChosen = (f: OrderedFact) => fact !== null && f.source === fact.source && f.fact === fact.fact;
  const status = (f: OrderedFact) => {
    if (!checked) return null;
    const by = checked.saidBy[`${f.source}:${f.fact}`];
    if (by) return <span className="clock">{clockText(heard.get(by) ?? 0, false)}</span>;
    return checked.done ? (
      <span className="finding">not said</span>
    ) : (
      <span className="text-ink3">arriving</span>
    );
  };
  const row = (f: OrderedFact) => (
    <div
      key={f.ref}
      className={`py-1 border-b border-hair ${isChosen(f) ? 'bg-lit outline outline-1 outline-[var(--edge)] px-2 -mx-2' : ''}`}
      ref={isChosen(f) ? (el) => el?.scrollIntoView({ block: 'nearest' }) : undefined}
    >
      <div className="flex gap-2 items-baseline">
        <span className="clock font-semibold text-ink">{f.ref}</span>
        <span
          className={`flex-1 min-w-0 font-serif text-[13px] leading-[18px] text-ink2 ${isChosen(f) ? '' : 'line-clamp-2'}`}
        >
          {f.text}
        </span>
        {f.must && status(f)}
      </div>
    </div>
  );
  return (
    <>
      <div className="columnhead border-b border-hair mt-2 flex">
        <span className="flex-1">must say</span>
        <span>{checked ? 'reply' : ''}</span>
      </div>
      {must.map(row)}
      {rest.length > 0 && (
        <>
          <div className="columnhead border-b border-hair mt-2 flex">
            <span className="flex-1">goes along with it</span>
            <span>{rest.length}</span>
          </div>
          {rest.map(row)}
        </>
      )}
    </>
  );
}

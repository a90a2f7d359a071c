/** Translations: out as XLIFF with each line's seconds, in again, timed in their own language. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api.ts';
import { clockText } from '../text/clockText.ts';
import type { PreviewProps } from './Preview.tsx';

export function Languages({ sheet, language, session, onLanguage }: PreviewProps) {
  const { id } = session.script;
  const client = useQueryClient();
  const list = useQuery({ queryKey: ['translations', id], queryFn: () => api.translations(id) });
  const done = (to: string | null) => {
    void client.invalidateQueries({ queryKey: ['translations', id] });
    void client.invalidateQueries({ queryKey: ['sheet', id] });
    onLanguage(to);
  };
  const take = useMutation({
    mutationFn: async (file: File) => api.takeXliff(id, await file.text()),
    onSuccess: (t) => done(t.language),
  });
  const machine = useMutation({
    mutationFn: () => api.translate(id, 'es'),
    onSuccess: (t) => done(t.language),
  });
  const remove = useMutation({
    mutationFn: (l: string) => api.removeTranslation(id, l),
    onSuccess: () => done(null),
  });
  const say = useMutation({
    mutationFn: ({ line, text }: { line: string; text: string }) =>
      api.sayTranslated(id, language!, line, text),
    onSuccess: () => done(language),
  });
  const error = take.error ?? machine.error ?? remove.error ?? say.error;
  const over = new Map(sheet.tooLong.map((t) => [t.line, t]));
  const lines = sheet.blocks.flatMap((b) => b.lines).filter((l) => l.silentMs === null);
  return (
    <>
      <div className="py-3 flex flex-wrap gap-4 items-center">
        <a className="textpress" href={api.exportAddress(id, 'xliff', { language })} download>
          Save XLIFF{language ? ` (${language})` : ' to translate'}
        </a>
        <label className="textpress cursor-pointer">
          Take in a translated XLIFF
          <input
            type="file"
            accept=".xlf,.xliff,application/xliff+xml"
            className="sr-only"
            onChange={(e) => e.target.files?.[0] && take.mutate(e.target.files[0])}
          />
        </label>
        <button className="textpress" disabled={machine.isPending} onClick={() => machine.mutate()}>
          {machine.isPending ? 'Translating…' : 'A first Spanish draft by the stand-in'}
        </button>
      </div>
      {error && (
        <p className="finding" role="alert">
          {error.message}
        </p>
      )}
      {take.data && (
        <p className="text-ink2" role="status">
          {take.data.lines} lines taken in{take.data.missing ? `, ${take.data.missing} not translated` : ''}
          {take.data.unknown ? `, ${take.data.unknown} of another script left out` : ''}.
        </p>
      )}
      <ul>
        {(list.data?.translations ?? []).map((t) => (
          <li
            key={t.language}
            className={`flex gap-3 border-t border-hair py-1 items-baseline ${t.language === language ? 'font-semibold' : ''}`}
          >
            <button
              className="cursor-pointer underline underline-offset-4"
              aria-pressed={t.language === language}
              onClick={() => onLanguage(t.language === language ? null : t.language)}
            >
              {t.name}
            </button>
            <span className="text-ink2 flex-1">
              {t.lines} lines{t.origin === 'machine' ? ', by a machine: to be gone over by a person' : ''}
              {t.estimated ? '; its pace is taken between languages that were measured' : ''}
            </span>
            <button className="textpress" onClick={() => remove.mutate(t.language)}>
              Remove
            </button>
          </li>
        ))}
      </ul>
      {list.data && !list.data.translations.length && <p className="text-ink3">No translation yet.</p>}
      {language && (
        <section className="pt-3" aria-label={`The script in ${language}`}>
          <p className="text-ink2 pb-1">
            {clockText(sheet.totalMs)} in its own language.{' '}
            {over.size ? (
              <span className="finding">{over.size} lines will not fit.</span>
            ) : (
              'Every line fits its place.'
            )}
          </p>
          {lines.map((l) => (
            <Translated
              key={l.id}
              text={l.parts.map((p) => (p.type === 'breath' ? '' : p.text)).join('')}
              language={language}
              over={over.get(l.id)}
              onSay={(text) => say.mutate({ line: l.id, text })}
            />
          ))}
        </section>
      )}
    </>
  );
}

/** One line in the other language: pressed, it can be said shorter; taken when it is left or with Enter. */
function Translated({
  text,
  language,
  over,
  onSay,
}: {
  text: string;
  language: string;
  over: { overMs: number; mayMs: number } | undefined;
  onSay: (text: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = (take: boolean) => {
    if (take && typed !== null && typed.trim() !== text) onSay(typed.trim());
    setTyped(null);
  };
  return (
    <div className="border-b border-hair py-1">
      {typed === null ? (
        <button
          dir="auto"
          lang={language}
          title="Say it otherwise"
          className="block w-full text-start cursor-text font-serif text-[15px] leading-[21px] hover:underline underline-offset-4 decoration-dotted"
          onClick={() => setTyped(text)}
        >
          {text || <span className="text-ink3">not translated</span>}
        </button>
      ) : (
        <textarea
          dir="auto"
          lang={language}
          aria-label="This line in the other language"
          className="field w-full font-serif text-[15px] leading-[21px] resize-y"
          rows={Math.max(2, Math.ceil(typed.length / 60))}
          maxLength={4000}
          autoFocus
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={() => leave(true)}
          onKeyDown={(e) => {
            if (e.key === 'Escape') leave(false);
            if (e.key === 'Enter' && !e.nativeEvent.isComposing) {
              e.preventDefault();
              leave(true);
            }
          }}
        />
      )}
      {over && (
        <span className="finding text-[12.5px] block">
          {(over.overMs / 1000).toFixed(1)} s too long: it may take {(over.mayMs / 1000).toFixed(1)} s.
        </span>
      )}
    </div>
  );
}

/** What a recipient gets, as a page: our own pages for voice, captions, languages and upload; files as their text. */
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, type HandoffSettings, type Sheet } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { clockText } from '../text/clockText.ts';
import { Blocks } from '../voice/Blocks.tsx';
import { Recording } from '../voice/Recording.tsx';
import { Rests } from '../voice/Rests.tsx';
import { Captions } from './Captions.tsx';
import { Languages } from './Languages.tsx';
import { Upload } from './Upload.tsx';

export interface PreviewProps {
  sheet: Sheet;
  what: string;
  language: string | null;
  session: ScriptSession;
  own: HandoffSettings;
  onChange: (change: Partial<HandoffSettings>) => void;
  onLanguage: (language: string | null) => void;
}

export function Preview(props: PreviewProps) {
  const { sheet, what, language, session } = props;
  return (
    <div className="px-8 py-5 max-w-[760px]">
      <div className="flex justify-between items-baseline pb-3 border-b border-ink">
        <h2 className="font-serif text-[19px] font-medium">{sheet.title}</h2>
        <span className="text-ink2">
          {clockText(sheet.totalMs)}
          {language ? `, ${language}` : ''}
        </span>
      </div>
      {sheet.changed && !sheet.changed.same && <ChangedSince changed={sheet.changed} />}
      {what === 'page' ? (
        <>
          <p className="py-2 flex gap-4">
            <Link className="textpress" to={`/script/${session.script.id}/voice`}>
              Open the page to speak from
            </Link>
          </p>
          <Rests session={session} rests={sheet.rests} />
          <Recording session={session} />
          <Blocks sheet={sheet} />
        </>
      ) : what === 'captions' ? (
        <Captions sheet={sheet} session={session} />
      ) : what === 'translation' ? (
        <Languages {...props} />
      ) : what === 'upload' ? (
        <Upload {...props} />
      ) : (
        <FileText {...props} />
      )}
    </div>
  );
}

function ChangedSince({ changed }: { changed: NonNullable<Sheet['changed']> }) {
  return (
    <details className="py-2 border-b border-hair">
      <summary className="cursor-pointer">
        <strong>Changed since it was last handed over:</strong> {changed.says.join(' ')}
      </summary>
      {changed.lines.slice(0, 30).map((l, i) => (
        <p key={i} className="font-serif text-[14px] leading-[19px] py-1 border-l-[3px] border-ink pl-3 mt-1">
          {l.before !== null && l.before !== l.after && (
            <span className="line-through text-ink3 block">{l.before}</span>
          )}
          {l.after !== null && <span className="block">{l.after}</span>}
          <span className="text-ink3 font-sans text-[12px]">
            {l.change}, {l.section}
          </span>
        </p>
      ))}
    </details>
  );
}

/** Formats that are shown as pages by the browser, or that hold no text to show. */
const PAGES = new Set(['pdf', 'twocolumn']);
const PACKED: Record<string, string> = { docx: 'pdf', 'twocolumn-docx': 'twocolumn', xlsx: 'csv' };

function FileText({ what, language, session, sheet }: PreviewProps) {
  const format = sheet.formats.find((f) => f.id === what);
  const shown = PACKED[what] ?? what;
  const { id } = session.script;
  const text = useQuery({
    queryKey: ['export', id, shown, language, sheet],
    queryFn: () => api.exported(id, shown, language),
    enabled: !!format && !PAGES.has(shown),
    retry: false,
    gcTime: 0,
  });
  if (!format) return <p className="py-6 text-ink2">Choose a file at the right.</p>;
  return (
    <>
      <p className="py-2 text-ink2 text-[12.5px]">
        {format.name}: {format.says}. Left behind: {format.loses}.
        {PACKED[what] ? ' Shown here as its words; the file itself is laid out.' : ''}
      </p>
      {what === 'ssml' && (
        <p className="pb-2 flex flex-wrap gap-x-4">
          <span className="text-ink3">One section:</span>
          {sheet.blocks.map((b) => (
            <a
              key={b.section}
              className="textpress"
              href={api.exportAddress(id, 'ssml', { language, section: b.section })}
              download
            >
              {b.title || 'untitled'}
            </a>
          ))}
        </p>
      )}
      {PAGES.has(shown) ? (
        <iframe
          title={format.name}
          className="w-full h-[76vh] border border-hair bg-white"
          src={api.exportAddress(id, shown, { language, show: true })}
        />
      ) : text.isError ? (
        <p className="finding">{text.error.message}</p>
      ) : text.data === undefined ? (
        <p className="text-ink3">Writing it…</p>
      ) : shown === 'csv' ? (
        <Table text={text.data} />
      ) : (
        <pre
          className="text-[12px] leading-[17px] font-mono whitespace-pre-wrap break-words"
          data-testid="file-text"
          dir="auto"
        >
          {text.data.length > SHOWN ? `${text.data.slice(0, SHOWN)}\n…` : text.data}
        </pre>
      )}
    </>
  );
}
const SHOWN = 60_000;
const COLUMNS = [0, 1, 2, 6, 8, 10];

/** The scene list's columns that are read first; the file has all of them. */
function Table({ text }: { text: string }) {
  const rows = parseRows(text.replace(/^\uFEFF/, ''));
  const [head, ...body] = rows;
  return (
    <table className="w-full text-[12.5px] leading-[17px]">
      <thead>
        <tr>
          {COLUMNS.map((c) => (
            <th key={c} className="text-left text-ink3 font-normal pr-3 border-b border-ink">
              {head[c]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {body.map((r, i) => (
          <tr key={i} className="align-top border-b border-hair">
            {COLUMNS.map((c) => (
              <td
                key={c}
                className={`pr-3 py-1 ${c < 3 ? 'clock' : c === 6 ? 'font-serif text-[14px]' : ''}`}
              >
                {r[c]}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
/** RFC 4180, as our own writer writes it. */
function parseRows(text: string): string[][] {
  const rows: string[][] = [[]];
  for (const m of text.matchAll(/("(?:[^"]|"")*"|[^,\r\n]*)(,|\r?\n|$)/g)) {
    const cell = m[1].startsWith('"') ? m[1].slice(1, -1).replace(/""/g, '"') : m[1];
    rows[rows.length - 1].push(cell);
    if (m[2] === '') break;
    if (m[2] !== ',') rows.push([]);
  }
  return rows.filter((r) => r.length > 1);
}

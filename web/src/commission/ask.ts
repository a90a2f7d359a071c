/** Sending an order, and opening a reply that lies in a file. */
import { readDraft } from '@ursprung/core/script';
import { api, type CommissionScope, type CommissionView } from '../api.ts';
import { base64Of } from '../text/base64.ts';

/** Writes the order down and sends it. Called by a press that says where it goes. */
export async function ask(scriptId: string, scope: CommissionScope, order: string): Promise<CommissionView> {
  const added = await api.addCommission(scriptId, { scope, order, to: { kind: 'service' } });
  return api.sendCommission(added.id);
}

const LARGEST = 4 * 1024 * 1024;

/** The words of a file as a reply: text as it is, other formats as the server reads drafts. */
export async function opened(file: File): Promise<string> {
  if (file.size > LARGEST) throw new Error(`“${file.name}” is ${(file.size / 1048576).toFixed(1)} MB; a reply can have at most 4 MB.`); // prettier-ignore
  if (/\.(?:txt|md)$/i.test(file.name) || file.type === 'text/plain') return file.text();
  const draft = await api.clean({ base64: await base64Of(file) });
  const text = draft.sections
    .map((s) => [...(s.title ? [`## ${s.title}`, ''] : []), ...s.lines.map((l) => l.text)].join('\n'))
    .join('\n\n');
  if (!readDraft(text).sections.some((s) => s.lines.length))
    throw new Error(`Nothing spoken was found in “${file.name}”.`);
  return text;
}

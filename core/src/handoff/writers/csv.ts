/** The scene list as comma-separated values (RFC 4180), by csv-stringify. */
import { stringify } from 'csv-stringify/sync';
import type { Writer } from '../writer.ts';
import { SCENE_COLUMNS, sceneRows } from './sceneRows.ts';

/** Spreadsheets take a cell that begins so for a formula. */
export const asText = (cell: string | number): string | number =>
  typeof cell === 'string' && /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;

export const csv: Writer = {
  id: 'csv',
  name: 'Scene list, CSV',
  says: 'a row a scene: seconds, words, search words, description, sound',
  loses: 'what lines rest on',
  extension: 'csv',
  suffix: 'scenes',
  mime: 'text/csv',
  for: ['editor'],
  write: (kit) =>
    stringify([[...SCENE_COLUMNS], ...sceneRows(kit).map((r) => r.map(asText))], {
      bom: true,
      record_delimiter: '\r\n',
    }),
};

/** The scene list as a workbook (ECMA-376), by write-excel-file: scenes, cast, captions. */
import type { Writer } from '../writer.ts';
import { LOOK_FIELDS } from '../../scenes/cast.ts';
import { SCENE_COLUMNS, sceneRows } from './sceneRows.ts';

type Cell = {
  value: string | number;
  type: typeof String | typeof Number;
  fontWeight?: 'bold';
  wrap?: boolean;
  alignVertical?: 'top';
};
const cell = (value: string | number): Cell => ({
  value,
  type: typeof value === 'number' ? Number : String,
  wrap: true,
  alignVertical: 'top',
});
const head = (value: string): Cell => ({ value, type: String, fontWeight: 'bold' });
const WIDTHS: readonly number[] = [
  6, 8, 8, 12, 18, 12, 46, 8, 30, 24, 60, 18, 20, 22, 18, 24, 24, 20, 40, 12, 20,
];

export const xlsx: Writer = {
  id: 'xlsx',
  name: 'Scene list, workbook',
  says: 'scenes, cast and captions on three sheets',
  loses: 'what lines rest on',
  extension: 'xlsx',
  suffix: 'scenes',
  mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  for: ['editor'],
  write: async (kit) => {
    const { default: writeExcel } = await import('write-excel-file/node');
    const looks = [...new Set([...LOOK_FIELDS.person, ...LOOK_FIELDS.place])];
    const buffer = await writeExcel([
      {
        data: [SCENE_COLUMNS.map(head), ...sceneRows(kit).map((r) => r.map(cell))],
        sheet: 'Scenes',
        columns: WIDTHS.map((width) => ({ width })),
      },
      {
        data: [
          ['name', 'kind', ...looks].map(head),
          ...kit.film.cast.map((c) =>
            [c.name, c.kind, ...looks.map((f) => c.looks[f]?.text ?? '')].map(cell),
          ),
        ],
        sheet: 'Cast and places',
        columns: [{ width: 28 }, { width: 8 }],
      },
      {
        data: [
          ['from', 'to', 'text'].map(head),
          ...kit.captions.map((c) => [c.startMs / 1000, c.endMs / 1000, c.rows.join('\n')].map(cell)),
        ],
        sheet: 'Captions',
        columns: [{ width: 9 }, { width: 9 }, { width: 50 }],
      },
    ]).toBuffer();
    return new Uint8Array(buffer);
  },
};

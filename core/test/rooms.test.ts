import { readFileSync, readdirSync } from 'node:fs';
import { expect } from 'chai';

/** The direction in which data flows: a room imports only from rooms above it. */
const ROOMS = [
  'language',
  'timing',
  'source',
  'facts',
  'script',
  'trace',
  'measure',
  'plan',
  'draft',
  'commission',
  'scenes',
  'review',
  'revise',
  'handoff',
];
const root = new URL('../src/', import.meta.url);

const files = (folder: URL): URL[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? files(new URL(`${e.name}/`, folder)) : [new URL(e.name, folder)],
  );

describe('the core’s rooms', () => {
  const all = ROOMS.flatMap((room) =>
    files(new URL(`${room}/`, root)).map((file) => ({ room, file, text: readFileSync(file, 'utf8') })),
  );

  it('import only from rooms above', () => {
    const wrong: string[] = [];
    for (const { room, file, text } of all)
      for (const [, path] of text.matchAll(/from '(\.[^']+)'/g)) {
        const target = new URL(path, file).pathname;
        const other = ROOMS.find((r) => target.includes(`/src/${r}/`));
        if (other && ROOMS.indexOf(other) > ROOMS.indexOf(room))
          wrong.push(`${file.pathname.split('/src/')[1]} → ${other}`);
      }
    expect(wrong).to.deep.equal([]);
    expect(all.length).to.be.greaterThan(40);
  });

  it('know no server, page, clock of the machine, or chance', () => {
    const wrong = all
      .filter(({ text }) =>
        /from '(?:node:|express|sequelize|react)|Date\.now|Math\.random|new Date\(\)|\bdocument\.(?:body|createElement)\(/.test(
          text,
        ),
      )
      .map(({ file }) => file.pathname.split('/src/')[1]);
    expect(wrong).to.deep.equal([]);
  });
});

/** Answers put together from stored JSON: the same as if they had been made of objects. */
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect } from 'chai';
import express, { type Response } from 'express';
import fc from 'fast-check';
import { JsonText, joinedLists, joinedObjects, piecesOf, sendJson } from '../src/json.ts';

const objects = fc.dictionary(fc.string(), fc.jsonValue());

describe('an answer of stored JSON', () => {
  it('is what it would be of objects, wherever texts stand in it', () =>
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), objects, (a, b, c) => {
        const text = (value: unknown) => new JsonText(JSON.stringify(value));
        const made = piecesOf({ a: text(a), list: [b, text(c), undefined], gone: undefined, date: new Date(0) }).join(''); // prettier-ignore
        expect(JSON.parse(made)).to.deep.equal(JSON.parse(JSON.stringify({ a, list: [b, c, null], date: new Date(0) }))); // prettier-ignore
      }),
      { seed: 17, numRuns: 300 },
    ));
  it('joins lists and objects as they are joined', () =>
    fc.assert(
      fc.property(fc.array(fc.jsonValue()), fc.array(fc.jsonValue()), objects, (a, b, c) => {
        const json = (text: JsonText) => JSON.parse(text.pieces.join('')) as unknown;
        const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;
        expect(json(joinedLists(JSON.stringify(a), JSON.stringify(b)))).to.deep.equal(plain([...a, ...b]));
        expect(json(joinedObjects({ first: 1 }, JSON.stringify({ ...c, last: 2 })))).to.deep.equal(plain({ first: 1, ...c, last: 2 })); // prettier-ignore
      }),
      { seed: 17, numRuns: 300 },
    ));
  it('comes whole however long it is, and cuts no letter of two halves', async () => {
    const long = Array.from({ length: 9 }, (_, i) => '🛶'.repeat(40_000 + i) + 'é水');
    const app = express();
    app.get('/', (_req, res: Response) =>
      sendJson(res, { odd: 'x', long: new JsonText(JSON.stringify(long)) }, 201),
    );
    const server = createServer(app).listen(0, '127.0.0.1');
    await once(server, 'listening');
    const answer = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    expect([answer.status, answer.headers.get('content-type')]).to.deep.equal([201, 'application/json; charset=utf-8']); // prettier-ignore
    expect(await answer.json()).to.deep.equal({ odd: 'x', long });
    server.close();
  });
});

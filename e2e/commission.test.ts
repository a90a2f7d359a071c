/** An order out and a reply in, in the real interface; the stand-in writer answers. */
import { expect } from 'chai';
import { docFromJson, plainSections, type PlainSection } from '@ursprung/core/script';
import { startTextService, type TextService } from '@ursprung/standins';
import { axe, caretIn, type Desk, openDesk, soon, until } from './browser.ts';

const HURRIED = `Hi! Here it is, hope it fits.

## The stoppage of 1907 (approx. 110 words)

**Narrator:** It was the night of 11 January 1907, in hard frost. A boat was halfway up when one cable of the 52 gave way. (PAUSE)
- When the troughs stopped they were four centimetres out of true.
What held them was luck, said Professor Wren.
Vey had driven wedges of brass under the rim of every wheel.

(Word count: 118) Let me know if you want changes!`;

describe('the Commission', function () {
  let desk: Desk;
  let writer: TextService;
  let id: string;
  let section: PlainSection;
  before(async () => {
    writer = await startTextService({ paceMs: 8 });
    desk = await openDesk(true, [], writer);
    const { scripts } = (await desk.server.get('/library')).body as {
      scripts: { id: string; settings: { title: string } }[];
    };
    id = scripts.find((s) => /Weighs a Boat/.test(s.settings.title))!.id;
    section = (await stored()).find((s) => /1907/.test(s.title))!;
  });
  after(async () => {
    await desk.close();
    await writer.close();
  });
  afterEach(() => expect(desk.errors.splice(0)).to.deep.equal([]));

  const stored = async () => plainSections(docFromJson((await desk.server.get(`/scripts/${id}`)).body.doc));
  const now = async () => (await stored()).find((s) => s.id === section.id)!;
  const open = async (query = `?section=${section.id}`) => {
    await desk.page.goto(`${desk.server.url}/script/${id}/commission${query}`);
    await desk.page.waitForSelector('.replyrow.item');
  };
  const saved = (test: (s: PlainSection) => boolean) =>
    until(async () => test(await now()), 'The script never came to be so.');
  const row = (text: string | RegExp) => desk.page.locator('.replyrow.item').filter({ hasText: text });

  it('shows the order as a checklist, ready to copy, to read and to send; nothing is sent by itself', async () => {
    await open();
    await desk.page.getByRole('button', { name: 'Read it' }).click();
    const order = await desk.page.locator('section[aria-label="The order"] pre').innerText();
    expect(order).to.match(/^ORDER: narration for section \d+ of \d+/);
    await soon(async () =>
      expect(await desk.page.getByRole('button', { name: /^Send this order/ }).innerText()).to.include(
        writer.host,
      ),
    );
    expect(writer.orders).to.deep.equal([]);
    await desk.page.getByRole('button', { name: 'only the chosen line' }).click();
    await desk.page
      .locator('section[aria-label="The order"] pre')
      .filter({ hasText: 'ORDER: one line of narration' })
      .waitFor();
    await desk.page.getByRole('button', { name: 'the whole section again' }).click();
    expect(await axe(desk.page)).to.deep.equal([]);
  });

  it('prints the order as a page: its headings and rows set apart, all of it, as text and never as markup', async () => {
    await desk.page.addInitScript(() => {
      // The dialog itself belongs to the browser: what it would be given is kept.
      window.print = () => Object.assign(parent, { printed: document.documentElement.outerHTML });
    });
    await open('');
    await desk.page.getByRole('button', { name: 'Read it' }).click();
    const order = await desk.page.locator('section[aria-label="The order"] pre').innerText();
    await desk.page.getByRole('button', { name: 'Print' }).click();
    const sheet = await desk.browser.newPage();
    await sheet.setContent(
      await desk.page.evaluate(() => (window as unknown as { printed: string }).printed),
    );
    expect(await sheet.locator('h1').innerText()).to.match(/^Narration for /);
    const headings = await sheet.locator('h2').allInnerTexts();
    expect(headings.filter((h) => /^SECTION/.test(h))).to.have.length(order.match(/^SECTION/gm)!.length);
    expect(headings).to.include('HOW IT OPENS').and.include('THE REPLY');
    const bare = (text: string) => text.replace(/^ORDER: n/, 'N').replace(/^- |[\s·]/gm, '');
    expect(bare(await sheet.locator('body').innerText())).to.equal(bare(order));
    await sheet.close();
  });

  it('takes a reply written in a hurry apart: talk struck, faults at their words, mends in the words', async () => {
    await open();
    await desk.page.getByLabel('Paste the reply').fill(HURRIED);
    await desk.page.getByPlaceholder('a person or a program').fill('Ines Okafor');
    await desk.page.getByRole('button', { name: 'Check this reply' }).click();
    await row('one cable of the 52').getByText('Another value.').waitFor();
    await soon(async () =>
      expect((await desk.page.locator('.replyrows s').allInnerTexts()).join(' '))
        .to.include('Hi!')
        .and.include('Word count')
        .and.include('Let me know'),
    );
    await soon(async () =>
      expect(await row('Professor Wren').innerText()).to.include('No source names “Professor Wren”.'),
    );
    await soon(async () =>
      expect(await row('wedges of brass').innerText()).to.include('The source says “oak”, not “brass”.'),
    );
    expect(await axe(desk.page)).to.deep.equal([]);
  });

  it('by keyboard: from found to found, the mend used, ours brought back; what was there is a take', async () => {
    await open();
    await row('wedges of brass').waitFor();
    await desk.page.getByRole('group', { name: 'Lines, ours and the reply’s' }).focus();
    for (let i = 0; i < 8; i++) {
      await desk.page.keyboard.press('n');
      if (await desk.page.locator('.replyrow.lit').filter({ hasText: 'brass' }).count()) break;
    }
    const before = await now();
    await desk.page.keyboard.press('Enter');
    await saved((s) => s.lines.some((l) => /wedges of oak/.test(l.text) && l.by?.who === 'Ines Okafor'));
    const taken = (await now()).lines.find((l) => l.by)!;
    expect(before.lines.map((l) => l.text)).to.include(taken.takes.at(-1)!.text);
    await desk.page.getByText(/first written by Ines Okafor on/).waitFor();
    await desk.page.keyboard.press('ArrowLeft');
    await saved((s) => s.lines.every((l) => !l.by));
    await soon(async () =>
      expect((await now()).lines.map((l) => l.text)).to.deep.equal(before.lines.map((l) => l.text)),
    );
  });

  it('streams a reply in, each line checked as it comes, and takes it whole as one change with one undo', async () => {
    await open();
    const before = (await now()).lines.map((l) => l.text);
    await desk.page.getByRole('button', { name: 'Another reply' }).click();
    await desk.page.getByRole('button', { name: /^Send this order/ }).click();
    await desk.page.getByRole('button', { name: 'Stop receiving' }).waitFor();
    const all = desk.page.getByRole('button', { name: /^Use (all )?\d+/ });
    await all.waitFor();
    expect(writer.orders).to.have.length(1);
    await all.click();
    await saved((s) => s.lines.filter((l) => l.by?.kind === 'stand-in').length > 4);
    await desk.page.goto(`${desk.server.url}/script/${id}/page`);
    await desk.page.waitForSelector('.line .heard');
    await caretIn(desk.page.locator('.line .words').first());
    await desk.page.keyboard.press('Control+z');
    await saved((s) => s.lines.map((l) => l.text).join('\n') === before.join('\n'));
  });

  it('keeps what came when a stream breaks off, without its unfinished line, and says so', async () => {
    await desk.server.request('PUT', '/service', { address: writer.url, model: 'stand-in/cut-off' });
    const other = (await stored()).find((s) => s.id !== section.id && s.lines.length > 5)!;
    await open(`?section=${other.id}`);
    await desk.page.getByRole('button', { name: /^Send this order/ }).click();
    await desk.page.getByText('The answer broke off before its end.').waitFor();
    // The rows come when what came has been checked, a moment after the word that it broke off.
    const lines = async () =>
      (await desk.page.locator('.replyrow.item > :nth-child(4)').allInnerTexts()).filter((t) => t && !/^(?:not said|left out)$/.test(t.trim())); // prettier-ignore
    await until(async () => (await lines()).length > 1, 'No line of the broken answer is shown.');
    for (const l of await lines()) expect(l).to.match(/[.!?…”]$/);
    await open();
    await soon(async () =>
      expect(await desk.page.getByText('The answer broke off before its end.').count()).to.equal(0),
    );
    await desk.server.request('PUT', '/service', { address: writer.url, model: 'stand-in' });
  });

  it('has a section told in one go: asked, checked, put into the script; says what came of it and what it cost', async () => {
    await open(`?section=${section.id}`);
    await desk.page.getByLabel('Rounds at most').selectOption('2');
    await desk.page.getByRole('button', { name: /^Have the section told by 127/ }).click();
    const status = desk.page.getByRole('status').filter({ hasText: /\d+ lines? by 127/ });
    await status.waitFor({ timeout: 200_000 });
    expect(await status.innerText()).to.match(
      /\d+ lines? by 127\.0\.0\.1:\d+, stand-in.*round.*order.*tokens.*It lasts \d+:\d\d/,
    );
    // The page has the words without being asked for them.
    await saved((s) => s.lines.filter((l) => l.by?.kind === 'stand-in').length > 1);
    await until(
      async () => (await desk.page.getByText('in the script').count()) > 0,
      'The page never got the words.',
    );
    expect(await axe(desk.page)).to.deep.equal([]);
  });

  it('has a new script told from Begin: what the service does and costs stands there, and it is seen where it comes in', async () => {
    const { sources } = (await desk.server.get('/library')).body as {
      sources: { id: string; title: string }[];
    };
    const source = sources.find((s) => /footbridge/i.test(s.title))!;
    await desk.page.goto(`${desk.server.url}/begin?source=${source.id}`);
    await desk.page.getByRole('radio', { name: 'text service' }).click();
    await desk.page
      .getByText(new RegExp(`${writer.host} gets an order with the facts, about [\\d,]+ tokens`))
      .waitFor();
    expect(await axe(desk.page)).to.deep.equal([]);
    await desk.page.getByRole('button', { name: /^Draft \d/ }).click();
    await desk.page.waitForURL(/\/commission$/);
    const status = desk.page.getByRole('status').filter({ hasText: /\d+ lines? by 127/ });
    await status.waitFor({ timeout: 90_000 });
    await until(
      async () => (await desk.page.getByText('in the script').count()) > 5,
      'The page never got the words.',
    );
  });

  it('asks again for just what failed, and puts the answer in its place', async () => {
    await open();
    await desk.page
      .getByRole('button', { name: /Ines Okafor/ })
      .first()
      .click();
    await row('Professor Wren').waitFor();
    await desk.page.getByRole('button', { name: /^send it to/ }).click();
    await desk.page.getByText('An order for just what failed.').waitFor();
    await desk.page.getByRole('button', { name: /^Use (all )?\d+/ }).waitFor();
    expect(writer.orders.at(-1))
      .to.match(/^ORDER: write (?:one line|a few lines) again/)
      .and.include('No source names “Professor Wren”.');
    await row('Professor Wren').waitFor({ state: 'detached' });
    await soon(async () => expect(await row('halfway up').count()).to.be.greaterThan(0));
  });

  it('keeps the service’s key to itself, in a dialog that can be used by keyboard', async () => {
    await open();
    await desk.page.getByRole('button', { name: 'change', exact: true }).click();
    const dialog = desk.page.getByRole('dialog', { name: 'Text service' });
    await soon(async () => expect(await dialog.getByLabel(/^key/).inputValue()).to.equal(''));
    expect(await axe(desk.page)).to.deep.equal([]);
    await dialog.getByLabel('at most, tokens a month').fill('100');
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await dialog.getByText('A limit is at least 1,000 tokens.').waitFor();
    desk.errors.length = 0;
    await desk.page.keyboard.press('Escape');
    await dialog.waitFor({ state: 'detached' });
  });

  it('opens for the section of the caret from the Page, shows the whole script and the dark theme without breaking contrast', async () => {
    await desk.page.goto(`${desk.server.url}/script/${id}/page`);
    await desk.page.waitForSelector('.line .heard');
    await caretIn(desk.page.locator('.line .words').nth(12));
    await desk.page.keyboard.press("Control+Shift+'");
    await desk.page.waitForURL(/commission\?section=/);
    await open('');
    // The whole script in one order.
    await desk.page.getByLabel(/letters an order/).fill('60000');
    await desk.page.keyboard.press('Tab');
    await desk.page.getByText(/^1,?\d+ words, (?:6:5|7:0)/).waitFor();
    await desk.page.evaluate(() => (document.documentElement.dataset.theme = 'dark'));
    expect(await axe(desk.page)).to.deep.equal([]);
  });

  it('is read and taken on a phone, and uses the room of a wide screen; nothing stands outside of either', async () => {
    for (const [width, height] of [
      [390, 844],
      [1920, 1080],
    ]) {
      await desk.page.setViewportSize({ width, height });
      await open();
      const across = await desk.page.evaluate(() => document.documentElement.scrollWidth);
      expect(across).to.equal(width);
      const strip = (await desk.page.locator('.runstrip > svg').first().boundingBox())!;
      expect(strip.width).to.be.greaterThan(width === 390 ? 380 : 1600);
      for (const name of ['Copy the order', 'Print'])
        await soon(() => desk.page.getByRole('button', { name, exact: true }).scrollIntoViewIfNeeded());
      // Rows are drawn anew when their checks come.
      await soon(() => row(/./).first().scrollIntoViewIfNeeded());
      expect(await axe(desk.page)).to.deep.equal([]);
    }
    await desk.page.setViewportSize({ width: 1280, height: 800 });
  });

  it('says so when a script has no source, and when nothing is written', async () => {
    const { channels } = (await desk.server.get('/library')).body as {
      channels: { id: string; settings: object }[];
    };
    const settings = channels[0].settings as { frame: string; mood: string; pace: number; voice: string };
    const { frame, mood, pace, voice } = settings;
    const made = await desk.server.post('/scripts', {
      channelId: channels[0].id,
      frame,
      mood,
      pace,
      voice,
      title: 'Empty',
      target: { kind: 'point', seconds: 60 },
    });
    await desk.page.goto(`${desk.server.url}/script/${made.body.id}/commission`);
    await desk.page.getByText('This script has no source to order from.').waitFor();
    await desk.page.getByText('Nothing is written here yet').waitFor();
    expect(await axe(desk.page)).to.deep.equal([]);
  });
});

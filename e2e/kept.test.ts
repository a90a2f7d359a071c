/** No word lost in the real browser: reloads at every moment of a slow way back, late answers, no storage, two tabs. */
import { expect } from 'chai';
import type { Page, Route } from 'playwright-core';
import { docFromJson, plainSections } from '@ursprung/core/script';
import { caretIn, type Desk, openDesk, pressEnd, soon, until } from './browser.ts';

describe('no word lost', function () {
  let desk: Desk;
  let scriptId: string;

  before(async () => {
    desk = await openDesk();
    const { scripts } = (await desk.server.get('/library')).body as { scripts: { id: string }[] };
    scriptId = scripts[2].id;
  });
  after(() => desk.close());

  const address = (place = 'page') => `${desk.server.url}/script/${scriptId}/${place}`;
  const open = async (page: Page = desk.page, place = 'page') => {
    await page.goto(address(place));
    await page.locator('.line .words').first().waitFor();
  };
  const atEnd = async (n: number, page: Page = desk.page) => {
    await caretIn(page.locator('.line .words').nth(n));
    await pressEnd(page);
  };
  const saved = (page: Page = desk.page) =>
    page.waitForFunction(() => document.querySelector('[data-testid=save]')?.textContent === 'Saved');
  const onServer = async () => {
    const { doc } = (await desk.server.get(`/scripts/${scriptId}`)).body as { doc: unknown };
    return plainSections(docFromJson(doc)).flatMap((s) => s.lines.map((l) => l.text));
  };
  const shown = (page: Page = desk.page) => page.locator('.line .words').allInnerTexts();
  const times = (text: string, word: string) => text.split(word).length - 1;
  /** Fails every write of steps until the returned function is called. */
  const noSaving = async (page: Page = desk.page) => {
    const fail = (route: Route) => (route.request().method() === 'POST' ? route.abort() : route.fallback());
    await page.route('**/steps*', fail);
    return () => page.unroute('**/steps*', fail);
  };

  it('an answer that comes late leaves what was typed meanwhile, and is offered as a take', async () => {
    await open();
    await atEnd(2);
    let go = () => {};
    const held = new Promise<void>((free) => (go = free));
    const asked = new Promise<void>((resolve) => {
      void desk.page.route('**/redo', async (route) => {
        // Told on the script as it was asked: this line in other words, and the one before it too.
        const { sections, line } = route.request().postDataJSON() as {
          sections: { lines: { id: string; text: string }[] }[];
          line: string;
        };
        const lines = sections.flatMap((s) => s.lines);
        const at = lines.findIndex((l) => l.id === line);
        lines[at].text = 'Told late.';
        lines[at - 1].text = 'Told late too.';
        resolve();
        await held;
        await route.fulfill({ json: { sections, notes: [] } });
      });
    });
    // The caret's line is known when its takes are offered.
    await desk.page.getByRole('button', { name: 'another take' }).waitFor();
    await desk.page.keyboard.press('Control+;');
    await asked;
    await desk.page.keyboard.type(' typed meanwhile');
    go();
    await desk.page.getByText('your words stand, what was told is a take').waitFor();
    await saved();
    await desk.page.unroute('**/redo');
    const [, before, here] = await onServer();
    expect(here).to.match(/typed meanwhile$/);
    expect(before).to.equal('Told late too.');
    await desk.page.keyboard.press('Control+Shift+;');
    await desk.page.waitForFunction(() =>
      [...document.querySelectorAll('.line .words')].some((l) => l.textContent === 'Told late.'),
    );
    await saved();
  });

  it('brings back what waited, however often the page is reloaded while it is on its way back', async () => {
    await open();
    const savingAgain = await noSaving();
    await atEnd(0);
    await desk.page.keyboard.type(' firstkept');
    await desk.page.waitForFunction(
      () => document.querySelector('[data-testid=save]')?.textContent === 'Kept here',
    );
    // Somebody else writes meanwhile, so that the way back needs the server.
    const other = await desk.browser.newPage();
    await open(other);
    await atEnd(1, other);
    await other.keyboard.type(' theirs');
    await saved(other);
    await other.close();
    // Answers come late now: a reload every few hundredths of a second meets every moment of the way back.
    const slow = async (route: Route) => {
      await new Promise((r) => setTimeout(r, 150));
      await route.fallback().catch(() => {});
    };
    await desk.page.route('**/api/scripts/**', slow);
    for (let ms = 0; ms <= 700; ms += 50) {
      await desk.page.goto(address());
      await desk.page.waitForTimeout(ms);
    }
    await savingAgain();
    await desk.page.unroute('**/api/scripts/**', slow);
    await open();
    await saved();
    desk.errors.length = 0;
    const [first, second] = await onServer();
    expect(times(first, 'firstkept'), first).to.equal(1);
    expect(times(second, 'theirs'), second).to.equal(1);
    await soon(async () => expect((await shown()).slice(0, 2)).to.deep.equal([first, second]));
  });

  it('cannot be written in before what was kept stands in it, and says why it takes a while', async () => {
    await open();
    const savingAgain = await noSaving();
    await atEnd(0);
    await desk.page.keyboard.type(' waited');
    await desk.page.waitForFunction(
      () => document.querySelector('[data-testid=save]')?.textContent === 'Kept here',
    );
    const other = await desk.browser.newPage();
    await open(other);
    await atEnd(1, other);
    await other.keyboard.type(' more');
    await saved(other);
    await other.close();
    const down = (route: Route) => route.abort();
    await desk.page.route('**/steps?since*', down);
    await desk.page.goto(address());
    await desk.page.getByText('What you wrote last is being brought back.').waitFor();
    expect(await desk.page.locator('.line').count(), 'nothing to type into').to.equal(0);
    await desk.page.unroute('**/steps?since*', down);
    await savingAgain();
    await desk.page.locator('.line .words').first().waitFor();
    await saved();
    desk.errors.length = 0;
    expect(times((await onServer())[0], 'waited')).to.equal(1);
  });

  it('a title typed without a server is kept over a reload and arrives', async () => {
    await open();
    const down = (route: Route) => (route.request().method() === 'PATCH' ? route.abort() : route.fallback());
    await desk.page.route('**/api/scripts/*', down);
    await desk.page.getByLabel('Title', { exact: true }).fill('Kept without a server');
    await desk.page.keyboard.press('Enter');
    await desk.page.waitForTimeout(300);
    await open();
    await soon(async () =>
      expect(await desk.page.getByLabel('Title', { exact: true }).inputValue()).to.equal(
        'Kept without a server',
      ),
    );
    await desk.page.unroute('**/api/scripts/*', down);
    await desk.page.evaluate(() => window.dispatchEvent(new Event('focus')));
    await desk.page.waitForTimeout(200);
    let title = '';
    await until(
      async () => {
        ({ title } = (await desk.server.get(`/scripts/${scriptId}`)).body.settings as { title: string });
        return title === 'Kept without a server';
      },
      () => `The title is still “${title}”.`,
    );
    desk.errors.length = 0;
  });

  it('two tabs on one script both keep what they wrote without a server', async () => {
    const context = await desk.browser.newContext({ viewport: { width: 1280, height: 800 } });
    const [first, second] = [await context.newPage(), await context.newPage()];
    await open(first);
    await open(second);
    const savingAgain = await noSaving(first);
    await noSaving(second);
    await atEnd(0, first);
    await first.keyboard.type(' tabone');
    await atEnd(1, second);
    await second.keyboard.type(' tabtwo');
    await second.waitForFunction(
      () => document.querySelector('[data-testid=save]')?.textContent === 'Kept here',
    );
    // The second tab is closed with what waits; the first is reloaded and sends both.
    await second.close();
    await savingAgain();
    await open(first);
    await saved(first);
    await first.waitForFunction(() => document.body.innerText.includes('tabtwo'));
    await context.close();
    const all = (await onServer()).join(' ');
    expect(times(all, 'tabone')).to.equal(1);
    expect(times(all, 'tabtwo')).to.equal(1);
  });

  it('words whose place was taken out elsewhere are offered, and put where the caret is', async () => {
    await open();
    const count = (await shown()).length;
    const savingAgain = await noSaving();
    await atEnd(count - 1);
    await desk.page.keyboard.type(' homeless words');
    await desk.page.waitForFunction(
      () => document.querySelector('[data-testid=save]')?.textContent === 'Kept here',
    );
    const { doc, version } = (await desk.server.get(`/scripts/${scriptId}`)).body as {
      doc: unknown;
      version: number;
    };
    const node = docFromJson(doc);
    const last = node.lastChild!.lastChild!;
    const end = node.content.size - 1;
    const out = await desk.server.post(`/scripts/${scriptId}/steps`, {
      version,
      clientId: 'another-page',
      steps: [{ stepType: 'replace', from: end - last.nodeSize, to: end }],
    });
    expect(out.status).to.equal(200);
    await savingAgain();
    await desk.page.evaluate(() => window.dispatchEvent(new Event('focus')));
    await desk.page.getByText('The place where you wrote this was taken out elsewhere.').waitFor();
    await desk.page.reload();
    await desk.page.getByText('“homeless words”').waitFor();
    await atEnd(0);
    await desk.page.getByRole('button', { name: 'Put it at the caret' }).click();
    await saved();
    await soon(async () => expect(await desk.page.getByTestId('kept').count()).to.equal(0));
    expect((await onServer())[1]).to.equal('homeless words');
    desk.errors.length = 0;
  });

  it('a browser that keeps nothing says so at once', async () => {
    const context = await desk.browser.newContext();
    await context.addInitScript(() => {
      indexedDB.open = () => {
        throw new DOMException('The user denied permission to access the database.', 'SecurityError');
      };
    });
    const page = await context.newPage();
    await open(page);
    await page.getByText('This browser keeps nothing here:').waitFor();
    await atEnd(0, page);
    await page.keyboard.type(' anyway');
    await saved(page);
    expect((await onServer())[0]).to.match(/anyway$/);
    await context.close();
  });
});

import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { demoSource } from '@ursprung/demo';
import { readSource } from '@ursprung/core/source';
import { axe, caretIn, type Desk, openDesk, pressEnd, soon, totalSeconds } from './browser.ts';

describe('a newcomer’s first ten minutes', function () {
  let desk: Desk;
  before(async () => void (desk = await openDesk()));
  after(() => desk.close());

  const lines = () => desk.page.locator('.line .words').allTextContents();
  const saved = () =>
    desk.page.waitForFunction(() => document.querySelector('[data-testid="save"]')?.textContent === 'Saved');

  it('finds two channels and three finished scripts in the library', async () => {
    const { page, server } = desk;
    await page.goto(server.url);
    await page.getByRole('heading', { name: 'Quiet Machinery' }).waitFor();
    await soon(async () => expect(await page.getByRole('heading', { level: 2 }).count()).to.equal(2));
    await soon(async () => expect(await page.locator('article').count()).to.equal(3));
    expect(await axe(page)).to.deep.equal([]);
  });

  it('opens one: the strip above, the script ruled by time, each line showing what it rests on', async () => {
    const { page } = desk;
    await page.getByRole('link', { name: 'The Footbridge That Fell into Step' }).click();
    await page.locator('.line .heard').nth(3).filter({ hasText: ':' }).waitFor();
    expect(await totalSeconds(page)).to.equal(210);
    await caretIn(page.locator('.line .words').nth(2));
    const shown = page.locator('.line.chosen .source');
    await shown.locator('mark').waitFor();
    expect((await shown.innerText()).length).to.be.greaterThan(60);
    expect(await axe(page)).to.deep.equal([]);
  });

  it('moves clock, section and total while typing, and takes it back', async () => {
    const { page } = desk;
    const before = await totalSeconds(page);
    const clocks = () => page.locator('.line .heard').allTextContents();
    const heads = () => page.locator('.sectionhead .clock').allTextContents();
    const [oldClocks, oldHeads] = [await clocks(), await heads()];
    await pressEnd(page);
    await page.keyboard.type(' And nobody on the bridge had expected any of this at all.');
    await page.waitForFunction(
      (was) => document.querySelector('[data-testid="total"]')!.textContent !== was,
      `${Math.floor(before / 60)}:${(before % 60).toFixed(1).padStart(4, '0')}`,
    );
    expect(await totalSeconds(page)).to.be.greaterThan(before + 2);
    // Lines in sight move with the key, those far below when typing rests.
    expect((await clocks())[3]).to.not.equal(oldClocks[3]);
    await page.waitForFunction(
      (was) => [...document.querySelectorAll('.line .heard')].at(-1)!.textContent !== was,
      oldClocks.at(-1),
    );
    expect(await heads()).to.not.deep.equal(oldHeads);
    await soon(async () => expect(await page.getByTestId('over').innerText()).to.match(/over$/));
    await saved();
    for (let i = 0; i < 6; i++) await page.keyboard.press('Control+z');
    await page.waitForFunction(() => document.querySelector('[data-testid="over"]')!.textContent === 'met');
    await saved();
  });

  it('marks a figure that no source has', async () => {
    const { page } = desk;
    await caretIn(page.locator('.line .words').nth(2));
    await pressEnd(page);
    await page.keyboard.type(' It weighs 777 tonnes.');
    await page.locator('.found .finding').filter({ hasText: '777' }).waitFor();
    await page.locator('.words .doubt').filter({ hasText: '777' }).waitFor();
    for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
    await saved();
  });

  it('drafts three minutes from a pasted article, at a keyboard', async () => {
    const { page, server } = desk;
    await page.goto(server.url);
    await page.getByRole('button', { name: 'Begin a script' }).focus();
    await page.keyboard.press('Enter');
    const paste = page.getByRole('textbox', { name: 'Paste a source' });
    await paste.fill((await readSource(demoSource('footbridge'))).text);
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    await page.getByText(/^because /).waitFor();
    await soon(async () =>
      expect(await page.getByRole('radio', { name: 'news' }).getAttribute('data-state')).to.equal('checked'),
    );
    const length = page.getByRole('textbox', { name: 'Length' });
    await length.fill('3:00');
    expect(await axe(page)).to.deep.equal([]);
    await page.getByRole('button', { name: 'Draft 3:00' }).press('Enter');
    await page.waitForURL(/\/script\/.+\/page/);
    await page.locator('.line .heard').nth(3).filter({ hasText: ':' }).waitFor();
    expect(await totalSeconds(page)).to.be.within(178.2, 181.8);
    await soon(async () => expect((await lines())[0]).to.match(/footbridge/i));
  });

  it('shows its scenes', async () => {
    const { page } = desk;
    await page.getByRole('link', { name: 'Scenes' }).click();
    await page.getByTestId('scene').first().waitFor();
    const count = await page.getByTestId('scene').count();
    expect(180 / count).to.be.within(3, 7);
    expect(await axe(page)).to.deep.equal([]);
  });

  it('shows its source, with facts heard and unused', async () => {
    const { page } = desk;
    await page.getByRole('link', { name: 'Sources' }).click();
    await page.getByRole('combobox', { name: 'Which facts' }).selectOption('unused');
    await page.getByTestId('fact').first().waitFor();
    await page.getByRole('combobox', { name: 'Which facts' }).selectOption('all');
    expect(await axe(page)).to.deep.equal([]);
  });

  it('downloads text, Markdown and captions', async () => {
    const { page } = desk;
    await page.getByRole('link', { name: 'Handoff' }).click();
    const got: Record<string, string> = {};
    for (const [who, name] of [
      ['Voice', 'Clean text'],
      ['Archive', 'Markdown'],
      ['Uploader', 'Captions, SubRip'],
    ]) {
      await page.getByRole('navigation', { name: 'For whom' }).getByRole('button', { name: who }).click();
      const waiting = page.waitForEvent('download');
      await page.getByRole('link', { name: `Save ${name}` }).click();
      const file = await waiting;
      got[name] = readFileSync((await file.path())!, 'utf8');
      expect(file.suggestedFilename()).to.match(/^[a-z0-9-]+\.(txt|md|srt)$/);
    }
    expect(got['Captions, SubRip']).to.match(/^1\n00:00:00,000 --> /);
    expect(got['Clean text']).to.include('straight.');
    expect(got.Markdown).to.match(/^# /);
    expect(await axe(page)).to.deep.equal([]);
  });

  it('keeps everything over a reload, undo and redo too', async () => {
    const { page } = desk;
    await page.getByRole('link', { name: 'Page' }).click();
    await caretIn(page.locator('.line .words').nth(1));
    await pressEnd(page);
    await page.keyboard.type(' Kept words.');
    await saved();
    await page.waitForTimeout(500);
    await page.reload();
    await page.locator('.line .words').nth(1).filter({ hasText: 'Kept words.' }).waitFor();
    await page.waitForTimeout(800);
    await caretIn(page.locator('.line .words').nth(1));
    for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
    await page.waitForFunction(
      () => !document.querySelector('.ProseMirror')!.textContent!.includes('Kept words.'),
    );
    await saved();
    await page.waitForTimeout(500);
    await page.reload();
    await page.locator('.line .words').nth(1).waitFor();
    await page.waitForTimeout(800);
    await caretIn(page.locator('.line .words').nth(1));
    for (let i = 0; i < 3; i++) await page.keyboard.press('Control+y');
    await page.waitForFunction(() =>
      document.querySelector('.ProseMirror')!.textContent!.includes('Kept words.'),
    );
    await saved();
  });

  it('keeps writing without a connection and catches up', async () => {
    const { page } = desk;
    await page.context().setOffline(true);
    await caretIn(page.locator('.line .words').nth(1));
    await pressEnd(page);
    await page.keyboard.type(' Written offline.');
    await page.waitForFunction(
      () => document.querySelector('[data-testid="save"]')?.textContent === 'Kept here',
    );
    await page.getByText('Not connected.').waitFor();
    await page.context().setOffline(false);
    await saved();
    await page.reload();
    await page.locator('.line .words').nth(1).filter({ hasText: 'Written offline.' }).waitFor();
  });

  it('merges what two windows write', async () => {
    const { page, browser } = desk;
    const other = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await other.goto(page.url());
    await caretIn(other.locator('.line .words').nth(3));
    await caretIn(page.locator('.line .words').nth(1));
    await page.keyboard.press('Home');
    await page.keyboard.type('Alpha. ');
    await pressEnd(other);
    await other.keyboard.type(' Omega.');
    await saved();
    await other.waitForFunction(
      () =>
        document.querySelector('[data-testid="save"]')?.textContent === 'Saved' &&
        document.querySelector('.ProseMirror')!.textContent!.includes('Alpha.'),
    );
    await other.close();
    await page.reload();
    await page.locator('.ProseMirror').filter({ hasText: 'Omega.' }).filter({ hasText: 'Alpha.' }).waitFor();
  });

  it('splits, rests, moves and joins lines by keys alone', async () => {
    const { page } = desk;
    await page.waitForTimeout(800);
    const before = (await lines()).length;
    // Inside a section: at its start a backspace would join it to the one before.
    const inside = await page
      .locator('.line')
      .evaluateAll((all) => all.findIndex((l, i) => i > 3 && l.previousElementSibling === all[i - 1]));
    await caretIn(page.locator('.line .words').nth(inside));
    await pressEnd(page);
    await page.keyboard.press('Enter');
    await page.keyboard.type('A line of my own.');
    await soon(async () => expect(await lines()).to.have.length(before + 1));
    await page.keyboard.press('Control+]');
    await page.locator('.line.chosen.rested').waitFor();
    // A long line may be split inside: End goes to the end of the row.
    const mine = async () => (await lines()).findIndex((t) => t.includes('A line of my own.'));
    await soon(async () => expect((await lines()).slice(1).join('\n')).to.include('A line of my own.'));
    const at = await mine();
    await page.keyboard.press('Control+Shift+ArrowUp');
    await soon(async () => expect(await mine()).to.equal(at - 1));
    for (let i = 0; i < 'A line of my own.'.length + 1; i++) await page.keyboard.press('Backspace');
    // The editor reads what a key did to the page a moment after the key.
    await page.waitForFunction((n) => document.querySelectorAll('.line').length === n, before);
    const ids = await page
      .locator('.line')
      .evaluateAll((all) => all.map((l) => (l as HTMLElement).dataset.id));
    expect(new Set(ids).size).to.equal(ids.length);
    await saved();
  });

  it('finds any action with one key', async () => {
    const { page } = desk;
    await page.keyboard.press('F2');
    await page.getByPlaceholder('Find an action').fill('scenes');
    await page.keyboard.press('Enter');
    await page.waitForURL(/scenes$/);
  });

  it('reads well in the dark too', async () => {
    const { page } = desk;
    await page.evaluate(() => (document.documentElement.dataset.theme = 'dark'));
    await page.getByRole('link', { name: 'Page' }).click();
    await page.locator('.line .heard').nth(3).filter({ hasText: ':' }).waitFor();
    expect(await axe(page)).to.deep.equal([]);
  });

  it('wrote no error to the console', () => {
    expect(desk.errors.filter((e) => !/ERR_INTERNET_DISCONNECTED|409|Failed to fetch/.test(e))).to.deep.equal(
      [],
    );
  });
});

describe('an empty workspace and bad input on screen', function () {
  let desk: Desk;
  before(async () => void (desk = await openDesk(false)));
  after(() => desk.close());

  it('asks for a first channel and takes one', async () => {
    const { page, server } = desk;
    await page.goto(server.url);
    await page.getByRole('button', { name: 'Add the first channel' }).click();
    await page.getByRole('textbox', { name: 'name' }).fill('<b>Mine</b>');
    await page.getByRole('button', { name: /^Add / }).click();
    await page.getByRole('heading', { name: '<b>Mine</b>' }).waitFor();
    expect(await axe(page)).to.deep.equal([]);
  });

  it('begins an empty script that takes a pasted one as lines', async () => {
    const { page } = desk;
    await page.getByRole('button', { name: 'Begin a script' }).click();
    await page.getByRole('button', { name: 'Begin an empty script' }).click();
    await page.getByText('Write here, or paste a script.').waitFor();
    await page.locator('.ProseMirror').click();
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.setData(
        'text/plain',
        'The lift has failed once. Nobody was hurt.\nIt hung there for <i>sixty-one</i> days.',
      );
      document
        .querySelector('.ProseMirror')!
        .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    });
    await page.waitForFunction(() => document.querySelectorAll('.line').length === 3);
    expect(await page.locator('.line .words').allTextContents()).to.deep.equal([
      'The lift has failed once.',
      'Nobody was hurt.',
      'It hung there for <i>sixty-one</i> days.',
    ]);
  });

  it('says in words what can’t be read, and keeps what was pasted', async () => {
    const { page, server } = desk;
    await page.goto(`${server.url}/begin`);
    const paste = page.getByRole('textbox', { name: 'Paste a source' });
    await paste.fill('😀😀😀');
    await page.getByRole('button', { name: 'Read it' }).click();
    await page.getByRole('alert').filter({ hasText: 'There are no words in this.' }).waitFor();
    await soon(async () => expect(await paste.inputValue()).to.equal('😀😀😀'));
    await page.locator('input[type=file]').setInputFiles({
      name: 'big.txt',
      mimeType: 'text/plain',
      buffer: Buffer.alloc(6 * 1024 * 1024, 'a '),
    });
    await page.getByRole('alert').filter({ hasText: 'at most 5 MB' }).waitFor();
  });

  it('says how long a short source carries, and offers that', async () => {
    const { page } = desk;
    await page
      .getByRole('textbox', { name: 'Paste a source' })
      .fill('The lift was opened in 1889. It has failed once. Nobody was hurt in the accident of 1907.');
    await page.getByRole('button', { name: 'Read it' }).click();
    await page.getByText(/^because /).waitFor();
    await page.getByRole('textbox', { name: 'Length' }).fill('10:00');
    await page.getByText('10:00 is not there.').waitFor();
    await soon(async () =>
      expect(await page.getByRole('button', { name: /^Draft/ }).isDisabled()).to.equal(true),
    );
    for (const wrong of ['0', '10 h', '36000', 'soon']) {
      await page.getByRole('textbox', { name: 'Length' }).fill(wrong);
      await page.getByRole('alert').first().waitFor();
      await soon(async () =>
        expect(await page.getByRole('button', { name: /^Draft/ }).isDisabled(), wrong).to.equal(true),
      );
    }
  });

  it('says so when an address holds nothing', async () => {
    const { page, server } = desk;
    await page.goto(`${server.url}/script/00000000-0000-4000-8000-000000000000/page`);
    await page.getByText('This script is not here, or no longer.').waitFor();
  });
});

/** Sources as a writer works with them: a link read, facts ruled on by keys, found again, compared, taken out. */
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { startNewsDesk, STORIES, type NewsDesk } from '@ursprung/standins';
import { axe, openDesk, type Desk, soon } from './browser.ts';

describe('sources on the desk', function () {
  let desk: Desk;
  let news: NewsDesk;
  before(async () => {
    news = await startNewsDesk();
    desk = await openDesk(true, [news.host]);
  });
  after(async () => {
    await desk.close();
    await news.close();
  });
  const read = async (input: string) => {
    const { page, server } = desk;
    await page.goto(`${server.url}/begin`);
    await page.getByRole('textbox', { name: 'Paste a source' }).fill(input);
    await page.getByRole('button', { name: 'Fetch and read it' }).click();
    await page.getByText(/^because /).waitFor();
  };

  it('reads a link and says what was understood', async () => {
    const { page } = desk;
    await read(`${news.url}/weir`);
    await page.getByText('Lockside Wire · Nell Auster · 2025-10-12').waitFor();
    expect(await axe(page)).to.deep.equal([]);
  });

  it('says why a link can’t be read, and keeps it', async () => {
    const { page, server } = desk;
    await page.goto(`${server.url}/begin`);
    const paste = page.getByRole('textbox', { name: 'Paste a source' });
    await paste.fill(`${news.url}/404`);
    await page.getByRole('button', { name: 'Fetch and read it' }).click();
    await page
      .getByRole('alert')
      .filter({ hasText: 'There is no page at that address. Paste the text instead.' })
      .waitFor();
    await soon(async () => expect(await paste.inputValue()).to.equal(`${news.url}/404`));
  });

  it('shows one whole: facts by strength, a press or a key rules on them', async () => {
    const { page, server } = desk;
    await page.goto(server.url);
    await page.getByRole('link', { name: 'Weir at Sluice gives way in the night' }).click();
    const list = page.getByRole('group', { name: 'Facts by strength' });
    await list.getByTestId('fact').first().getByRole('button').first().click();
    await page.locator('.passage[data-chosen]').waitFor();
    expect(await axe(page)).to.deep.equal([]);
    await list.focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('m');
    const chosen = list.locator('[aria-current=true]');
    await chosen.getByText('must ·').waitFor();
    await page.keyboard.press('o');
    await chosen.getByRole('button', { name: 'leave out: undo' }).waitFor();
    await page.keyboard.press('x');
    await page.getByRole('textbox', { name: 'What is right' }).fill('It was built in 1846.');
    await page.keyboard.press('Enter');
    await chosen.getByText('Right is:').waitFor();
    await page.getByRole('textbox', { name: 'Add what you know' }).fill('My uncle kept the gate.');
    await page.keyboard.press('Enter');
    await page.getByText('My uncle kept the gate.').waitFor();
    await page.reload();
    await page.getByText('Right is:').waitFor();
    await page.getByText('My uncle kept the gate.').waitFor();
  });

  it('makes a fact of chosen words', async () => {
    const { page } = desk;
    await page.evaluate(() => {
      const words = document.querySelector('.passage p')!;
      const range = document.createRange();
      range.selectNodeContents(words);
      getSelection()!.removeAllRanges();
      getSelection()!.addRange(range);
      words.dispatchEvent(new MouseEvent('mouseup', { bubbles: true }));
    });
    await page.getByRole('button', { name: 'Make a fact of the chosen words' }).click();
    await page.getByText('chosen words').waitFor();
  });

  it('tells what changed when the link is read again', async () => {
    const { page } = desk;
    news.publish('/weir', STORIES['/weir'].replace('two metres', 'three metres'));
    await page.getByRole('button', { name: 'Read it again' }).click();
    await page.getByText('Changed since.').waitFor();
    await page.getByText(/fell by three metres/).waitFor();
    news.publish('/weir', STORIES['/weir']);
  });

  it('finds words in all sources and filters them', async () => {
    const { page, server } = desk;
    await page.goto(server.url);
    await page.getByRole('textbox', { name: 'Find a script or source' }).fill('barge');
    await page.locator('mark').filter({ hasText: 'barge' }).waitFor();
    await page.getByText('1 of 7 sources').waitFor();
    await page.getByRole('textbox', { name: 'Find a script or source' }).fill('');
    await page.getByRole('combobox', { name: 'Kind' }).selectOption('howto');
    await page.getByText('1 of 7 sources').waitFor();
    await page.getByRole('combobox', { name: 'Kind' }).selectOption('');
    expect(await axe(page)).to.deep.equal([]);
  });

  it('takes one out and puts it back', async () => {
    const { page } = desk;
    const row = page.getByRole('link', { name: 'Weir at Sluice gives way in the night' });
    await page.getByRole('button', { name: /Take “Weir at Sluice.* out of the library/ }).click();
    await row.waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Put it back' }).click();
    await row.waitFor();
  });

  it('lays another beside a script’s, and says where they agree', async () => {
    const { page, server } = desk;
    await read(`${news.url}/weir-later`);
    await page.getByRole('textbox', { name: 'Length' }).fill('0:15');
    await page.getByRole('button', { name: 'Draft 0:15' }).click();
    await page.waitForURL(/\/script\/.+\/page/);
    await page.getByRole('link', { name: 'Sources' }).click();
    await page
      .getByRole('combobox', { name: 'Lay another source beside' })
      .selectOption({ label: 'Weir at Sluice gives way in the night' });
    await page.getByText(/\d+ told alike/).waitFor();
    await soon(async () => expect(await page.getByText(/[1-9]\d* told alike/).count()).to.equal(1));
    expect(await axe(page)).to.deep.equal([]);
    await page.getByRole('link', { name: 'Handoff' }).click();
    await page.getByText('Not asked whether it may be retold').first().waitFor();
    expect(server.url).to.match(/^http/);
  });

  it('drafts from two sources, with what was ticked', async () => {
    const { page } = desk;
    await read(`${news.url}/weir`);
    const tick = page.getByRole('checkbox', { name: /I heard a long sigh/ });
    await tick.check();
    await page.getByText('(1 ticked)').waitFor();
    await page
      .getByRole('combobox', { name: 'Lay another source beside' })
      .selectOption({ label: 'Boats still on the mud after weir collapse' });
    await page.getByRole('textbox', { name: 'Length' }).fill('0:25');
    await page.getByRole('button', { name: 'Draft 0:25' }).click();
    await page.waitForURL(/\/script\/.+\/page/);
    await page.locator('.words').filter({ hasText: 'long sigh' }).waitFor();
    await page.getByRole('link', { name: 'Sources' }).click();
    await page.getByText('2 sources').waitFor();
  });

  it('takes a piece in, a passage out and another’s post as the story, by keys and presses', async () => {
    const { page, server } = desk;
    await page.goto(server.url);
    await page.getByRole('link', { name: 'Divers find the lock gate that went missing in 1926' }).click();
    const passages = page.getByRole('main', { name: 'Passages' });
    const passage = (words: string) => passages.locator('.passage').filter({ hasText: words });
    await passage('Two divers looking').waitFor();
    expect(await passages.locator('.passage').filter({ hasText: 'partners' }).count()).to.equal(0);
    // The list of what was left out: opened, walked and used by keys.
    await passages.locator('summary', { hasText: 'Left out' }).focus();
    await page.keyboard.press('Enter');
    await page.keyboard.press('Tab');
    const wanted = passages.getByRole('button', { name: /^Take in: Every Friday: levels/ });
    for (let i = 0; i < 30 && !(await wanted.evaluate((b) => b === document.activeElement)); i++)
      await page.keyboard.press('ArrowDown');
    expect(await axe(page)).to.deep.equal([]);
    await page.keyboard.press('Enter');
    await passage('Every Friday: levels').getByText('taken in by you').waitFor();
    // The passage of the chosen fact.
    const list = page.getByRole('group', { name: 'Facts by strength' });
    await list.getByTestId('fact').filter({ hasText: '81' }).getByRole('button').first().click();
    await passages.locator('.passage[data-chosen]').waitFor();
    await list.focus();
    await page.keyboard.press('p');
    await passages
      .locator('li')
      .filter({ hasText: 'you left it out' })
      .filter({ hasText: 'Edith Marlow' })
      .waitFor();
    await passage('Edith Marlow').waitFor({ state: 'detached' });
    // Somebody's comment as the story, and back.
    await passage('GreenfinchLou').hover();
    await passage('GreenfinchLou').getByRole('button', { name: 'tell this' }).click();
    await soon(async () =>
      expect(await passages.locator('.passage').first().innerText()).to.include(
        'Four tonnes of oak, and they blamed',
      ),
    );
    await page.evaluate(() => (document.documentElement.dataset.theme = 'dark'));
    expect(await axe(page)).to.deep.equal([]);
  });

  it('wrote no error to the console but for the link that failed', () => {
    expect(desk.errors.filter((e) => !/404|422/.test(e))).to.deep.equal([]);
  });

  it('reads a page that was selected whole in a browser by its layout, or its words alone', async () => {
    const { page, server } = desk;
    const messy = readFileSync(new URL('../demo/data/sources/lock-gate.html', import.meta.url), 'utf8');
    await page.route('**/messy', (route) => route.fulfill({ contentType: 'text/html', body: messy }));
    await page.goto(`${server.url}/messy`);
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+c');
    await page.goto(`${server.url}/begin`);
    const paste = page.getByRole('textbox', { name: 'Paste a source' });
    await paste.focus();
    await page.keyboard.press('Control+v');
    await page.getByText('Read as the page it was copied from').waitFor();
    await soon(async () => expect(await paste.inputValue()).to.contain('Copy link'));
    expect(await axe(page)).to.deep.equal([]);
    await paste.press('End');
    await page.keyboard.type(' More.');
    await page.getByText('Read as the page it was copied from').waitFor({ state: 'hidden' });
    for (let i = 0; i < 6; i++) await page.keyboard.press('Backspace');
    await page.getByText('Read as the page it was copied from').waitFor();
    await page.getByRole('button', { name: 'Read it', exact: true }).click();
    await page.getByText(/^because /).waitFor();
    await soon(async () =>
      expect(await page.getByRole('textbox', { name: 'Title' }).inputValue()).to.equal(
        'Divers find the lock gate that went missing in 1926',
      ),
    );
    await soon(async () => expect(await page.getByText('Mooring fees to rise').count()).to.equal(0));
  });
});

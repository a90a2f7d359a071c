/** The Rundown in Chromium: promise, sections by their seconds, takes, hooks, by pointer and by keyboard. */
import { expect } from 'chai';
import { axe, openDesk, totalSeconds, type Desk, soon } from './browser.ts';

describe('the Rundown', function () {
  let desk: Desk;
  const open = async (title: string) => {
    const { scripts } = (await desk.server.get('/library')).body;
    const { id } = scripts.find((s: { settings: { title: string } }) => s.settings.title.includes(title));
    await desk.page.goto(`${desk.server.url}/script/${id}/rundown`);
    await desk.page.getByText('of seven kinds').waitFor();
    return id as string;
  };
  const titles = async () =>
    desk.page
      .locator('[data-testid^="section-"] input[aria-label^="Title of"]')
      .evaluateAll((list) => list.map((i) => (i as HTMLInputElement).value));

  before(async () => {
    desk = await openDesk();
  });
  after(() => desk.close());

  it('and every other place names facts by their place in a source, never by an id', async () => {
    const id = await open('Footbridge');
    const { page, server } = desk;
    const script = (await server.get(`/scripts/${id}`)).body as {
      sources: { id: string; facts: { id: string }[] }[];
    };
    const ids = script.sources.flatMap((s) => s.facts.map((f) => f.id.slice(1)));
    expect(ids.length).to.be.greaterThan(20);
    const shown = () =>
      page.evaluate(
        () =>
          document.body.innerText +
          Array.from(document.querySelectorAll('[aria-label], [title]'), (e) =>
            [e.getAttribute('aria-label'), e.getAttribute('title')].join(' '),
          ).join(' '),
      );
    const places = ['sources', 'rundown', 'page', 'commission', 'scenes', 'handoff'].map(
      (place) => `/script/${id}/${place}`,
    );
    for (const path of [...places, `/begin?source=${script.sources[0].id}`]) {
      await page.goto(server.url + path);
      await page.waitForLoadState('networkidle');
      if (path.endsWith('rundown')) await page.getByRole('button', { name: 'Titles and pictures' }).click();
      if (/rundown|begin/.test(path))
        await page
          .getByText(/\bA \d+: /)
          .first()
          .waitFor();
      const text = await shown();
      expect(
        ids.filter((fact) => text.includes(fact)),
        path,
      ).to.deep.equal([]);
    }
  });

  it('shows every section with planned and heard seconds that add up to the length', async () => {
    await open('Footbridge');
    const { page } = desk;
    await soon(async () => expect(await page.getByTestId('planned-sum').innerText()).to.equal('3:30'));
    await page.waitForFunction(
      () => !/^0:00/.test(document.querySelector('[data-testid=total]')?.textContent ?? '0:00'),
    );
    expect(await totalSeconds(page)).to.be.within(209, 211);
    expect((await titles()).length).to.be.greaterThan(4);
    expect(await axe(page)).to.deep.equal([]);
  });

  it('takes a title that a fact pays for, says where it is paid, and refuses one that nothing pays for', async () => {
    const { page } = desk;
    await page.getByRole('button', { name: 'Titles and pictures' }).click();
    await page.getByLabel('A title of your own').fill('Nine dragons under the bridge');
    await page.getByRole('button', { name: 'Can it be paid?' }).click();
    await page.getByText('The sources can’t pay for it.').waitFor();
    await soon(async () =>
      expect(await page.getByLabel('Title', { exact: true }).inputValue()).to.not.match(/dragons/),
    );
    await page.getByRole('region', { name: 'Promise' }).getByRole('button', { name: 'Use' }).first().click();
    await page.getByText('in use').waitFor();
    await page.getByTestId('kept').waitFor();
    await soon(async () =>
      expect(await page.getByTestId('kept').innerText()).to.match(/paid at \d+:\d\d|not paid/),
    );
    expect(await axe(page)).to.deep.equal([]);
    await page.getByRole('button', { name: 'Close', exact: true }).click();
  });

  it('gives a section time by key and takes it from the others; the sum holds; undo goes back', async () => {
    const { page } = desk;
    const row = page.locator('[data-testid^="section-"]').nth(1);
    const field = row.getByLabel(/^Planned time of/);
    const before = await field.inputValue();
    await row.focus();
    for (let i = 0; i < 5; i++) await page.keyboard.press('+');
    await soon(async () => expect(await field.inputValue()).to.not.equal(before));
    await soon(async () => expect(await page.getByTestId('planned-sum').innerText()).to.equal('3:30'));
    await page.keyboard.press('F2');
    await page.getByPlaceholder(/action/i).fill('Undo');
    await page.keyboard.press('Enter');
    await field.fill('0:40');
    await page.keyboard.press('Enter');
    await soon(async () => expect(await field.inputValue()).to.equal('0:40'));
  });

  it('drags a section’s edge on the run strip, and has the same on arrow keys', async () => {
    const { page } = desk;
    const edge = page.getByRole('separator').first();
    const field = page
      .locator('[data-testid^="section-"]')
      .first()
      .getByLabel(/^Planned time of/);
    const before = await field.inputValue();
    await edge.focus();
    for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
    await soon(async () => expect(await field.inputValue()).to.not.equal(before));
    const box = (await edge.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + 40, box.y + box.height / 2, { steps: 5 });
    await page.mouse.up();
    await soon(async () => expect(await page.getByTestId('planned-sum').innerText()).to.equal('3:30'));
  });

  it('fits every section to its plan', async () => {
    const { page } = desk;
    await page.getByRole('button', { name: /^Fit to/ }).click();
    await page.getByRole('button', { name: /^Fit to/ }).waitFor();
    await page.waitForFunction(() => !document.body.innerText.includes('Fitting…'));
    expect(Math.abs((await totalSeconds(page)) - 210)).to.be.at.most(4);
  });

  it('locks a section: nothing automatic changes it', async () => {
    const { page } = desk;
    const row = page.locator('[data-testid^="section-"]').nth(1);
    await row.getByRole('button', { name: /^Lock / }).click();
    await row.getByRole('button', { name: /^Unlock / }).waitFor();
    await row.focus();
    await page.keyboard.press('t');
    await page.getByText('This section is locked.').waitFor();
    await page.getByRole('button', { name: 'Good' }).click();
    await row.getByRole('button', { name: /^Unlock / }).click();
  });

  it('tells a section another way, keeps the earlier take, and goes back to it', async () => {
    const { page } = desk;
    const rows = page.locator('[data-testid^="section-"]');
    for (let i = 1; i < 5; i++) {
      await rows.nth(i).locator('button[aria-expanded]').click();
      const before = await rows.nth(i).locator('ol').innerText();
      await rows.nth(i).getByRole('button', { name: 'Another take' }).click();
      await page.waitForFunction(() => !document.body.innerText.includes('Telling…'));
      const changed = (await rows.nth(i).locator('ol').innerText()) !== before;
      if (changed) {
        await rows.nth(i).getByText('earlier takes').waitFor();
        await rows.nth(i).getByRole('button', { name: 'Use' }).last().click();
        await soon(async () => expect(await rows.nth(i).locator('ol').innerText()).to.equal(before));
        expect(await axe(page)).to.deep.equal([]);
        return;
      }
      await rows.nth(i).locator('button[aria-expanded]').click();
    }
    expect.fail('no section had another take');
  });

  it('changes the hook and the shape', async () => {
    const { page } = desk;
    const hooks = page.getByRole('region', { name: 'Hook' });
    await hooks.getByRole('button', { name: 'Use' }).first().click();
    await hooks.getByText('in the script').waitFor();
    await page
      .getByRole('complementary', { name: 'Shape and brief' })
      .getByRole('button', { name: 'Case' })
      .click();
    await page.getByRole('heading', { name: 'Case' }).waitFor();
    expect(Math.abs((await totalSeconds(page)) - 210)).to.be.at.most(4);
  });

  it('says in an empty script what is missing, and breaks nothing', async () => {
    const { page } = desk;
    await page.goto(`${desk.server.url}/begin`);
    await page.getByRole('button', { name: 'Begin an empty script' }).click();
    await page.getByRole('link', { name: 'Rundown' }).click();
    await page.getByText('No promise yet').waitFor();
    expect(await axe(page)).to.deep.equal([]);
    expect(desk.errors.filter((e) => !/status of (?:400|404)/.test(e))).to.deep.equal([]);
  });

  it('shows the spine: when each link is told, and keeps a place for one that this length drops', async () => {
    const id = await open('Lift');
    const { page } = desk;
    const spine = page.getByRole('region', { name: 'Spine' });
    await spine.waitFor();
    expect(await spine.getByRole('listitem').count()).to.be.within(4, 8);
    await soon(async () => expect(await spine.getByText(/^told at \d:\d\d$/).count()).to.be.greaterThan(2));
    const keep = spine.getByRole('button', { name: /^keep its place: / });
    if (!(await keep.count())) {
      // Every link is told: the last one's line goes, so that this length drops it.
      await page.goto(`${desk.server.url}/script/${id}/page`);
      await page.locator('.line:not(.locked) .words').last().click();
      await page.keyboard.press('End');
      await page.keyboard.press('Shift+Home');
      await page.keyboard.press('Backspace');
      await open('Lift');
    }
    const before = await totalSeconds(page);
    await keep.first().click();
    await spine.getByText(/^open at \d:\d\d$/).waitFor();
    await soon(async () => expect(await totalSeconds(page)).to.be.greaterThan(before + 1));
    expect(await axe(page)).to.deep.equal([]);
    // On the Page it says what it must say; once it is written it is a line like others.
    await page.goto(`${desk.server.url}/script/${id}/page`);
    const line = page.locator('.line.open');
    await line.waitFor();
    expect(await line.locator('.asks').textContent()).to.match(/^open, \d+\.\d s: must say “.+”$/);
    await line.locator('.words').click();
    await page.keyboard.type('Then the bridge was shut.');
    await soon(async () => expect(await page.locator('.line.open').count()).to.equal(0));
    await page.getByText('Then the bridge was shut.').waitFor();
  });

  it('lists what must be covered: when it is told, which fact has it, or that no source does; a fact is ticked there', async () => {
    const id = await open('Lift');
    const { page, server } = desk;
    // A fact that the script leaves untold, as a point.
    const script = (await server.get(`/scripts/${id}`)).body;
    const told = JSON.stringify(script.doc);
    const { facts } = script.sources[0] as { facts: { id: string; text: string; silent?: string }[] };
    const untold = facts.find((f) => !f.silent && f.text.length > 60 && f.text.length < 180 && !told.includes(f.id))!; // prettier-ignore
    const cover = page.getByRole('region', { name: 'To cover' });
    await cover.getByRole('button', { name: 'List points' }).click();
    const field = cover.getByLabel('Points and keywords to cover');
    await field.fill(`the lift\nnine dragons of marzipan\n${untold.text}`);
    await field.blur();
    await cover.getByText(/^told at \d+:\d\d$/).waitFor();
    await cover.getByText('no source says it').waitFor();
    await cover.getByText('2 of 3 not told').waitFor();
    await cover.getByRole('button', { name: /^Tick its fact: / }).click();
    await cover.getByText('ticked: told with the next take').waitFor();
    const marked = (await server.get(`/scripts/${id}`)).body.sources[0].marks;
    expect(marked[untold.id]).to.deep.include({ mark: 'must' });
    expect(await axe(page)).to.deep.equal([]);
  });

  it('tells a line in another section, or says why it can’t stand there', async () => {
    await open('Lift');
    const { page } = desk;
    const rows = page.locator('[data-testid^="section-"]');
    await rows.nth(1).locator('button.block').click();
    const choice = rows
      .nth(1)
      .getByLabel(/^Tell it in another section/)
      .last();
    const line = (await choice.getAttribute('aria-label'))!.replace(/^.*“|”$/g, '');
    const [, value] = await choice
      .locator('option')
      .evaluateAll((o) => o.map((x) => (x as HTMLOptionElement).value));
    await choice.selectOption(value);
    await soon(async () => {
      const gone = !(await rows.nth(1).innerText()).includes(line);
      const refused = await page.getByText('Left as it was.').count();
      expect(gone || refused > 0).to.equal(true);
    });
  });
});

/** A writer's day on the Page and in the Read-through, in the real interface. */
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { docFromJson, plainSections, type PlainSection } from '@ursprung/core/script';
import { axe, caretIn, type Desk, openDesk, pressEnd, soon, until } from './browser.ts';

const MESSY = readFileSync(new URL('./messy-draft.txt', import.meta.url), 'utf8');

describe('the Page', function () {
  let desk: Desk;
  let scriptId: string;
  before(async () => {
    desk = await openDesk();
    const { scripts } = (await desk.server.get('/library')).body as {
      scripts: { id: string; settings: { title: string } }[];
    };
    scriptId = scripts.find((s) => /Weighs a Boat/.test(s.settings.title))!.id;
  });
  after(() => desk.close());
  afterEach(() => expect(desk.errors.splice(0)).to.deep.equal([]));

  const open = async (id = scriptId, place = 'page') => {
    await desk.page.goto(`${desk.server.url}/script/${id}/${place}`);
    if (place === 'page') await desk.page.waitForSelector('.line .heard');
  };
  /** The page says so, and the server has what the page shows. */
  const saved = async () => {
    let seen = '';
    const same = async () => {
      const shown = await desk.page.locator('.line .words').allTextContents();
      const says = await desk.page.getByTestId('save').innerText();
      const id = /script\/([^/]+)/.exec(desk.page.url())![1];
      const kept = await texts(id);
      const at = kept.findIndex((t, k) => t !== shown[k]?.trim());
      seen = `${says}; line ${at}: “${kept[at]}” there, “${shown[at]}” here`;
      return says === 'Saved' && at < 0 && kept.length === shown.length;
    };
    await until(same, () => `What the page shows did not reach the server: ${seen}`);
  };
  const stored = async (id = scriptId): Promise<PlainSection[]> =>
    plainSections(docFromJson((await desk.server.get(`/scripts/${id}`)).body.doc));
  const texts = async (id = scriptId) => (await stored(id)).flatMap((s) => s.lines.map((l) => l.text));
  const line = (n: number) => desk.page.locator('.line .words').nth(n);
  const press = (key: string) => desk.page.keyboard.press(key);
  const type = (text: string) => desk.page.keyboard.type(text);

  it('says beside the strip what its marks mean, by the keyboard alone', async () => {
    await open();
    const key = desk.page.getByRole('button', { name: 'what the marks mean' });
    await key.focus();
    await press('Enter');
    await desk.page.getByText('a question that is never settled').waitFor();
    expect(await axe(desk.page)).to.deep.equal([]);
    await press('Escape');
    await desk.page.getByText('a question that is never settled').waitFor({ state: 'detached' });
    expect(await key.evaluate((e) => e === document.activeElement)).to.equal(true);
  });

  it('a locked line takes no typing, says so, and lets go when it is unlocked', async () => {
    await open();
    await caretIn(line(3));
    const was = await line(3).innerText();
    await press('Control+\\');
    await type('x');
    await desk.page.getByText('This is locked and stays as it is.').waitFor();
    await soon(async () => expect(await line(3).innerText()).to.equal(was));
    await press('Control+\\');
    await pressEnd(desk.page);
    await type(' Still.');
    await soon(async () => expect(await line(3).innerText()).to.equal(`${was} Still.`));
    await press('Control+z');
    await press('Control+z');
    await press('Control+z');
    await saved();
    await soon(async () => expect((await texts())[3]).to.equal(was));
  });

  it('finds whole words and patterns, and replaces them as one change', async () => {
    await open();
    await caretIn(line(0));
    await press('F8');
    await type('trough');
    await desk.page.getByRole('button', { name: 'whole word' }).click();
    const count = Number(
      /of (\d+)/.exec(await desk.page.getByRole('search').getByRole('status').innerText())![1],
    );
    const before = (await texts()).join('\n');
    expect(count).to.equal(before.match(/(?<![\p{L}])trough(?![\p{L}])/giu)!.length);
    await desk.page.getByLabel('Replace with').fill('basin');
    await desk.page.getByRole('button', { name: /Replace all/ }).click();
    await saved();
    await soon(async () =>
      expect((await texts()).join('\n')).to.equal(
        before.replace(/(?<![\p{L}])trough(?![\p{L}])/giu, 'basin'),
      ),
    );
    await press('Escape');
    await press('Control+z');
    await saved();
    await soon(async () => expect((await texts()).join('\n')).to.equal(before));
  });

  it('answers a note with a proposal; accepted in part, only that part changes; undone, nothing has', async () => {
    await open();
    await caretIn(line(4));
    const before = await texts();
    await press('F4');
    await type('shorten this section by half');
    await press('Enter');
    await desk.page.getByText('Understood:').waitFor();
    const boxes = desk.page.locator('aside input[type=checkbox]');
    const n = await boxes.count();
    expect(n).to.be.greaterThan(1);
    await boxes.first().uncheck();
    await desk.page.getByRole('button', { name: /^Accept/ }).click();
    await saved();
    await soon(async () => expect((await texts()).length).to.equal(before.length - n + 1));
    await desk.page.getByLabel('in plain words').fill('make it pop');
    await press('Enter');
    await desk.page.getByText('I don’t know this change.').waitFor();
    // The whole at another pace: nothing but the clock changes.
    const pace = async () => ((await desk.server.get(`/scripts/${scriptId}`)).body as { settings: { pace: number } }).settings.pace; // prettier-ignore
    const was = await pace();
    for (const asked of [was + 15, was]) {
      await desk.page.getByLabel('in plain words').fill(`read it at ${asked} wpm`);
      await press('Enter');
      await desk.page.getByText(`${asked} after; the words stay`).waitFor();
      await desk.page.getByRole('button', { name: 'Accept', exact: true }).click();
      await soon(async () => expect(await pace()).to.equal(asked));
    }
    await press('Escape');
    await press('Control+z');
    await saved();
    await soon(async () => expect(await texts()).to.deep.equal(before));
    expect(await axe(desk.page)).to.deep.equal([]);
  });

  it('own words: key words, live checks, one key goes on, what was there stays a take', async () => {
    await open();
    await press('F9');
    const box = desk.page.getByLabel('This line in your own words');
    await box.waitFor();
    const left = async () =>
      Number(
        /(\d+) lines left/.exec(await desk.page.getByRole('main', { name: 'Own words' }).innerText())![1],
      );
    const before = await left();
    await box.fill('It cost £999 in 1771.');
    await desk.page.getByText('No source has the figure').first().waitFor();
    await box.fill('Boats ride between river and canal in the city of Marrowgate: that is the Orrin lift.');
    await desk.page.getByText('Nothing runs on as in the source.').waitFor();
    await press('Enter');
    await desk.page.waitForFunction((n) => !document.body.innerText.includes(`${n} lines left`), before);
    expect(await left()).to.equal(before - 1);
    await saved();
    const mine = (await stored()).flatMap((s) => s.lines).find((l) => l.text.startsWith('Boats ride'))!;
    expect(mine.takes.map((t) => t.text)).to.include(
      'The Orrin boat lift is a canal lift in the river city of Marrowgate.',
    );
    expect(await axe(desk.page)).to.deep.equal([]);
    await press('Escape');
    await press('Control+z');
    await saved();
  });

  it('keeps takes and comments, and reaches, names, compares and brings back states', async () => {
    await open();
    let at = 1;
    const { doc } = (await desk.server.get(`/scripts/${scriptId}`)).body;
    const own = plainSections(docFromJson(doc));
    const all = own.flatMap((s) => s.lines);
    while (
      !(await desk.server.post(`/scripts/${scriptId}/tellings`, { line: all[at].id, sections: own })).body
        .tellings.length
    )
      at++;
    await caretIn(line(at));
    await press('Control+Shift+.');
    const takes = desk.page.getByRole('complementary', { name: 'Takes' });
    await takes.waitFor();
    const was = await line(at).innerText();
    await press('Control+;');
    await desk.page.waitForFunction(
      ([w, k]) => document.querySelectorAll('.line .words')[k as number]?.textContent !== w,
      [was, at] as const,
    );
    await takes.getByText('earlier,').first().waitFor();
    await takes.getByRole('button', { name: 'Use' }).first().click();
    await desk.page.waitForFunction(
      ([w, k]) => document.querySelectorAll('.line .words')[k as number]?.textContent === w,
      [was, at] as const,
    );
    await desk.page.getByRole('button', { name: 'Close', exact: true }).click();
    await caretIn(line(2));
    await press("Control+'");
    await desk.page.getByLabel('on the selected words').fill('which river?');
    await press('Enter');
    await desk.page.getByText('which river?').waitFor();
    await desk.page.getByRole('button', { name: 'Settled' }).click();
    await desk.page.getByRole('button', { name: 'Close', exact: true }).click();
    await saved();
    const now = await texts();
    await press('F2');
    await type('History');
    await press('Enter');
    await desk.page.getByRole('button', { name: 'as it began' }).waitFor();
    await desk.page.getByLabel('name the script as it is now').fill('for the lawyer');
    await press('Enter');
    await desk.page.getByRole('button', { name: 'for the lawyer' }).waitFor();
    await caretIn(line(0));
    await pressEnd(desk.page);
    await type(' Once.');
    await saved();
    await desk.page.getByRole('button', { name: 'for the lawyer' }).click();
    await desk.page.getByRole('button', { name: 'Bring it all back' }).click();
    await saved();
    await soon(async () => expect(await texts()).to.deep.equal(now));
    expect(await axe(desk.page)).to.deep.equal([]);
  });

  it('moves a line by dragging its clock, and by keys', async () => {
    await open();
    const before = await texts();
    const from = await desk.page.locator('.line .heard').nth(2).boundingBox();
    const to = await desk.page.locator('.line .heard').nth(4).boundingBox();
    await desk.page.mouse.move(from!.x + 20, from!.y + 8);
    await desk.page.mouse.down();
    await desk.page.mouse.move(to!.x + 20, to!.y + to!.height - 2, { steps: 6 });
    await desk.page.mouse.up();
    await saved();
    const after = await texts();
    expect(after[4]).to.equal(before[2]);
    expect([...after].sort()).to.deep.equal([...before].sort());
    await press('Control+Shift+ArrowUp');
    await press('Control+Shift+ArrowUp');
    await saved();
    await soon(async () => expect(await texts()).to.deep.equal(before));
  });

  it('rehearses: reads along on its own clock, and a recording sets the pace', async () => {
    await open();
    await caretIn(line(0));
    await press('F2');
    await type('Rehearse');
    await press('Enter');
    const bar = desk.page.getByRole('group', { name: 'Rehearse' });
    await bar.getByRole('button', { name: 'Read along' }).click();
    // The first line lasts under three seconds.
    await desk.page.waitForFunction(() => !document.querySelector('.line')?.classList.contains('chosen'));
    await bar.getByRole('button', { name: 'Stop' }).click();
    await bar.getByRole('button', { name: 'with the stand-in voice' }).click();
    await bar.getByRole('button', { name: 'Stop' }).click();
    await caretIn(line(0));
    await bar.getByRole('button', { name: 'Record yourself' }).click();
    const done = bar.getByRole('button', { name: /^Done/ });
    await done.waitFor();
    await desk.page.waitForTimeout(2000);
    await caretIn(line(2));
    await done.click();
    await bar.getByText(/words a minute instead of \d+/).waitFor();
    const pace = Number(/: (\d+) words a minute/.exec(await bar.innerText())![1]);
    await bar.getByRole('button', { name: 'Set the clock to this' }).click();
    await desk.page.waitForFunction(
      async ([id, p]) =>
        ((await (await fetch(`/api/scripts/${id}`)).json()) as { settings: { pace: number } }).settings
          .pace === p,
      [scriptId, pace] as const,
    );
    await bar.getByRole('button', { name: 'Close', exact: true }).click();
  });

  it('says a word the channel’s way, and the clock follows', async () => {
    await open();
    const total = () => desk.page.getByTestId('total').innerText();
    const before = await total();
    await caretIn(line(1));
    await press('F2');
    await type('How a word is said');
    await press('Enter');
    await desk.page.getByLabel('word', { exact: true }).fill('Orrin');
    await desk.page.getByLabel('said as (respelled)').fill('the river that nobody can spell');
    await press('Enter');
    await desk.page.waitForFunction(
      (was) => document.querySelector('[data-testid=total]')?.textContent !== was,
      before,
    );
  });

  describe('from a messy draft to a clean read-through, by keyboard alone', () => {
    let id = '';

    it('takes it in: the narration as lines, the rest as notes', async () => {
      await desk.page.goto(`${desk.server.url}/draft`);
      await desk.page.getByLabel('Paste a draft').focus();
      // What Ctrl V does, where the clipboard is not ours to use.
      await desk.page.keyboard.insertText(MESSY);
      await desk.page.getByText(/pieces set aside/).waitFor();
      expect(await axe(desk.page)).to.deep.equal([]);
      await desk.page.getByRole('button', { name: 'Put it on the Page' }).focus();
      await press('Enter');
      await desk.page.waitForURL(/script\/.*page/);
      id = /script\/([^/]+)/.exec(desk.page.url())![1];
      await desk.page.waitForSelector('.line .heard');
      const spoken = (await texts(id)).join(' ');
      expect(spoken).to.not.match(/VISUAL|NARRATOR|Word count|\[|drone/i);
      expect(spoken).to.include('He was a quiet man');
      expect(spoken.split(/\s+/).length).to.be.greaterThan(1400);
    });

    it('one key says what was set aside, another takes it back', async () => {
      const before = (await texts(id)).length;
      await caretIn(desk.page.locator('.line.noted .words').first());
      await press('Control+Shift+Enter');
      await saved();
      await soon(async () => expect((await texts(id)).length).to.equal(before + 1));
      await press('Control+z');
      await saved();
      await soon(async () => expect((await texts(id)).length).to.equal(before));
    });

    it('has no score without a source, but what would need proof; mends what is safe as one change', async () => {
      await open(id, 'read');
      const found = async () =>
        Number(/(\d+) found/.exec((await desk.page.getByText(/\d+ found, /).textContent()) ?? '')?.[1]);
      await desk.page.getByText(/let stand$/).waitFor({ timeout: 60_000 });
      expect(await desk.page.getByTestId('score').innerText()).to.equal('–');
      await desk.page.getByText(/^No score: this script has no source.* claims would need proof:$/).waitFor();
      const before = await found();
      const mendAll = async () => {
        await press('F2');
        await type('Mend all');
        await press('Enter');
      };
      await mendAll();
      await soon(async () => expect(await found()).to.be.lessThan(before));
      for (let i = 0; i < 6; i++) {
        await mendAll();
        await desk.page.waitForTimeout(250);
      }
      expect(await found()).to.be.lessThan(before);
      expect(await axe(desk.page)).to.deep.equal([]);
    });

    it('goes from finding to finding, mends one, lets one stand with a reason that stays', async () => {
      const list = desk.page.getByRole('group', { name: 'Script with findings' });
      await list.focus();
      await press('ArrowDown');
      await desk.page.getByText(/^Finding 1 of/).waitFor();
      await press('Delete');
      await desk.page.getByLabel('why it may stand').waitFor();
      await type('it is how she talks');
      await press('Enter');
      await desk.page.getByText(/1 let stand/).waitFor();
      await desk.page.reload();
      await desk.page.getByText(/1 let stand/).waitFor({ timeout: 60_000 });
      await desk.page.getByText('it is how she talks').waitFor();
    });
  });

  it('shows an empty script, the dark theme and the side without breaking contrast', async () => {
    const { channels } = (await desk.server.get('/library')).body as { channels: { id: string }[] };
    const empty = (
      await desk.server.post('/scripts', {
        channelId: channels[0].id,
        frame: '16:9',
        mood: 'calm',
        pace: 150,
        voice: 'even',
        target: { kind: 'point', seconds: 60 },
      })
    ).body.id as string;
    await open(empty, 'read');
    await desk.page.getByText('There is nothing to read yet.').waitFor();
    await desk.page.evaluate(() => (document.documentElement.dataset.theme = 'dark'));
    expect(await axe(desk.page)).to.deep.equal([]);
    await open(scriptId, 'read');
    await desk.page.getByText(/let stand/).waitFor({ timeout: 60_000 });
    await desk.page.evaluate(() => (document.documentElement.dataset.theme = 'dark'));
    expect(await axe(desk.page)).to.deep.equal([]);
    await open();
    await desk.page.evaluate(() => (document.documentElement.dataset.theme = 'dark'));
    await caretIn(line(2));
    await press('Control+\\');
    await press('Control+Shift+.');
    expect(await axe(desk.page)).to.deep.equal([]);
    await press('Escape');
    await caretIn(line(2));
    await press('Control+\\');
    await saved();
  });

  it('keeps writing while the server can’t be reached, and sends it when it is back', async () => {
    await open();
    await caretIn(line(0));
    await pressEnd(desk.page);
    await desk.page.route('**/api/**', (r) => r.abort());
    await type(' Kept.');
    await desk.page.waitForFunction(
      () => document.querySelector('[data-testid=save]')?.textContent === 'Kept here',
    );
    await desk.page.unroute('**/api/**');
    await saved();
    // The browser says of each request that it failed; that is the point.
    desk.errors.length = 0;
    await soon(async () => expect((await texts())[0]).to.match(/Kept\.$/));
  });

  it('sets what a channel’s scripts start from, and keeps it', async () => {
    const { channels } = (await desk.server.get('/library')).body as { channels: { id: string }[] };
    const { page } = desk;
    await page.goto(`${desk.server.url}/channel/${channels[0].id}`);
    await page.getByRole('button', { name: 'What its scripts start from' }).click();
    const form = page.getByRole('form', { name: 'What its scripts start from' });
    await form.getByLabel('pace, words a minute').fill('fast');
    await form.getByText('A pace is words a minute, like 150.').waitFor();
    await form.getByLabel('pace, words a minute').fill('162');
    await form.getByLabel('usual length, from').fill('2:30');
    await form.getByLabel('opening line').fill('Good evening. <b>Mind</b> the gate.');
    await form.getByRole('radio', { name: 'dry' }).click();
    expect(await axe(page)).to.deep.equal([]);
    await form.getByRole('button', { name: 'Keep it' }).press('Enter');
    await form.waitFor({ state: 'detached' });
    await page.reload();
    await page.getByRole('button', { name: 'What its scripts start from' }).click();
    expect(await form.getByLabel('opening line').inputValue()).to.equal(
      'Good evening. <b>Mind</b> the gate.',
    );
    expect(await form.getByLabel('usual length, from').inputValue()).to.equal('2:30');
    await form.getByLabel('name', { exact: true }).press('Escape');
    await form.waitFor({ state: 'detached' });
    const after = (await desk.server.get('/library')).body as { channels: { id: string; settings: { pace: number; mood: string } }[] }; // prettier-ignore
    expect(after.channels.find((c) => c.id === channels[0].id)!.settings).to.include({
      pace: 162,
      mood: 'dry',
    });
  });

  it('measures a channel, switches a rule off and on', async () => {
    const { channels } = (await desk.server.get('/library')).body as {
      channels: { id: string; name: string }[];
    };
    await desk.page.goto(`${desk.server.url}/channel/${channels[0].id}`);
    await desk.page.getByRole('button', { name: /^Measure its/ }).click();
    await desk.page.getByText(/drafts, takes and the read-through follow it/).waitFor();
    await soon(async () =>
      expect(await desk.page.locator('section[aria-label="House style"] tbody tr').count()).to.be.at.least(
        24,
      ),
    );
    await desk.page.getByLabel('Filler').uncheck();
    await desk.page.waitForFunction(
      () => !(document.querySelector('input[type=checkbox]:not(:checked)') === null),
    );
    expect(await axe(desk.page)).to.deep.equal([]);
    await desk.page.reload();
    await soon(async () => expect(await desk.page.getByLabel('Filler').isChecked()).to.equal(false));
  });
});

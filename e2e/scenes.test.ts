/** Scenes, the handoff and the page to speak from, in the real interface. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import JSZip from 'jszip';
import { docFromJson, plainSections } from '@ursprung/core/script';
import { espeak } from '@ursprung/standins';
import { axe, caretIn, type Desk, openDesk, soon, until } from './browser.ts';

describe('scenes and handoff', function () {
  let desk: Desk;
  let id: string;
  before(async () => {
    desk = await openDesk();
    const { scripts } = (await desk.server.get('/library')).body as {
      scripts: { id: string; settings: { title: string } }[];
    };
    id = scripts.find((s) => /Weighs a Boat/.test(s.settings.title))!.id;
  });
  after(() => desk.close());
  afterEach(() => expect(desk.errors.splice(0)).to.deep.equal([]));

  const lines = async () =>
    plainSections(docFromJson((await desk.server.get(`/scripts/${id}`)).body.doc)).flatMap((s) => s.lines);
  /** The sheet as the server makes it, asked until it is as it should be. */
  const expectSheet = (is: (sheet: { totalMs: number }) => boolean) =>
    until(
      async () => is((await desk.server.get(`/scripts/${id}/sheet`)).body),
      'The sheet never became as it should be.',
    );
  const saved = () => desk.page.getByTestId('save').filter({ hasText: 'Saved' }).waitFor();
  const scenes = () => desk.page.getByTestId('scene');
  const go = async (place: string) => {
    await desk.page.goto(`${desk.server.url}/script/${id}/${place}`);
  };

  it('show the film at a glance, each with its picture, and pass axe', async () => {
    const { page } = desk;
    await go('scenes');
    await scenes().first().waitFor();
    await page.getByTestId('description').waitFor();
    await soon(async () => expect(await scenes().count()).to.be.greaterThan(60));
    await soon(async () =>
      expect(await page.getByTestId('description').innerText()).to.match(/Horizontal 16:9\.$/),
    );
    expect(await axe(page)).to.deep.equal([]);
  });

  it('are split, joined, held and given back by the keyboard alone', async () => {
    const { page } = desk;
    const before = await scenes().count();
    await scenes().nth(2).focus();
    await page.keyboard.press('s');
    await page.waitForFunction(
      (n) => document.querySelectorAll('[data-testid=scene]').length === n,
      before + 1,
    );
    await scenes().nth(3).focus();
    await page.keyboard.press('j');
    await page.waitForFunction((n) => document.querySelectorAll('[data-testid=scene]').length === n, before);
    await scenes().nth(2).focus();
    await page.keyboard.press('l');
    await scenes().nth(2).getByText('held').waitFor();
    await page.keyboard.press('Control+z');
    await page.keyboard.press('ArrowRight');
    await saved();
    await soon(async () =>
      expect((await lines()).some((l) => l.marks?.some((m) => m.type === 'cut'))).to.equal(true),
    );
  });

  it('keep their place when they are joined, and the last step is taken back with Ctrl Z', async () => {
    const { page } = desk;
    /** Once the pictures of the last change have come: a scene's words name its picture. */
    const texts = async () => {
      await page.getByText('pictures are being worked out').waitFor({ state: 'detached' });
      return (await scenes().allInnerTexts()).join('|').replace(/\s+/g, ' ');
    };
    const chosen = () => scenes().evaluateAll((all) => all.findIndex((s) => s.getAttribute('aria-selected') === 'true')); // prettier-ignore
    const whole = await texts();
    await scenes().nth(13).focus();
    await page.keyboard.press('s');
    await soon(async () => expect(await texts()).to.not.equal(whole));
    const parted = await texts();
    const at = await chosen();
    expect(at).to.be.within(12, 14);
    await scenes()
      .nth(at + 1)
      .focus();
    await page.keyboard.press('j');
    await soon(async () => expect(await texts()).to.not.equal(parted));
    await soon(async () => expect(await chosen()).to.equal(at));
    await page.keyboard.press('Control+z');
    await soon(async () => expect(await texts()).to.equal(parted));
    await page.keyboard.press('Control+z');
    await soon(async () => expect(await texts()).to.equal(whole));
    await saved();
  });

  it('take every press on the wanted pace, however fast', async () => {
    const { page } = desk;
    const handle = page.getByRole('slider', { name: /^Wanted seconds a picture at 50 %/ });
    const was = Number(await handle.getAttribute('aria-valuenow'));
    await handle.focus();
    for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowUp');
    await soon(async () => expect(Number(await handle.getAttribute('aria-valuenow'))).to.equal(was + 2));
    // The last one is what is kept.
    await soon(async () => expect((await desk.server.get(`/scripts/${id}`)).body.settings.paceCurve?.[2].seconds).to.equal(was + 2)); // prettier-ignore
    await page.getByRole('button', { name: 'As computed' }).click();
    await soon(async () => expect(await page.getByRole('button', { name: 'As computed' }).count()).to.equal(0)); // prettier-ignore
  });

  it('take the writer’s own words, and give them back to what is computed', async () => {
    const { page } = desk;
    await scenes().nth(4).click();
    await page.getByRole('button', { name: 'Say it otherwise' }).click();
    await page.getByRole('textbox', { name: /^Description/ }).fill('Close-up of a brass wheel');
    await page.getByRole('textbox', { name: /^Description/ }).blur();
    await page.getByTestId('description').filter({ hasText: 'Close-up of a brass wheel.' }).waitFor();
    await soon(async () =>
      expect(await page.getByTestId('description').innerText()).to.match(/Horizontal 16:9\.$/),
    );
    await page.getByRole('button', { name: 'As computed' }).first().click();
    await page.getByTestId('description').filter({ hasNotText: 'brass wheel' }).waitFor();
  });

  it('sound as the writer says: a cue is added, worded, moved, levelled and left out, by the keyboard alone', async () => {
    const { page } = desk;
    await scenes().nth(4).click();
    await page.getByRole('button', { name: 'Add a cue' }).press('Enter');
    const fields = page.getByRole('group', { name: 'A new cue' });
    await page.keyboard.press('Enter');
    await fields.getByRole('alert').filter({ hasText: 'A cue says what is heard.' }).waitFor();
    await fields.getByLabel('What is heard').fill('a <b>gate</b> creaks');
    await fields.getByLabel('at, s').press('ArrowUp');
    await fields.getByLabel('level, dB').fill('-9');
    expect(await axe(page)).to.deep.equal([]);
    await fields.getByLabel('level, dB').press('Enter');
    const said = page.getByRole('button', { name: /a <b>gate<\/b> creaks at 0\.1 s, -9 dB/ });
    await said.press('Enter');
    const again = page.getByRole('group', { name: /^Cue: / });
    await again.getByLabel('Kind of cue').selectOption('ambience');
    await again.getByLabel('at, s').fill('0');
    await again.getByLabel('at, s').press('Enter');
    await page.getByRole('button', { name: /^ambience a <b>gate<\/b> creaks at 0\.0 s/ }).waitFor();
    await saved();
    await page.reload();
    await scenes().nth(4).click();
    await page.getByRole('button', { name: 'Leave out a <b>gate</b> creaks' }).press('Enter');
    await soon(async () => expect(await page.getByText('creaks at').count()).to.equal(0));
  });

  it('know a person once said in every description', async () => {
    const { page } = desk;
    await page.getByRole('button', { name: 'Cast and places' }).click();
    const field = page.getByRole('textbox', { name: 'Ambrose Vey: hair' });
    await field.fill('short black hair');
    await field.blur();
    expect(await axe(page)).to.deep.equal([]);
    await page.getByRole('button', { name: 'Back to the scenes' }).click();
    await scenes().filter({ hasText: /./ }).first().waitFor();
    await saved();
    const { body } = await desk.server.post(`/scripts/${id}/film`, {
      sections: plainSections(docFromJson((await desk.server.get(`/scripts/${id}`)).body.doc)),
    });
    const vey = body.cast.find((c: { name: string }) => c.name === 'Ambrose Vey');
    const shown = body.pictures.filter((p: { cast: string[] }) => p.cast.includes(vey.id));
    expect(shown.length).to.be.greaterThan(1);
    for (const p of shown) expect(p.description).to.include('short black hair');
  });

  it('have a scene without words with seconds of its own, which the runtime counts', async () => {
    const { page } = desk;
    const total = await page.getByTestId('total').innerText();
    await scenes().nth(6).focus();
    await page.keyboard.press('n');
    await page.waitForFunction(
      (t) => document.querySelector('[data-testid=total]')?.textContent !== t,
      total,
    );
    const silent = scenes().filter({ hasText: 'nobody speaks' }).first();
    await silent.click();
    await page.getByRole('spinbutton', { name: 'Seconds without words' }).fill('4.5');
    await page.getByRole('spinbutton', { name: 'Seconds without words' }).blur();
    for (let i = 0; i < 40 && !(await lines()).some((l) => !l.text && l.fixedMs === 4500); i++)
      await page.waitForTimeout(100);
    await soon(async () => expect((await lines()).some((l) => !l.text && l.fixedMs === 4500)).to.equal(true));
    await page.getByRole('button', { name: 'Take it out' }).click();
    await page.waitForFunction(
      (t) => document.querySelector('[data-testid=total]')?.textContent === t,
      total,
    );
  });

  it('follow the curve of seconds a picture, by its handles', async () => {
    const { page } = desk;
    // What was taken out just now is gone from the sheet a moment later.
    await page.waitForTimeout(800);
    const before = await scenes().count();
    const handle = page.getByRole('slider', { name: /Wanted seconds a picture at 50 %/ });
    await handle.focus();
    for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowDown');
    await page.waitForFunction((n) => document.querySelectorAll('[data-testid=scene]').length > n, before);
    await page.getByRole('button', { name: 'As computed' }).first().click();
    await page.waitForFunction((n) => document.querySelectorAll('[data-testid=scene]').length === n, before);
  });

  it('are as many as are asked for, or one every so many seconds', async () => {
    const { page } = desk;
    const before = await scenes().count();
    const field = page.getByRole('textbox', { name: 'Pictures in all' });
    await field.fill(String(before + 12));
    await field.press('Enter');
    await soon(async () => expect(Math.abs((await scenes().count()) - before - 12)).to.be.at.most(2));
    const every = page.getByRole('textbox', { name: 'Seconds a picture on average' });
    const was = Number(await every.inputValue());
    await every.fill(String(was * 2));
    await every.press('Enter');
    await soon(async () => expect(Number(await every.inputValue())).to.be.within(was * 1.8, was * 2.2));
    // What is no number changes nothing.
    await field.fill('many');
    await field.press('Enter');
    expect(Number(await every.inputValue())).to.be.within(was * 1.8, was * 2.2);
    await page.getByRole('button', { name: 'As computed' }).first().click();
    await page.waitForFunction((n) => document.querySelectorAll('[data-testid=scene]').length === n, before);
  });

  it('hand over one zip, and say later in plain words what has changed', async () => {
    const { page } = desk;
    await page.getByRole('link', { name: 'Handoff' }).click();
    await page.getByRole('button', { name: /^Picture editor/ }).click();
    await page.getByText('Captions on their clock').waitFor();
    expect(await axe(page)).to.deep.equal([]);
    await saved();
    // A kit is made first, which takes a busy machine a while.
    const waiting = page.waitForEvent('download', { timeout: 90_000 });
    await page.getByRole('button', { name: 'Save one zip' }).click();
    const file = await waiting;
    expect(file.suggestedFilename()).to.match(/^[a-z0-9-]+-editor\.zip$/);
    const zip = await JSZip.loadAsync(readFileSync((await file.path())!));
    expect(Object.keys(zip.files)).to.include('manifest.json');
    await page
      .getByText(/as handed over/)
      .first()
      .waitFor();

    await page.getByRole('link', { name: 'Page' }).click();
    await caretIn(page.locator('.line .words').nth(3));
    await page.keyboard.press('End');
    await page.keyboard.type(' Again.');
    await saved();
    await page.getByRole('link', { name: 'Handoff' }).click();
    await page
      .getByText(/1 line changed/)
      .first()
      .waitFor();
  });

  it('show each file before it is saved, and the upload part by part in the writer’s words', async () => {
    const { page } = desk;
    await page.getByRole('button', { name: /^Voice/ }).click();
    await page.getByRole('button', { name: /^SSML/ }).click();
    await page.getByTestId('file-text').filter({ hasText: '<speak' }).waitFor();
    await page.getByRole('button', { name: /^Uploader/ }).click();
    const question = page.getByRole('textbox', { name: 'question for the comments' });
    await question.fill('Have you ever been lifted?');
    await question.blur();
    await page.getByRole('button', { name: 'As computed' }).first().waitFor();
    await saved();
    expect((await desk.server.get(`/scripts/${id}/sheet`)).body.upload.parts.question).to.equal(
      'Have you ever been lifted?',
    );
    expect(await axe(page)).to.deep.equal([]);
  });

  it('lay a recording against the script in the page, its doubt shown, nothing sent anywhere', async () => {
    const { page } = desk;
    await page.getByRole('button', { name: /^Voice/ }).click();
    const text = (await lines()).map((l) => l.text).join('\n');
    // By its path: megabytes through the browser's own wire take their time on a busy machine.
    const folder = mkdtempSync(join(tmpdir(), 'ursprung-take-'));
    const take = join(folder, 'take.wav');
    writeFileSync(take, await espeak('en-gb', 165).speak(text));
    const sent: string[] = [];
    page.on('request', (r) => r.method() === 'POST' && sent.push(r.url()));
    await page.locator('summary', { hasText: 'A recording' }).click();
    await page.locator('input[type=file][accept*=wav]').setInputFiles(take);
    await page.getByText(/Placed by its silences alone/).waitFor();
    rmSync(folder, { recursive: true });
    await soon(async () =>
      expect(await page.getByRole('button', { name: 'Use its pace' }).count()).to.equal(1),
    );
    expect(sent.filter((u) => /record/.test(u))).to.deep.equal([]);
    await page.getByRole('button', { name: 'Hand over on its time' }).click();
    const timedBy = page.getByRole('region', { name: 'Timed by a recording' });
    await timedBy.getByText('take.wav').waitFor();
    await saved();
    const { recording } = (await desk.server.get(`/scripts/${id}`)).body.settings.handoff;
    await expectSheet((s) => s.totalMs === recording.ms);
    await timedBy.getByRole('button', { name: 'Time it by the clock' }).click();
    await timedBy.waitFor({ state: 'detached' });
    await saved();
    await page.locator('input[type=file][accept*=wav]').setInputFiles({
      name: 'take.wav',
      mimeType: 'audio/wav',
      buffer: Buffer.from('this is no recording, and far too short to be one of anything at all'),
    });
    await page.getByRole('alert').filter({ hasText: 'not a WAV' }).waitFor();
  });

  it('a translation by the stand-in is shown as a machine’s, with the lines that will not fit, which are said shorter there', async () => {
    const { page } = desk;
    await page.getByRole('button', { name: /^Translator/ }).click();
    await page.getByRole('button', { name: 'A first Spanish draft by the stand-in' }).click();
    await page.getByText('by a machine: to be gone over by a person').waitFor();
    await page.getByText(/in its own language/).waitFor();
    expect(await axe(page)).to.deep.equal([]);
    const line = page.getByRole('region', { name: 'The script in es' }).getByTitle('Say it otherwise').nth(1);
    await line.press('Enter');
    const field = page.getByRole('textbox', { name: 'This line in the other language' });
    await field.fill('palabra '.repeat(90));
    await field.press('Enter');
    await page
      .getByText(/s too long: it may take/)
      .first()
      .waitFor();
    await line.press('Enter');
    await field.fill('<b>Sí.</b>');
    expect(await axe(page)).to.deep.equal([]);
    await field.press('Enter');
    await line.filter({ hasText: '<b>Sí.</b>' }).waitFor();
  });

  it('the page to speak from works on a phone: large text, presses for a thumb, and passes axe', async () => {
    const { page } = desk;
    await page.setViewportSize({ width: 390, height: 844 });
    await go('voice');
    await page.getByRole('button', { name: 'Said' }).waitFor();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).to.be.at.most(390);
    const said = (await page.getByRole('button', { name: 'Said' }).boundingBox())!;
    expect(said.height).to.be.at.least(44);
    await page.getByRole('button', { name: 'Said' }).click();
    await page.locator('[data-at="1"][aria-current=true]').waitFor();
    await page.keyboard.press('Tab');
    await page.getByRole('button', { name: /sayings$/ }).click();
    await page
      .getByText(/a guess: ask/)
      .first()
      .waitFor();
    expect(await axe(page)).to.deep.equal([]);
    await page.setViewportSize({ width: 1280, height: 800 });
  });
});

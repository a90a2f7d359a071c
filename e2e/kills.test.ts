/** Random kills of server and browser in the middle of typing lose no edit that was acknowledged. KILLS sets how many. */
import { pressEnd } from './browser.ts';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { chromium, type BrowserContext, type Page } from 'playwright-core';
import { docFromJson, plainSections } from '@ursprung/core/script';
import { freshServer } from '../server/test/helpers.ts';

const KILLS = Number(process.env.KILLS ?? 12);
const root = fileURLToPath(new URL('..', import.meta.url));

/** A fixed stream of chances (mulberry32), so that a failure can be had again. */
function chances(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const freePort = () =>
  new Promise<number>((resolve) => {
    const s = createServer().listen(0, '127.0.0.1', () => {
      const { port } = s.address() as { port: number };
      s.close(() => resolve(port));
    });
  });

describe('random kills in mid-edit', function () {
  this.timeout(KILLS * 60_000 + 60_000);

  it(`${KILLS} kills lose no acknowledged edit`, async () => {
    const seeded = await freshServer();
    const channelId = (
      await seeded.post('/channels', {
        name: 'Kills',
        settings: { frame: '16:9', mood: 'calm', pace: 150, voice: 'even', usual: { from: 60, to: 600 } },
      })
    ).body.id as string;
    const scriptId = (
      await seeded.post('/scripts', {
        channelId,
        frame: '16:9',
        mood: 'calm',
        pace: 150,
        voice: 'even',
        target: { kind: 'point', seconds: 60 },
      })
    ).body.id as string;
    const port = await freePort();
    const url = `http://127.0.0.1:${port}`;
    const folder = mkdtempSync(join(tmpdir(), 'ursprung-kills-'));
    const random = chances(17);
    let server: ChildProcess | null = null;
    let context: BrowserContext | null = null;

    const startServer = async () => {
      server = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
        env: { ...process.env, DATABASE_URL: seeded.databaseUrl, PORT: String(port) },
        stdio: 'ignore',
      });
      // However long a busy machine takes: until it answers, or has ended.
      const mine = server;
      while (mine.exitCode === null && mine.signalCode === null) {
        const up = await fetch(`${url}/api/health`, { signal: AbortSignal.timeout(120_000) }).then(
          (r) => r.ok,
          () => false,
        );
        if (up) return;
        await new Promise((r) => setTimeout(r, 50));
      }
      throw new Error('The server did not come up again.');
    };
    const openPage = async (): Promise<Page> => {
      context = await chromium.launchPersistentContext(folder, {
        executablePath: '/usr/bin/chromium',
        args: ['--no-sandbox', '--disable-gpu', '--no-first-run'],
      });
      const page = context.pages()[0] ?? (await context.newPage());
      page.setDefaultTimeout(60_000);
      await page.goto(`${url}/script/${scriptId}/page`);
      await page.waitForSelector('.line .words');
      await page.locator('.line .words').last().click();
      await pressEnd(page);
      return page;
    };
    const stored = async () => {
      const { doc } = (await (await fetch(`${url}/api/scripts/${scriptId}`)).json()) as { doc: unknown };
      return plainSections(docFromJson(doc))
        .flatMap((s) => s.lines.map((l) => l.text))
        .join('\n');
    };

    const acknowledged: string[] = [];
    let word = 0;
    let kills = { server: 0, browser: 0 };
    try {
      await startServer();
      let page = await openPage();
      while (kills.server + kills.browser < KILLS) {
        const what = random() < 0.75 ? 'server' : 'browser';
        const typed: string[] = [];
        const words = 1 + Math.floor(random() * 5);
        const acks: string[][] = [];
        for (let i = 0; i < words; i++) {
          const w = `w${++word}x`;
          await page.keyboard.type(`${w} `);
          typed.push(w);
          if (random() < 0.25) await page.keyboard.press('Enter');
          await page.waitForTimeout(random() * 500);
          // What the page calls saved must be there whatever happens next.
          if ((await page.getByTestId('save').innerText()) === 'Saved') acks.push([...typed]);
        }
        const sure = (acks[acks.length - 1] ?? []).slice(0, -1);
        if (what === 'server') {
          server!.kill('SIGKILL');
          await page.keyboard.type(`w${++word}x `);
          await startServer();
          // As when the writer comes back to the window: it looks at once instead of at its next try.
          await page.evaluate(() => window.dispatchEvent(new Event('focus')));
          await page.waitForFunction(
            () => document.querySelector('[data-testid=save]')?.textContent === 'Saved',
          );
          // Nothing typed is lost here: the page was there all the time.
          sure.push(...typed.slice(sure.length), `w${word}x`);
        } else {
          spawnSync('pkill', ['-9', '-f', folder]);
          await context!.close().catch(() => {});
          rmSync(join(folder, 'SingletonLock'), { force: true });
          page = await openPage();
        }
        kills = { ...kills, [what]: kills[what] + 1 };
        acknowledged.push(...sure);
        const text = await stored();
        for (const w of sure)
          expect(text, `after kill ${kills.server + kills.browser} (${what})`).to.include(w);
        // A long script would only slow the test down.
        if (word % 400 > 390) {
          await page.keyboard.press('Control+a');
          await page.keyboard.press('Delete');
          acknowledged.length = 0;
          await page.waitForTimeout(800);
        }
      }
      const text = await stored();
      for (const w of acknowledged) expect(text).to.include(w);
      process.stdout.write(
        `      ${kills.server} kills of the server, ${kills.browser} of the browser, ${word} words typed\n`,
      );
    } finally {
      await (context as BrowserContext | null)?.close().catch(() => {});
      (server as ChildProcess | null)?.kill('SIGKILL');
      rmSync(folder, { recursive: true, force: true });
      await seeded.stop();
    }
  });
});

/** The real interface in Debian's Chromium, on a server and database of its own. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import { chromium, type Browser, type Locator, type Page } from 'playwright-core';
import type { TextService } from '@ursprung/standins';
import { demoDatabase, freshServer, type TestServer } from '../server/test/helpers.ts';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

export interface Desk {
  server: TestServer;
  browser: Browser;
  page: Page;
  /** Errors the page wrote to its console, in order. */
  errors: string[];
  close: () => Promise<void>;
}

/** One for all desks, each in a window of its own: starting it costs seconds. */
let launched: Promise<Browser> | undefined;

/** `allow`: hosts inside the network whose pages may be read. `writer`: a text service that orders go to. */
export async function openDesk(
  demo = true,
  allow: readonly string[] = [],
  writer: TextService | null = null,
): Promise<Desk> {
  const server = await freshServer(
    fileURLToPath(new URL('../web/dist', import.meta.url)),
    { allow: writer ? [...allow, writer.host] : allow },
    null,
    {
      secret: 'a secret that only tests have',
      ...(writer ? { standIn: writer.host } : {}),
      ...(demo ? { template: await demoDatabase() } : {}),
    },
  );
  if (writer) await server.keepService(writer);
  const browser = await (launched ??= chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--no-first-run',
      // A microphone that hums, and nobody to ask for it.
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
    ],
  }));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, acceptDownloads: true });
  page.setDefaultTimeout(PATIENCE_MS);
  const errors: string[] = [];
  page.on('console', (m) => m.type() === 'error' && errors.push(m.text()));
  page.on('pageerror', (e) => errors.push(String(e)));
  const close = async () => {
    for (const context of browser.contexts()) await context.close();
    await server.stop();
  };
  return { server, browser, page, errors, close };
}

/** How long a busy machine may take for what a free one does at once. */
const PATIENCE_MS = 120_000;
/** Asks again and again until it is so. `what`: said if it never is; the last answer can be told in it. */
export async function until(test: () => Promise<boolean>, what: string | (() => string)): Promise<void> {
  const end = Date.now() + PATIENCE_MS;
  while (!(await test())) {
    if (Date.now() > end) throw new Error(typeof what === 'string' ? what : what());
    await new Promise((r) => setTimeout(r, 80));
  }
}

/** Asks again until the expectation holds: what a screen shows comes a moment after what it waits for. */
export async function soon(expectation: () => Promise<unknown>): Promise<void> {
  const end = Date.now() + PATIENCE_MS;
  for (;;) {
    try {
      await expectation();
      return;
    } catch (error) {
      if (Date.now() > end) throw error;
      await new Promise((r) => setTimeout(r, 80));
    }
  }
}

/** Clicks into words until the page knows that the caret stands there: on a busy machine margins still move under the pointer. */
export async function caretIn(words: Locator): Promise<void> {
  await until(async () => {
    await words.click();
    return words.evaluate(async (element) => {
      await new Promise(requestAnimationFrame);
      return (
        element.contains(document.getSelection()!.anchorNode) &&
        element.closest('.line')!.classList.contains('chosen')
      );
    });
  }, 'The caret never came to stand in the words that were clicked.');
}

/** Presses End until it moves the caret no further, and the page still has it there. */
export async function pressEnd(page: Page): Promise<void> {
  let was = '';
  await until(async () => {
    await page.keyboard.press('End');
    const is = await page.evaluate(async () => {
      await new Promise(requestAnimationFrame);
      const { anchorNode, anchorOffset } = document.getSelection()!;
      return `${anchorOffset} ${anchorNode?.textContent}`;
    });
    const stays = is === was;
    was = is;
    return stays;
  }, 'The caret never came to stand at the end.');
}

export interface Violation {
  id: string;
  nodes: string[];
}

/** What axe finds against WCAG 2.2 A and AA on the page as it stands. */
export async function axe(page: Page): Promise<Violation[]> {
  await page.evaluate(AXE);
  return page.evaluate(async () => {
    const run = (
      window as unknown as {
        axe: {
          run: (o: object) => Promise<{
            violations: {
              id: string;
              nodes: { html: string; target: string[]; failureSummary?: string }[];
            }[];
          }>;
        };
      }
    ).axe;
    const { violations } = await run.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
    });
    // What is scrolled out of a list counts as hidden by its edge: brought into view, a target is as large as what of it can be pressed.
    const LEAST = 24;
    // No function gets a name here: the page doesn't have what the build calls to keep it.
    return violations
      .map((v) => ({
        id: v.id,
        nodes: v.nodes.filter((n) => {
          if (v.id !== 'target-size' || !/obscured/.test(n.failureSummary ?? '')) return true;
          const found = document.querySelector(n.target[0]);
          found?.scrollIntoView({ block: 'center' });
          const box = found?.getBoundingClientRect();
          if (!found || !box || box.width < LEAST || box.height < LEAST) return true;
          const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
          return ![1 - LEAST / 2, 0, LEAST / 2 - 1].every((d) =>
            found.contains(document.elementFromPoint(x, y + d)),
          );
        }),
      }))
      .filter((v) => v.nodes.length)
      .map((v) => ({
        id: v.id,
        nodes: v.nodes
          .slice(0, 3)
          .map((n) => `${n.html.slice(0, 160)} ${n.failureSummary?.slice(0, 160) ?? ''}`),
      }));
  });
}

/** Seconds of the run strip's total, from its clock text. */
export async function totalSeconds(page: Page): Promise<number> {
  const [minutes, seconds] = (await page.getByTestId('total').innerText()).split(':').map(Number);
  return minutes * 60 + seconds;
}

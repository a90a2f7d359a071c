/**
 * Pages as somebody pastes them who selected all of them in a browser: Chromium's own text of each (`innerText` of the HTML
 * standard), drawn without scripts and without the network. To measure with: a model learned from these did no better than one
 * learned from `asPasted`.
 */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { chromium, type Browser } from 'playwright-core';

/** Pages that are drawn at the same time. */
const AT_ONCE = 3;
/** Milliseconds for the text of one: a page that goes elsewhere as soon as it is there never answers. */
const LONGEST = 20_000;

const withoutScripts = (html: string) =>
  html
    .replace(/<script\b[\s\S]*?<\/script\s*>/gi, '')
    .replace(/<meta\b[^>]*http-equiv\s*=\s*["']?refresh[^>]*>/gi, '')
    .replace(/<i?frame\b[^>]*>/gi, '');

async function drawn(browser: Browser, html: string): Promise<string> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 900 } });
  await page.route('**/*', (route) => route.abort());
  await page.setContent(withoutScripts(html), { waitUntil: 'domcontentloaded' });
  const text = await Promise.race([page.evaluate(() => document.body.innerText), setTimeout(LONGEST, '')]);
  void page.close();
  return text;
}

/** The text of each page; `FETCHED`: where texts are kept between runs. */
export async function innerTexts(pages: readonly string[]): Promise<string[]> {
  const folder = process.env.FETCHED && join(process.env.FETCHED, 'innerText');
  if (folder) mkdirSync(folder, { recursive: true });
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] }); // prettier-ignore
  const out: string[] = [];
  let next = 0;
  const work = async () => {
    for (let i = next++; i < pages.length; i = next++) {
      const kept = folder && join(folder, createHash('sha256').update(pages[i]).digest('hex').slice(0, 32));
      out[i] = kept && existsSync(kept) ? readFileSync(kept, 'utf8') : await drawn(browser, pages[i]);
      if (kept) writeFileSync(kept, out[i]);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  await browser.close();
  return out;
}

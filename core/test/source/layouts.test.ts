/** One story as sites, boards, letters and old pages set it: the same words come out, whatever the markup. Written while the reader was: tests, no estimate of how a new page is read. */
import { expect } from 'chai';
import { openSource, type SourceDocument } from '../../src/source/index.ts';

const TITLE = 'The night the Carrow light went out';
const STORY = [
  'The light on the Carrow sandbank went out on the night of 9 November 1911, and for eleven hours nobody on shore knew why.',
  'The keeper, Aldous Fenn, had rowed out at four in the afternoon with a can of oil and two loaves. He was sixty-one and had done it every second day for twenty years.',
  'At six the harbour master saw the lamp burn steadily. At seven it was dark. He sent a boy to ring the chapel bell, and eight men came down to the slip in their Sunday boots.',
  '“You could not see your own hand,” one of them said later. “We went by the sound of the breakers, and we prayed it was the right sound.”',
  'They found the dinghy first, upside down against the piles, with an oar still tied in its place.',
  'Fenn was inside the lantern room. He had fallen from the ladder and broken his thigh, and he had spent the night holding a storm lamp against the glass with his good arm.',
  'Three ships passed the bank that night. Not one of them touched it.',
  'The oil company paid him nine pounds. The three captains sent a clock, which still hangs in the harbour office and is still eleven hours slow.',
];
const MENU = ['Home', 'Archive', 'Log in', 'Register'];
const MORE = ['Ten wrecks you can walk to at low tide', 'How to read a tide table'];
const LETTER = 'Join 14,000 readers who get one sea story every Sunday. No spam, ever.';
const LEGAL = '© 2024 Carrow Tide. Registered charity 118842. Cookies · Privacy · Contact';
const NOT_TOLD = [...MENU.slice(2), ...MORE, LETTER, 'Registered charity'];

const links = (list: readonly string[], between = ' ') => list.map((t) => `<a href="/x">${t}</a>`).join(between); // prettier-ignore
const each = (open: string, close: string, list = STORY) => list.map((p) => `${open}${p}${close}`).join('\n');
const page = (body: string, title = TITLE, head = '') =>
  `<html><head><title>${title}</title>${head}</head><body>${body}</body></html>`;
/** Lines of at most so many letters, as mail programs break them. */
const broken = (text: string) => text.replace(/(?!.{1,68}$)(.{1,68})\s/g, '$1\n');

const LAYOUTS: Readonly<Record<string, string>> = {
  'divs with names that mean nothing': page(
    `<div class="_q1">${links(MENU)}</div><div class="_t9">${TITLE}</div>${each('<div class="_a"><div class="_k2">', '</div></div>')}<div class="_r4">${links(MORE)}</div><div class="_z">${LETTER}</div><div class="_z">${LEGAL}</div>`,
  ),
  'line breaks alone': page(
    `${links(MENU)}<br>${TITLE}<br>by Marit Holloway<br>12 March 2019<br>${STORY.join('<br>')}<br>${links(MORE, '<br>')}<br>${LEGAL}`,
    `${TITLE} - Carrow Tide`,
  ),
  'elements of its own': page(
    `<site-nav>${links(MENU)}</site-nav><x-story><x-title>${TITLE}</x-title>${each('<x-p>', '</x-p>')}</x-story><x-more>${links(MORE)}</x-more><x-letter>${LETTER}</x-letter><x-foot>${LEGAL}</x-foot>`,
  ),
  'tables in tables, as in letters': page(
    `<table><tr><td>${links(MENU)}</td></tr></table><table><tr><td><font size=5>${TITLE}</font></td></tr></table>${each('<table width=600><tr><td style="padding:8px">', '</td></tr></table>')}<table><tr><td>${LETTER}<br>${links(MORE, '<br>')}</td></tr></table><table><tr><td>${LEGAL}</td></tr></table>`,
    'Sea Story Sunday',
  ),
  'columns of an old page': page(
    `<table width=780><tr><td width=140>${links(MENU, '<br>')}</td><td><font size=5>${TITLE}</font><br><i>by Marit Holloway, 12 March 2019</i><br><br>${STORY.join('<br><br>')}</td></tr><tr><td colspan=2>${links(MORE)} ${LEGAL}</td></tr></table>`,
  ),
  'a list of definitions': page(
    `<dl><dt>${TITLE}</dt>${each('<dd>', '</dd>')}<dt>More</dt><dd>${links(MORE)}</dd></dl><p>${LEGAL}</p>`,
  ),
  'an archive of letters': page(
    `${links(MENU, ' | ')}<hr><h1>[coast-history] ${TITLE}</h1><pre>Date: Tue, 12 Mar 2019 21:04:11 +0000\nFrom: Marit Holloway &lt;marit@tide.invalid&gt;\nTo: coast-history@tide.invalid\nSubject: [coast-history] ${TITLE}\n\n${STORY.map(broken).join('\n\n')}\n\n-- \nMarit Holloway\nBees, boats, bylines\n</pre><hr>${links(MORE)}`,
    `[coast-history] ${TITLE}`,
  ),
  'a script that fills the page, and the words apart': page(
    `<div id="root"></div><noscript>You need to enable JavaScript to run this app.</noscript>${links(MENU)}<div>${LEGAL}</div>`,
    `${TITLE} | Carrow Tide`,
    `<script type="application/ld+json">${JSON.stringify({ '@type': 'NewsArticle', headline: TITLE, articleBody: STORY.join('\n\n'), author: { '@type': 'Person', name: 'Marit Holloway' } })}</script>`,
  ),
  'cells alone, without a page around them': `<table><tr><td>${TITLE}</td></tr>${each('<tr><td>', '</td></tr>')}</table>`,
};

describe('a story set as', () => {
  for (const [what, html] of Object.entries(LAYOUTS))
    it(`${what} is read whole, with its title, and nothing of the site`, async () => {
      const doc = await openSource(html);
      for (const p of STORY) expect(doc.text, p).to.include(p);
      expect(doc.title).to.equal(TITLE);
      for (const f of NOT_TOLD) expect(doc.text, f).to.not.include(f);
    });

  it('a letter in an archive has its writer and its day', async () => {
    const doc = await openSource(LAYOUTS['an archive of letters']);
    expect([doc.authors, doc.published]).to.deep.equal([['Marit Holloway'], '2019-03-12']);
  });
});

describe('a question and its answers', () => {
  const asked = [
    'I have a small lean-to greenhouse on the south wall, two metres by three, single glazed. On cloudy mornings the glass is dry. On clear ones it runs with water.',
    'I have tried leaving the door open at night, and it made things worse. What am I missing?',
  ];
  const answer = (text: string, who: string, day: number) =>
    `<div class="xr"><div>22</div><div class="xp"><p>${text}</p></div><div class="xs">${links(['Share', 'Improve this answer'])}</div><div class="xu">answered Apr ${day}, 2021 at 9:00<div><a href="/u">${who}</a><span>88</span></div></div></div>`;
  const answers = [
    'Glass radiates heat to a clear sky and gets colder than the air around it, so the dew settles on it. Clouds send that heat back.',
    'Paint it with washing-up liquid, works for me every time, and it costs nothing at all.',
  ];
  it('are told by the question; the answers are others’ words, the asker and the day are known', async () => {
    const title = 'Why does my greenhouse fog up only on clear mornings?';
    const doc = await openSource(
      page(`<div>${links(['Home', 'Questions', 'Tags'])}</div><h1>${title}</h1><div>Asked 2 years ago</div>
        <div class="xq">${each('<p>', '</p>', asked)}<div>asked Apr 2, 2021 at 7:12 <div><a href="/u">wetknees</a></div></div></div>
        <h2>2 Answers</h2>${answer(answers[0], 'glasshouse_gil', 3)}${answer(answers[1], 'bubbles', 4)}<div>Browse other questions tagged condensation</div>`, `${title} - Allotment Answers`),
    ); // prettier-ignore
    const told: SourceDocument['blocks'] = doc.blocks.filter((b) => b.type !== 'reply');
    expect(told.map((b) => b.text)).to.deep.equal(asked);
    expect(doc.blocks.filter((b) => b.type === 'reply').map((b) => [b.speaker, b.text])).to.deep.equal([['glasshouse_gil', answers[0]], ['bubbles', answers[1]]]); // prettier-ignore
    expect([doc.kind, doc.authors, doc.published]).to.deep.equal(['forum', ['wetknees'], '2021-04-02']);
  });
});

/** What a reader sees of a page, whatever it is marked up with: hidden words are not there, and what is set apart is apart. */
import { expect } from 'chai';
import { atomsOfHtml } from '../../src/source/page/ofHtml.ts';
import { parsedHtml } from '../../src/source/readers/html/parse.ts';

const LONG =
  'The ferry had not run since the spring flood, and nobody in the village could say who owned it now.';
const NEXT =
  'A boy found it in the reeds below the mill on the first of August, with its rope cut clean through.';

const atoms = async (body: string, head = '') =>
  atomsOfHtml((await parsedHtml(`<html><head>${head}</head><body>${body}</body></html>`)).body);
const texts = async (body: string, head = '') => (await atoms(body, head)).map((a) => a.text);

describe('what a page’s own style sheet says', () => {
  it('hides what is set to display nothing (CSS Display 3, 2.5), on a screen', async () => {
    const body = `<p>${LONG}</p><p class="ghost">Buy now.</p><p class="paper">For print.</p>`;
    expect(await texts(body, '<style>.ghost { display: none } @media print { .paper { display: none } }</style>')).to.deep.equal([LONG, 'For print.']); // prettier-ignore
    expect(await texts(body, '<style>.ghost { visibility: hidden }</style>')).to.deep.equal([LONG, 'For print.']); // prettier-ignore
  });
  it('does not hide most of a page: that is shown by a script', async () => {
    expect(await texts(`<div id="app"><p>${LONG}</p></div>`, '<style>#app { display: none }</style>')).to.deep.equal([LONG]); // prettier-ignore
  });
  it('parts spans that it sets as blocks', async () => {
    const body = '<div><span class="b">Home</span><span class="b">Tides</span></div>';
    expect(await texts(body)).to.deep.equal(['Home Tides']);
    expect(await texts(body, '<style>.b { display: block }</style>')).to.deep.equal(['Home', 'Tides']);
  });
  it('is read as far as it can be', async () => {
    const broken = [
      '.a { display',
      '}}}{{{',
      '.a:hover > b[x="1"] { display: none }',
      '/*# sourceMappingURL=/etc/passwd */',
    ];
    for (const sheet of broken) expect(await texts(`<p>${LONG}</p>`, `<style>${sheet}</style>`)).to.deep.equal([LONG]); // prettier-ignore
  });
});

describe('words that the page’s type sets apart within a sentence', () => {
  it('are in quotation marks where they are an inscription or a title, or a `q` (HTML, 4.5.7); stress and foreign words are not', async () => {
    const cases: Record<string, string> = {
      'The words, <i>I call the late</i>, are one reason.': 'The words, “I call the late”, are one reason.',
      'It stood in the journal<i> Tides and Their Walls</i> last week.':
        'It stood in the journal “Tides and Their Walls” last week.',
      'She said <q>no</q> and left the hall.': 'She said “no” and left the hall.',
      'It grew <i>in situ</i> for nine years.': 'It grew in situ for nine years.',
      'They called it “<i>the long white wall</i>” at home.': 'They called it “the long white wall” at home.',
      '<i>All of this was set in slanted type.</i>': 'All of this was set in slanted type.',
    };
    for (const [html, text] of Object.entries(cases)) expect(await texts(`<p>${html}</p>`), html).to.deep.equal([text]); // prettier-ignore
  });
});

describe('paragraphs in markup that has none', () => {
  it('spans and elements of a page’s own that hold sentences are paragraphs', async () => {
    for (const tag of ['span', 'x-line', 'font'])
      expect(await texts(`<div><${tag}>${LONG}</${tag}> <${tag}>Then it rained.</${tag}> <${tag}>${NEXT}</${tag}></div>`), tag)
        .to.deep.equal([LONG, 'Then it rained.', NEXT]); // prettier-ignore
  });
  it('a sentence partly in bold, or with a link beside words, stays one', async () => {
    const body = `<p><b>${LONG}</b> <i>${NEXT}</i></p><div><span>${LONG}</span> It was <a href="#">found</a>.</div>`;
    expect(await texts(body)).to.deep.equal([`${LONG} ${NEXT}`, `${LONG} It was found.`]);
  });
  it('elements with the role of a paragraph or a heading are such (WAI-ARIA 1.2)', async () => {
    expect(await texts(`<div><span role="heading">The ferry</span><span role="paragraph">${LONG}</span></div>`)).to.deep.equal(['The ferry', LONG]); // prettier-ignore
  });
});

describe('line breaks', () => {
  it('part sentences from labels, links and times, and paragraphs from each other', async () => {
    const body = `<div><a href="/">Home</a><br><a href="/t">Tides</a><br>The lost ferry<br>3 May 2021, 10:40<br>${LONG}<br>${NEXT}<br><a href="/s">Share this</a></div>`;
    const read = await atoms(body);
    expect(read.map((a) => a.text)).to.deep.equal(['Home Tides', 'The lost ferry', '3 May 2021, 10:40', LONG, NEXT, 'Share this']); // prettier-ignore
    expect(read.map((a) => a.linked > 0)).to.deep.equal([true, false, false, false, false, true]);
  });
  it('inside a sentence are none', async () => {
    const words = LONG.split(' ');
    const broken = [words.slice(0, 9), words.slice(9)].map((w) => w.join(' ')).join('<br>\n');
    expect(await texts(`<div>${broken}</div>`)).to.deep.equal([LONG]);
    expect(await texts('<p>Roses are red,<br>Violets are blue,<br>and so on.</p>')).to.deep.equal(['Roses are red, Violets are blue, and so on.']); // prettier-ignore
  });
});

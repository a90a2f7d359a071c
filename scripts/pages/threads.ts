/**
 * Threads of boards put together by chance, in markup that belongs to no site: where the name stands, how the time is told, what
 * holds a post, whether replies stand inside what they answer are each drawn anew. `node --import tsx scripts/pages/threads.ts
 * [--count N] [--seed N] [--why SEED] [--pasted]` reads N of them and says which of the choices the reader stumbles over.
 */
import { readSource } from '../../core/src/source/read.ts';
import { random } from './boost.ts';
import { esc, pick } from './composed.ts';

interface Post {
  by: string;
  paragraphs: readonly string[];
  /** The teller's own: carries the story on, or is talk. */
  own?: 'story' | 'talk';
  /** The post quotes the opening of this one. */
  quotes?: number;
}
interface Thread {
  title: string;
  posts: readonly Post[];
}

const THREADS: readonly Thread[] = [
  {
    title: 'The previous owners left a locked freezer in our cellar and now they want it back',
    posts: [
      {
        by: 'mossbeard',
        own: 'story',
        paragraphs: [
          'We bought this house in March from a couple in their seventies. They left a chest freezer in the cellar, padlocked, with a note that said “please keep it plugged in”.',
          'We thought nothing of it. It cost us about 11 pounds a month and the man was so nice about it that I did not like to ask.',
          'Last Saturday a woman I had never seen rang the bell and said that she had come for the fish.',
          'I asked which fish. She looked past me down the hall and said that her father had promised her the fish when he moved, and that she had brought a van.',
          'The key she had did not fit. She sat on our stairs and cried, and my wife made her tea, and I still do not know what is in that freezer.',
        ],
      },
      {
        by: 'Halyard 22',
        paragraphs: ['You have to open it. You simply have to. I will not sleep until you open it.'],
      },
      {
        by: 'annet_k',
        paragraphs: [
          'My uncle kept a salmon for nineteen years because he had caught it on the day my cousin was born.',
          'It may be something like that. People are odd about fish.',
        ],
        quotes: 0,
      },
      { by: 'mossbeard', own: 'talk', paragraphs: ['Thanks everyone, I did not expect this many replies!'] },
      {
        by: 'Dr Pond',
        paragraphs: [
          'Legally it is yours if it was not in the contract. I am not a lawyer, but my sister is one.',
        ],
      },
      {
        by: 'mossbeard',
        own: 'story',
        paragraphs: [
          'Update: the old man rang last night. The padlock is a number lock under a cover that we had painted over, and the number is his daughter’s birthday.',
          'There was one fish in it, a pike of 14 kilos, wrapped in the newspaper of the day she was born. She came for it this morning and she has asked us to the christening of her son.',
        ],
      },
      { by: 'tobias', paragraphs: ['Well, now I am crying over a pike on a bus.'], quotes: 5 },
    ],
  },
  {
    title: 'Our village bus driver has been taking the wrong road for a month and nobody will say why',
    posts: [
      {
        by: 'GreyHeron',
        own: 'story',
        paragraphs: [
          'I take the 7.40 to work every day. For as long as I have lived here, it goes down the hill by the church and along the river.',
          'Since the beginning of October it turns left at the pump and goes round by the quarry, which is four minutes longer, and it stops there for a moment with the engine running.',
          'Nobody gets on and nobody gets off. The driver looks out of his window, raises one hand and drives on.',
          'I asked him on Tuesday. He said it was the timetable. I have the timetable on my fridge and there is no quarry in it.',
          'So on Wednesday I got up on the seat at the back and looked where he looks. In the yard of the quarry house an old man was sitting at a table with an alarm clock in front of him.',
        ],
      },
      {
        by: 'Marta',
        paragraphs: [
          'Please tell me that you asked the old man.',
          'I would have got off at the next stop and walked back.',
        ],
      },
      {
        by: 'quarryman',
        paragraphs: [
          'I think that I know that house. A man called Ferris lived there, he drove that bus himself for thirty years.',
        ],
      },
      {
        by: 'GreyHeron',
        own: 'story',
        paragraphs: [
          'Quarryman is right. I went there on Sunday with a cake. It is Mr Ferris, he is 88, and he taught our driver to drive the bus in 1994.',
          'He fell in September and can no longer walk to the stop. He told the driver that he missed seeing it come in on time, so now it comes to him.',
        ],
      },
      { by: 'p.lowe', paragraphs: ['The world is better than I thought at breakfast.'] },
      { by: 'GreyHeron', own: 'talk', paragraphs: ['Thank you for the kind words, all of you.'] },
    ],
  },
  {
    title: 'How do I tell my landlady that her cat has two homes?',
    posts: [
      {
        by: 'secondfloor',
        own: 'story',
        paragraphs: [
          'My landlady lives under me and has a grey cat called Admiral. She puts a bowl out for him at six and calls for a quarter of an hour, and he never comes before seven.',
          'The reason is that from five to seven he is with me. He has been coming in by the fire stairs since I moved in, two years ago, and he has a bowl, a blanket and another name.',
          'Yesterday she told me that the vet had put him on a strict diet, because he has gained two kilos and nobody could think why. She is spending 60 a month on the special food.',
          'I went red and said nothing. I pay my rent on time, I like her very much, and I have no idea how one says such a thing after two years.',
        ],
      },
      { by: 'lemonade', paragraphs: ['Just stop feeding him and say nothing. He will not tell her.'] },
      {
        by: 'R. Aske',
        paragraphs: [
          'She knows. Believe me, she knows. Nobody calls a cat for fifteen minutes without hearing where the bowl stands.',
        ],
      },
      {
        by: 'olive-tree',
        paragraphs: [
          'Bring her flowers and the second bowl.',
          'It is a good story, and in a year you will both be telling it.',
        ],
        quotes: 2,
      },
      {
        by: 'secondfloor',
        own: 'story',
        paragraphs: [
          'Edit: I told her. She laughed until she had to sit down, because there is a third bowl on the ground floor of number nine.',
        ],
      },
    ],
  },
  {
    title: 'Found my own name on a headstone in a town I had never been to',
    posts: [
      {
        by: 'W_Tarling',
        own: 'story',
        paragraphs: [
          'I sell seed to farmers, so I am on the road a good deal. In June a tyre went in a town called Ossery and the garage needed two hours.',
          'I walked about and ended up in the churchyard, as one does. In the third row by the wall there was a stone with my name on it, first, middle and last, and under it the day on which I was born.',
          'There was no second date. The stone was not old and somebody had put a jar of fresh marigolds in front of it.',
          'I took a picture and sat in the van for a while. Then I went to the parsonage and asked who had paid for it.',
          'The woman there looked at my card and at me, and then she shut the door without a word.',
        ],
      },
      { by: 'hollis', paragraphs: ['No. No. No. I would have driven home on three tyres.'] },
      {
        by: 'Ingrid V',
        paragraphs: [
          'Could there be a cousin with the same birthday? In our family there are four men called Peter and two were born on the same day.',
        ],
      },
      {
        by: 'nightferry',
        paragraphs: [
          'Following this. Ossery is an hour from me, I could go and look at the register if you like.',
        ],
        quotes: 0,
      },
      {
        by: 'W_Tarling',
        own: 'story',
        paragraphs: [
          'It is solved, more or less. I wrote to the parish and got a letter back from a Mrs Crail, who is the woman of the door.',
          'In 1961 my mother left me in Ossery for five weeks with a family that could not have children. They were told that I would stay. When I was fetched they bought a grave, because they had no other place to put it, and their daughter has kept the flowers up for sixty years.',
          'She has asked me to come in August. I have said that I will bring marigolds.',
        ],
      },
      { by: 'hollis', paragraphs: ['I take everything back. Go, and tell us how it was.'] },
    ],
  },
];

const MONTHS = 'January February March April May June July August September October November December'.split(
  ' ',
);

const CHOICES = {
  post: ['div', 'article', 'li', 'tr', 'table', 'dl', 'flat', 'nested', 'section'],
  opening: ['as the replies', 'set apart'],
  head: ['line', 'by line', 'wrote', 'parts', 'card', 'foot', 'signed end', 'bare name', 'numbered'],
  time: ['ago', 'short ago', 'long', 'numbers', 'iso', 'time tag', 'title only', 'none'],
  body: ['p', 'br', 'div', 'span'],
  names: ['plain', 'hashed', 'none'],
  badges: ['none', 'teller marked', 'rank and counts', 'points'],
  actions: ['none', 'links', 'buttons', 'row above'],
  quotes: ['blockquote', 'div', 'none'],
  signature: ['none', 'dashes', 'div'],
  beside: ['none', 'similar threads', 'who is here', 'newest posts'],
  foot: ['none', 'comment box', 'pages'],
} as const;
type Choices = { -readonly [K in keyof typeof CHOICES]: (typeof CHOICES)[K][number] };

export interface ComposedThread {
  html: string;
  choices: Choices;
  title: string;
  /** Paragraphs of the story, of the teller's talk, of others, and what is the page's own. */
  story: string[];
  talk: string[];
  others: string[];
  furniture: string[];
}

export function composeThread(seed: number): ComposedThread {
  const draw = random(seed);
  const choices = Object.fromEntries(
    Object.entries(CHOICES).map(([k, list]) => [k, pick(draw, list as readonly string[])]),
  ) as Choices;
  const thread = pick(draw, THREADS);
  // Nobody's board has neither names' places nor times.
  if (choices.head === 'bare name' && choices.time !== 'none') choices.head = 'line';
  if (choices.time === 'none' && !/bare name|card|numbered/.test(choices.head)) choices.head = 'bare name';
  const word = () => Array.from({ length: 5 }, () => 'abcdefghikmnoprstuvwxyz0123456789'[Math.floor(draw() * 33)]).join(''); // prettier-ignore
  const classes = new Map<string, string>();
  const cls = (name: string) => {
    if (choices.names === 'none') return '';
    if (!classes.has(name)) classes.set(name, choices.names === 'plain' ? name : `x${word()}`);
    return ` class="${classes.get(name)!}"`;
  };
  const furniture: string[] = [];
  const own = (text: string) => {
    furniture.push(text);
    return esc(text);
  };
  const start = Date.UTC(2024, Math.floor(draw() * 12), 1 + Math.floor(draw() * 27), 8, 12);
  const timeOf = (n: number) => {
    const at = new Date(start + n * 5_400_000 + Math.floor(draw() * 3_000_000));
    const clock = at.toISOString().slice(11, 16);
    const long = `${at.getUTCDate()} ${MONTHS[at.getUTCMonth()]} ${at.getUTCFullYear()}`;
    const hours = 20 - n;
    switch (choices.time) {
      case 'ago':
        return `${hours} hours ago`;
      case 'short ago':
        return `${hours}h`;
      case 'long':
        return `${long}, ${clock}`;
      case 'numbers':
        return `${at.toISOString().slice(0, 10)} ${clock}`;
      case 'iso':
        return `${at.toISOString().slice(0, 10)}`;
      case 'time tag':
        return `<time datetime="${at.toISOString()}">${MONTHS[at.getUTCMonth()].slice(0, 3)} ${at.getUTCDate()}</time>`;
      case 'title only':
        return `<span title="${at.toISOString()}">${hours} hrs</span>`;
      case 'none':
        return '';
    }
  };
  const tellers = thread.posts[0].by;
  const name = (post: Post) => `<${choices.names === 'none' ? 'b' : 'a href="/u/1"'}${cls('author')}>${esc(post.by)}</${choices.names === 'none' ? 'b' : 'a'}>`; // prettier-ignore
  const badge = (post: Post) =>
    choices.badges === 'teller marked' && post.by === tellers
      ? ` <span${cls('badge')}>OP</span>`
      : choices.badges === 'points'
        ? ` <span${cls('points')}>${3 + Math.floor(draw() * 400)} points</span>`
        : '';
  const counts = (post: Post) =>
    choices.badges === 'rank and counts'
      ? `<div${cls('rank')}>${pick(draw, ['Regular', 'New here', 'Senior member', 'Old hand'])}</div><div${cls('joined')}>Joined ${2004 + (post.by.length % 17)}</div><div${cls('posts')}>Posts: ${post.by.length * 131}</div>`
      : '';
  const actions = () =>
    choices.actions === 'links'
      ? `<div${cls('actions')}><a href="#r">Reply</a> <a href="#s">Share</a> <a href="#f">Report</a></div>`
      : choices.actions === 'buttons'
        ? `<div${cls('actions')}><button>Like (${Math.floor(draw() * 30)})</button><button>Quote</button></div>`
        : '';
  const above = () =>
    choices.actions === 'row above'
      ? `<div${cls('tools')}><a href="#q">Quote</a> | <a href="#p">Permalink</a></div>`
      : '';
  const paragraphs = (post: Post) => {
    const quoted = post.quotes === undefined || choices.quotes === 'none' ? '' : thread.posts[post.quotes];
    const quote = quoted
      ? choices.quotes === 'blockquote'
        ? `<blockquote>${esc(quoted.paragraphs[0])}</blockquote>`
        : `<div${cls('quote')}><div>${esc(quoted.by)} wrote:</div><div>${esc(quoted.paragraphs[0])}</div></div>`
      : '';
    const text =
      choices.body === 'p'
        ? post.paragraphs.map((p) => `<p>${esc(p)}</p>`).join('')
        : choices.body === 'br'
          ? post.paragraphs.map(esc).join('<br><br>')
          : choices.body === 'div'
            ? post.paragraphs.map((p) => `<div>${esc(p)}</div>`).join('')
            : post.paragraphs.map((p) => `<span style="display:block">${esc(p)}</span>`).join('');
    const signature =
      choices.signature === 'none' || post.by.length % 2
        ? ''
        : choices.signature === 'dashes'
          ? `<div>--<br>${own(`${post.by}, who keeps bees and two opinions`)}</div>`
          : `<div${cls('signature')}>${own(`${post.by}: measure twice, cut once, swear softly`)}</div>`;
    return `<div${cls('body')}>${quote}${text}${signature}</div>`;
  };
  const inHead = (post: Post, n: number): { before: string; after: string } => {
    const time = timeOf(n);
    switch (choices.head) {
      case 'line':
        return { before: `<div${cls('head')}>${name(post)}${badge(post)} · ${time}</div>`, after: '' };
      case 'by line':
        return { before: `<div${cls('head')}>Posted by ${name(post)}${badge(post)} ${choices.time.includes('ago') ? '' : 'on '}${time}</div>`, after: '' }; // prettier-ignore
      case 'wrote':
        return { before: `<div${cls('head')}>${name(post)}${badge(post)} wrote, ${time}:</div>`, after: '' };
      case 'parts':
        return { before: `<div${cls('head')}>${name(post)}${badge(post)}</div><div${cls('when')}>${time}</div>`, after: '' }; // prettier-ignore
      case 'card':
        return { before: `<div${cls('card')}><div>${name(post)}</div>${badge(post) && `<div>${badge(post)}</div>`}${counts(post)}</div><div${cls('when')}>${time}</div>`, after: '' }; // prettier-ignore
      case 'foot':
        return { before: '', after: `<div${cls('foot')}>${name(post)}${badge(post)}, ${time}</div>` };
      case 'signed end':
        return { before: '', after: `<div${cls('foot')}>${time} <span>${name(post)}</span></div>` };
      case 'numbered':
        return { before: `<div${cls('head')}><a href="#${n + 1}">#${n + 1}</a> ${name(post)}${badge(post)} ${time}</div>`, after: '' }; // prettier-ignore
      case 'bare name':
        return { before: `<div${cls('head')}>${name(post)}${badge(post)}</div>`, after: '' };
    }
  };
  const set = (post: Post, n: number, inside = ''): string => {
    const { before, after } = inHead(post, n);
    const content = `${paragraphs(post)}`;
    const all = `${before}${above()}${content}${after}${actions()}`;
    switch (choices.post) {
      case 'tr':
        return `<tr><td${cls('left')}>${before}</td><td${cls('right')}>${above()}${content}${after}${actions()}</td></tr>`;
      case 'table':
        return `<table${cls('post')}><tr><td>${before}</td></tr><tr><td>${above()}${content}${after}${actions()}</td></tr></table>`;
      case 'dl':
        return `<dt>${before}</dt><dd>${above()}${content}${after}${actions()}</dd>`;
      case 'flat':
        return all;
      case 'nested':
        return `<div${cls('post')}>${all}${inside && `<div${cls('children')}>${inside}</div>`}</div>`;
      default:
        return `<${choices.post}${cls('post')}>${all}</${choices.post}>`;
    }
  };
  const title = thread.title;
  const [first, ...rest] = thread.posts;
  const replies =
    choices.post === 'nested'
      ? // Each answers the one before it, two deep.
        rest.reduce<string[]>((out, post, n) => (n % 2 ? [...out.slice(0, -1), out.at(-1)!.replace(/<\/div>$/, `<div${cls('children')}>${set(post, n + 1)}</div></div>`)] : [...out, set(post, n + 1)]), []) // prettier-ignore
      : rest.map((post, n) => set(post, n + 1));
  const wrap = (inside: string) =>
    choices.post === 'li'
      ? `<ol${cls('posts')}>${inside}</ol>`
      : choices.post === 'tr'
        ? `<table${cls('posts')}>${inside}</table>`
        : choices.post === 'dl'
          ? `<dl>${inside}</dl>`
          : `<div${cls('posts')}>${inside}</div>`;
  const apart = choices.opening === 'set apart';
  const opening = apart
    ? `<div${cls('main')}><h1>${esc(title)}</h1><div${cls('meta')}>${own('Asked by')} ${name(first)} ${timeOf(0)}</div>${paragraphs(first)}${actions()}</div><h3>${own(`${rest.length} replies`)}</h3>${wrap(replies.join(''))}`
    : `<h1>${esc(title)}</h1>${wrap(set(first, 0) + replies.join(''))}`;
  const beside =
    choices.beside === 'similar threads'
      ? `<div${cls('aside')}><h4>${own('Similar threads')}</h4><ul><li><a href="/1">${own('My tenant has painted the bath black')}</a> <span>3 hours ago</span></li><li><a href="/2">${own('What do I do with forty jars of plums?')}</a> <span>2 days ago</span></li></ul></div>`
      : choices.beside === 'who is here'
        ? `<div${cls('aside')}><b>${own('Who is online')}</b> ${own('Users browsing this board: ferrywoman, ottokar and 12 guests')}</div>`
        : choices.beside === 'newest posts'
          ? `<div${cls('aside')}><h4>${own('Newest posts')}</h4><div>${own('A heron in the bath')}<br>by wrenfield, 4 minutes ago</div><div>${own('Which glue for slate?')}<br>by ottokar, 12 minutes ago</div></div>`
          : '';
  const foot =
    choices.foot === 'comment box'
      ? `<form><h4>${own('Join the conversation')}</h4><p>${own('You can post now and register later. If you have an account, sign in now to post with your name.')}</p><textarea></textarea><button>Send</button></form>`
      : choices.foot === 'pages'
        ? `<div${cls('pager')}>${own('Page 1 of 3')} <a href="?2">2</a> <a href="?3">3</a> <a href="?2">Next</a></div>`
        : '';
  const asideFirst = draw() < 0.5;
  const html = `<!doctype html><html><head><title>${esc(title)} | The Long Bench</title></head><body>
<div${cls('top')}><a href="/">The Long Bench</a> <a href="/new">New</a> <a href="/search">Search</a> <a href="/login">Log in</a></div>
<div${cls('crumbs')}><a href="/">Home</a> › <a href="/b">${own('Neighbours and houses')}</a></div>
${asideFirst ? beside : ''}<div${cls('content')}>${opening}</div>${foot}${asideFirst ? '' : beside}
<div${cls('bottom')}><p>${own('The Long Bench is run by volunteers. Contact the team · Terms · Privacy')}</p></div></body></html>`;
  const said = (which: (p: Post) => boolean) => thread.posts.filter(which).flatMap((p) => p.paragraphs);
  return {
    html,
    choices,
    title,
    story: said((p) => p.own === 'story').map((p) => p.replace(/^(?:Update|Edit): /, '')),
    talk: said((p) => p.own === 'talk'),
    others: said((p) => !p.own),
    furniture: [...new Set(furniture)],
  };
}

/** How one is read: shares of what is the story's, and how much of the rest stands in it. */
export async function readThread(t: ComposedThread, as = t.html) {
  const source = await readSource(as).catch((error: unknown) => String(error));
  if (typeof source === 'string')
    return { lost: 1, others: 0, furniture: 0, title: false, refused: source, told: '' };
  const plain = (s: string) => s.replace(/[’‘]/g, "'").replace(/\s+/g, ' ');
  const told = plain(source.blocks.filter((b) => b.type !== 'reply').map((b) => b.text).join('\n')); // prettier-ignore
  const among = (list: readonly string[]) => list.filter((p) => told.includes(plain(p))).length / Math.max(1, list.length); // prettier-ignore
  return {
    lost: 1 - among(t.story),
    others: among(t.others),
    furniture: among(t.furniture),
    title: plain(source.title) === plain(t.title),
    refused: '',
    told,
  };
}

if (process.argv[1]?.endsWith('threads.ts')) {
  const arg = (name: string) => (process.argv.includes(name) ? Number(process.argv[process.argv.indexOf(name) + 1]) : undefined); // prettier-ignore
  const why = arg('--why');
  const { innerTexts } = await import('./pasted.ts');
  if (why !== undefined) {
    const t = composeThread(why);
    const as = process.argv.includes('--pasted') ? (await innerTexts([t.html]))[0] : t.html;
    const { told, ...rest } = await readThread(t, as);
    const source = await readSource(as).catch((e: unknown) => String(e));
    console.log(
      process.argv.includes('--html') ? as : '',
      Object.values(t.choices).join(' | '),
      JSON.stringify(rest),
    );
    if (typeof source !== 'string') {
      const plain = (s: string) => s.replace(/[’‘]/g, "'").replace(/\s+/g, ' ');
      for (const p of t.story.filter((p) => !told.includes(plain(p)))) {
        const reply = source.blocks.some((b) => b.type === 'reply' && plain(b.text).includes(plain(p)));
        const out = source.leftOut?.find((b) => plain(b.text).includes(plain(p)));
        console.log(`  lost: ${p.slice(0, 90)} -> ${reply ? 'a reply' : (out?.why ?? 'nowhere')}`);
      }
      for (const p of t.others.filter((p) => told.includes(plain(p)))) console.log(`  in: ${p.slice(0, 90)}`);
    }
  } else {
    const count = arg('--count') ?? 400;
    const from = arg('--seed') ?? 1;
    const by = new Map<string, { n: number; lost: number; others: number; furniture: number; titles: number; bad: number[] }>(); // prettier-ignore
    const threads = Array.from({ length: count }, (_, k) => composeThread(from + k));
    const texts = process.argv.includes('--pasted')
      ? await innerTexts(threads.map((t) => t.html))
      : undefined;
    for (const [k, t] of threads.entries()) {
      const seed = from + k;
      const r = await readThread(t, texts?.[k]);
      for (const key of ['all', ...Object.entries(t.choices).map(([k, v]) => `${k}: ${v}`)]) {
        const sum = by.get(key) ?? { n: 0, lost: 0, others: 0, furniture: 0, titles: 0, bad: [] };
        sum.n++;
        sum.lost += r.lost;
        sum.others += r.others;
        sum.furniture += r.furniture;
        sum.titles += Number(r.title);
        if (r.lost > 0.2 || r.others > 0) sum.bad.push(seed);
        by.set(key, sum);
      }
    }
    const share = (x: number, n: number) => `${((100 * x) / n).toFixed(0)} %`.padStart(6);
    console.log('choice                         n   lost others furnit. titles  bad');
    for (const [key, s] of [...by].sort(([a], [b]) => (a === 'all' ? -1 : b === 'all' ? 1 : a < b ? -1 : 1)))
      console.log(`${key.padEnd(27)}${String(s.n).padStart(5)}${share(s.lost, s.n)}${share(s.others, s.n)} ${share(s.furniture, s.n)} ${share(s.titles, s.n)}${share(s.bad.length, s.n)}  ${s.bad.slice(0, 8).join(' ')}`); // prettier-ignore
  }
}

/**
 * A picture library behind a port: a description in, a simple frame out. The stand-in draws lines by rule: what is shown,
 * its size and angle, the light; faces stay blank, and what it has no drawing for is a plain block with its name.
 */
export interface FrameAsked {
  /** Nouns of what is shown, the main one first. */
  keys: readonly string[];
  size: 'extreme close-up' | 'close-up' | 'medium' | 'wide' | 'extreme wide';
  angle: 'eye level' | 'low' | 'high' | 'overhead';
  time: string | null;
  people: number;
  words: string | null;
  frame: '16:9' | '9:16' | '1:1';
}
export interface Stroke {
  /** An SVG path in the frame's own units. */
  d: string;
  tone: 'paper' | 'thin' | 'hatch' | 'none';
}
export interface Frame {
  width: number;
  height: number;
  strokes: readonly Stroke[];
  night: boolean;
  words: string | null;
  /** What it had no drawing for. */
  unknown: string | null;
}

const SIZES: Readonly<Record<FrameAsked['frame'], [number, number]>> = {
  '16:9': [160, 90],
  '9:16': [90, 160],
  '1:1': [90, 90],
};
/** Height of the main thing as a share of the frame's. */
const SHARE: Readonly<Record<FrameAsked['size'], number>> = {
  'extreme close-up': 1.3,
  'close-up': 0.95,
  medium: 0.66,
  wide: 0.42,
  'extreme wide': 0.24,
};
/** How far down the horizon lies. */
const HORIZON: Readonly<Record<FrameAsked['angle'], number>> = {
  'eye level': 0.64,
  low: 0.84,
  high: 0.34,
  overhead: 0,
};

type Draw = (x: number, y: number, h: number) => Stroke[];
const n = (v: number) => String(Math.round(v * 10) / 10);
const path = (...points: (string | number)[]) =>
  points.map((p) => (typeof p === 'number' ? n(p) : p)).join(' ');
const line = (d: string): Stroke => ({ d, tone: 'none' });
const shape = (d: string, tone: Stroke['tone'] = 'paper'): Stroke => ({ d: `${d} Z`, tone });
const box = (x: number, y: number, w: number, h: number, tone: Stroke['tone'] = 'paper') =>
  shape(path('M', x, y, 'h', w, 'v', h, 'h', -w), tone);
const circle = (x: number, y: number, r: number, tone: Stroke['tone'] = 'paper') =>
  shape(path('M', x - r, y, 'a', r, r, 0, 1, 1, 2 * r, 0, 'a', r, r, 0, 1, 1, -2 * r, 0), tone);
const rows = (x: number, y: number, w: number, h: number, count: number): Stroke[] =>
  Array.from({ length: count }, (_, i) => line(path('M', x, y + (h * (i + 1)) / (count + 1), 'h', w)));

// Each draws a thing that stands on y with its middle at x, h high.
const person: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x - h * 0.2,
      y,
      'v',
      -h * 0.5,
      'q',
      0,
      -h * 0.18,
      h * 0.2,
      -h * 0.18,
      'q',
      h * 0.2,
      0,
      h * 0.2,
      h * 0.18,
      'v',
      h * 0.5,
    ),
    'thin',
  ),
  circle(x, y - h * 0.82, h * 0.14),
];
const crowd: Draw = (x, y, h) =>
  [-0.9, -0.45, 0, 0.45, 0.9].flatMap((k, i) => person(x + k * h, y - (i % 2) * h * 0.12, h * 0.72));
const boat: Draw = (x, y, h) => [
  shape(path('M', x - h, y - h * 0.42, 'h', 2 * h, 'l', -h * 0.25, h * 0.42, 'h', -1.5 * h), 'thin'),
  box(x - h * 0.5, y - h * 0.74, h * 0.7, h * 0.32),
  line(path('M', x + h * 0.35, y - h * 0.42, 'v', -h * 0.58)),
];
const bridge: Draw = (x, y, h) => [
  box(x - h * 1.6, y - h * 0.62, h * 3.2, h * 0.14, 'thin'),
  line(path('M', x - h * 1.6, y - h * 0.85, 'h', h * 3.2)),
  ...[-1.4, -0.9, -0.4, 0.1, 0.6, 1.1, 1.5].map((k) =>
    line(path('M', x + k * h, y - h * 0.85, 'v', h * 0.23)),
  ),
  ...[-0.9, 0.8].map((k) => box(x + k * h, y - h * 0.48, h * 0.16, h * 0.48)),
  line(path('M', x - h * 0.74, y, 'q', h * 0.85, -h * 0.8, h * 1.6, 0)),
];
const tower: Draw = (x, y, h) => [
  box(x - h * 0.2, y - h, h * 0.4, h),
  ...rows(x - h * 0.2, y - h, h * 0.4, h, 5),
  shape(path('M', x - h * 0.26, y - h, 'l', h * 0.26, -h * 0.16, 'l', h * 0.26, h * 0.16), 'thin'),
];
const lift: Draw = (x, y, h) => [
  box(x - h * 0.8, y - h, h * 0.12, h),
  box(x + h * 0.68, y - h, h * 0.12, h),
  box(x - h * 0.9, y - h * 1.08, h * 1.8, h * 0.1, 'thin'),
  circle(x - h * 0.35, y - h * 0.9, h * 0.13),
  circle(x + h * 0.35, y - h * 0.9, h * 0.13),
  line(path('M', x - h * 0.35, y - h * 0.78, 'v', h * 0.34)),
  line(path('M', x + h * 0.35, y - h * 0.78, 'v', h * 0.55)),
  box(x - h * 0.6, y - h * 0.44, h * 0.5, h * 0.18, 'hatch'),
  box(x + h * 0.1, y - h * 0.23, h * 0.5, h * 0.18, 'hatch'),
];
const trough: Draw = (x, y, h) => [
  shape(path('M', x - h, y - h * 0.6, 'v', h * 0.6, 'h', 2 * h, 'v', -h * 0.6), 'none'),
  box(x - h, y - h * 0.45, 2 * h, h * 0.45, 'hatch'),
];
const wheel: Draw = (x, y, h) => [
  circle(x, y - h * 0.5, h * 0.5),
  circle(x, y - h * 0.5, h * 0.1, 'thin'),
  ...[0, 1, 2, 3].map((k) =>
    line(
      path(
        'M',
        x + Math.cos((k * Math.PI) / 4) * h * 0.5,
        y - h * 0.5 + Math.sin((k * Math.PI) / 4) * h * 0.5,
        'L',
        x - Math.cos((k * Math.PI) / 4) * h * 0.5,
        y - h * 0.5 - Math.sin((k * Math.PI) / 4) * h * 0.5,
      ),
    ),
  ),
];
const house: Draw = (x, y, h) => [
  box(x - h * 0.5, y - h * 0.62, h, h * 0.62),
  shape(path('M', x - h * 0.58, y - h * 0.62, 'l', h * 0.58, -h * 0.38, 'l', h * 0.58, h * 0.38), 'thin'),
  box(x - h * 0.1, y - h * 0.34, h * 0.2, h * 0.34),
  box(x + h * 0.22, y - h * 0.46, h * 0.16, h * 0.16),
];
const roofs: Draw = (x, y, h) =>
  [-1.5, -0.6, 0.3, 1.2].flatMap((k, i) => house(x + k * h * 0.9, y, h * (0.8 + (i % 3) * 0.12)));
const hall: Draw = (x, y, h) => [
  box(x - h, y - h * 0.7, 2 * h, h * 0.7),
  shape(path('M', x - h * 1.1, y - h * 0.7, 'l', h * 1.1, -h * 0.3, 'l', h * 1.1, h * 0.3), 'thin'),
  ...[-0.7, -0.25, 0.2, 0.65].map((k) => box(x + k * h, y - h * 0.6, h * 0.1, h * 0.6)),
];
const gate: Draw = (x, y, h) => [
  box(x - h * 0.7, y - h, h * 0.12, h),
  box(x + h * 0.58, y - h, h * 0.12, h),
  ...[-0.4, -0.15, 0.1, 0.35].map((k) => line(path('M', x + k * h, y - h * 0.85, 'v', h * 0.85))),
  line(path('M', x - h * 0.58, y - h * 0.8, 'h', h * 1.16)),
  line(path('M', x - h * 0.58, y - h * 0.2, 'h', h * 1.16)),
];
const steps: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x - h,
      y,
      'v',
      -h * 0.2,
      'h',
      h * 0.4,
      'v',
      -h * 0.2,
      'h',
      h * 0.4,
      'v',
      -h * 0.2,
      'h',
      h * 0.4,
      'v',
      -h * 0.2,
      'h',
      h * 0.4,
      'v',
      -h * 0.2,
      'h',
      h * 0.4,
      'v',
      h,
    ),
    'thin',
  ),
];
const rail: Draw = (x, y, h) => [
  line(path('M', x - h * 2, y - h * 0.8, 'h', h * 4)),
  line(path('M', x - h * 2, y - h * 0.4, 'h', h * 4)),
  ...[-1.6, -0.8, 0, 0.8, 1.6].map((k) => line(path('M', x + k * h, y - h, 'v', h))),
];
const table: Draw = (x, y, h) => [
  box(x - h * 1.1, y - h * 0.6, h * 2.2, h * 0.1, 'thin'),
  line(path('M', x - h * 0.9, y - h * 0.5, 'v', h * 0.5)),
  line(path('M', x + h * 0.9, y - h * 0.5, 'v', h * 0.5)),
];
const book: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x,
      y - h * 0.6,
      'q',
      -h * 0.5,
      -h * 0.2,
      -h * 0.9,
      0,
      'v',
      h * 0.5,
      'q',
      h * 0.45,
      -h * 0.18,
      h * 0.9,
      0,
    ),
  ),
  shape(
    path(
      'M',
      x,
      y - h * 0.6,
      'q',
      h * 0.5,
      -h * 0.2,
      h * 0.9,
      0,
      'v',
      h * 0.5,
      'q',
      -h * 0.45,
      -h * 0.18,
      -h * 0.9,
      0,
    ),
  ),
  ...rows(x - h * 0.72, y - h * 0.58, h * 0.54, h * 0.36, 3),
  ...rows(x + h * 0.18, y - h * 0.58, h * 0.54, h * 0.36, 3),
];
const paper: Draw = (x, y, h) => [
  shape(path('M', x - h * 0.36, y, 'l', h * 0.06, -h * 0.95, 'h', h * 0.66, 'l', -h * 0.06, h * 0.95)),
  ...rows(x - h * 0.24, y - h * 0.85, h * 0.5, h * 0.7, 5),
];
const clock: Draw = (x, y, h) => [
  circle(x, y - h * 0.5, h * 0.46),
  circle(x, y - h * 0.5, h * 0.38, 'none'),
  line(path('M', x, y - h * 0.5, 'v', -h * 0.28)),
  line(path('M', x, y - h * 0.5, 'l', h * 0.2, h * 0.1)),
  ...[0, 1, 2, 3].map((k) =>
    line(
      path(
        'M',
        x + Math.sin((k * Math.PI) / 2) * h * 0.38,
        y - h * 0.5 - Math.cos((k * Math.PI) / 2) * h * 0.38,
        'l',
        -Math.sin((k * Math.PI) / 2) * h * 0.06,
        Math.cos((k * Math.PI) / 2) * h * 0.06,
      ),
    ),
  ),
];
const gauge: Draw = (x, y, h) => [
  shape(path('M', x - h * 0.5, y - h * 0.2, 'a', h * 0.5, h * 0.5, 0, 0, 1, h, 0)),
  line(path('M', x, y - h * 0.2, 'l', h * 0.26, -h * 0.3)),
  ...[0.2, 0.4, 0.6, 0.8].map((k) =>
    line(
      path(
        'M',
        x - Math.cos(k * Math.PI) * h * 0.44,
        y - h * 0.2 - Math.sin(k * Math.PI) * h * 0.44,
        'l',
        Math.cos(k * Math.PI) * h * 0.06,
        Math.sin(k * Math.PI) * h * 0.06,
      ),
    ),
  ),
];
const lamp: Draw = (x, y, h) => [
  line(path('M', x, y, 'v', -h * 0.8)),
  shape(
    path('M', x - h * 0.16, y - h * 0.8, 'l', h * 0.06, -h * 0.2, 'h', h * 0.2, 'l', h * 0.06, h * 0.2),
    'thin',
  ),
  line(path('M', x - h * 0.14, y, 'h', h * 0.28)),
];
const pane: Draw = (x, y, h) => [
  box(x - h * 0.42, y - h, h * 0.84, h * 0.9),
  line(path('M', x - h * 0.42, y - h * 0.55, 'h', h * 0.84)),
  line(path('M', x, y - h, 'v', h * 0.9)),
  box(x - h * 0.5, y - h * 0.1, h, h * 0.1, 'thin'),
];
const door: Draw = (x, y, h) => [
  box(x - h * 0.28, y - h, h * 0.56, h),
  circle(x + h * 0.18, y - h * 0.48, h * 0.03, 'hatch'),
  box(x - h * 0.18, y - h * 0.9, h * 0.36, h * 0.3, 'thin'),
];
const shelf: Draw = (x, y, h) =>
  [0.25, 0.6, 0.95].flatMap((k) => [
    line(path('M', x - h, y - h * k, 'h', 2 * h)),
    ...[-0.8, -0.5, -0.2, 0.15, 0.45, 0.75].map((j, i) =>
      box(
        x + j * h,
        y - h * k - h * (0.14 + (i % 3) * 0.05),
        h * 0.16,
        h * (0.14 + (i % 3) * 0.05),
        i % 2 ? 'thin' : 'paper',
      ),
    ),
  ]);
const tree: Draw = (x, y, h) => [
  line(path('M', x, y, 'v', -h * 0.5)),
  circle(x, y - h * 0.66, h * 0.34, 'thin'),
];
const hill: Draw = (x, y, h) => [
  shape(
    path('M', x - h * 2, y, 'q', h, -h * 1.4, h * 2, -h * 0.9, 'q', h * 0.9, h * 0.3, h * 2, h * 0.9),
    'thin',
  ),
];
const engine: Draw = (x, y, h) => [
  box(x - h * 0.9, y - h * 0.6, h * 1.3, h * 0.6, 'thin'),
  circle(x + h * 0.6, y - h * 0.36, h * 0.36),
  circle(x + h * 0.6, y - h * 0.36, h * 0.08, 'hatch'),
  box(x - h * 0.6, y - h, h * 0.2, h * 0.4),
];
const gear: Draw = (x, y, h) => [
  circle(x, y - h * 0.5, h * 0.4),
  circle(x, y - h * 0.5, h * 0.14, 'thin'),
  ...Array.from({ length: 10 }, (_, k) =>
    line(
      path(
        'M',
        x + Math.cos((k * Math.PI) / 5) * h * 0.4,
        y - h * 0.5 + Math.sin((k * Math.PI) / 5) * h * 0.4,
        'l',
        Math.cos((k * Math.PI) / 5) * h * 0.1,
        Math.sin((k * Math.PI) / 5) * h * 0.1,
      ),
    ),
  ),
];
const weight: Draw = (x, y, h) => [
  line(path('M', x, y - h, 'v', h * 0.4)),
  shape(path('M', x - h * 0.3, y - h * 0.6, 'h', h * 0.6, 'l', h * 0.1, h * 0.6, 'h', -h * 0.8), 'hatch'),
];
const chart: Draw = (x, y, h) => [
  line(path('M', x - h * 0.8, y - h, 'v', h, 'h', h * 1.6)),
  line(
    path(
      'M',
      x - h * 0.8,
      y - h * 0.2,
      'l',
      h * 0.4,
      -h * 0.2,
      'l',
      h * 0.4,
      h * 0.08,
      'l',
      h * 0.5,
      -h * 0.5,
    ),
  ),
];
const hand: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x - h * 0.5,
      y,
      'l',
      h * 0.1,
      -h * 0.5,
      'h',
      h * 0.5,
      'q',
      h * 0.4,
      0,
      h * 0.5,
      -h * 0.14,
      'q',
      h * 0.06,
      h * 0.14,
      -h * 0.2,
      h * 0.24,
      'l',
      -h * 0.4,
      h * 0.4,
    ),
    'thin',
  ),
];
const train: Draw = (x, y, h) => [
  box(x - h * 1.4, y - h * 0.7, h * 2.8, h * 0.55, 'thin'),
  ...[-1.1, -0.5, 0.1, 0.7].map((k) => box(x + k * h, y - h * 0.58, h * 0.36, h * 0.22)),
  ...[-1, -0.4, 0.5, 1.1].map((k) => circle(x + k * h, y - h * 0.1, h * 0.1)),
  line(path('M', x - h * 2, y, 'h', h * 4)),
];
const car: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x - h * 0.9,
      y - h * 0.2,
      'v',
      -h * 0.3,
      'l',
      h * 0.4,
      -h * 0.1,
      'l',
      h * 0.3,
      -h * 0.3,
      'h',
      h * 0.6,
      'l',
      h * 0.3,
      h * 0.3,
      'l',
      h * 0.3,
      h * 0.1,
      'v',
      h * 0.3,
    ),
    'thin',
  ),
  circle(x - h * 0.5, y - h * 0.16, h * 0.16),
  circle(x + h * 0.55, y - h * 0.16, h * 0.16),
];
const road: Draw = (x, y, h) => [
  shape(path('M', x - h * 1.2, y, 'L', x - h * 0.1, y - h, 'h', h * 0.2, 'L', x + h * 1.2, y), 'thin'),
  line(path('M', x, y, 'v', -h * 0.2)),
  line(path('M', x, y - h * 0.4, 'v', -h * 0.16)),
];
const bed: Draw = (x, y, h) => [
  box(x - h, y - h * 0.4, 2 * h, h * 0.28),
  box(x - h, y - h * 0.7, h * 0.1, h * 0.7),
  box(x + h * 0.9, y - h * 0.55, h * 0.1, h * 0.55),
  box(x - h * 0.86, y - h * 0.5, h * 0.4, h * 0.14, 'thin'),
];
const crane: Draw = (x, y, h) => [
  line(path('M', x - h * 0.2, y, 'v', -h, 'L', x + h * 0.8, y - h * 0.8)),
  line(path('M', x - h * 0.2, y - h, 'L', x - h * 0.6, y - h * 0.7)),
  line(path('M', x + h * 0.7, y - h * 0.82, 'v', h * 0.4)),
  box(x + h * 0.58, y - h * 0.42, h * 0.24, h * 0.2, 'thin'),
];
const animal: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x - h * 0.7,
      y - h * 0.5,
      'q',
      h * 0.6,
      -h * 0.3,
      h * 1.2,
      0,
      'l',
      h * 0.3,
      -h * 0.2,
      'v',
      h * 0.3,
      'q',
      -h * 0.2,
      h * 0.2,
      -h * 0.5,
      h * 0.1,
      'h',
      -h * 0.8,
    ),
    'thin',
  ),
  line(path('M', x - h * 0.5, y, 'v', -h * 0.4)),
  line(path('M', x + h * 0.3, y, 'v', -h * 0.4)),
];
const fish: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x - h,
      y - h * 0.5,
      'q',
      h * 0.9,
      -h * 0.5,
      h * 1.6,
      0,
      'l',
      h * 0.4,
      -h * 0.25,
      'v',
      h * 0.5,
      'l',
      -h * 0.4,
      -h * 0.25,
      'q',
      -h * 0.7,
      h * 0.5,
      -h * 1.6,
      0,
    ),
    'thin',
  ),
];
const tool: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x - h * 0.7,
      y,
      'l',
      h * 0.12,
      h * 0.12,
      'L',
      x + h * 0.4,
      y - h * 0.7,
      'l',
      -h * 0.12,
      -h * 0.12,
    ),
    'thin',
  ),
  circle(x + h * 0.5, y - h * 0.86, h * 0.2),
];
const bell: Draw = (x, y, h) => [
  shape(
    path(
      'M',
      x - h * 0.5,
      y - h * 0.2,
      'q',
      h * 0.2,
      -h * 0.2,
      h * 0.2,
      -h * 0.5,
      'q',
      h * 0.3,
      -h * 0.4,
      h * 0.6,
      0,
      'q',
      0,
      h * 0.3,
      h * 0.2,
      h * 0.5,
    ),
    'thin',
  ),
  circle(x, y - h * 0.1, h * 0.08, 'hatch'),
];
const coins: Draw = (x, y, h) =>
  [0, 1, 2, 3].map((k) =>
    shape(
      path(
        'M',
        x - h * 0.4,
        y - h * 0.16 * (k + 1),
        'a',
        h * 0.4,
        h * 0.12,
        0,
        1,
        1,
        h * 0.8,
        0,
        'a',
        h * 0.4,
        h * 0.12,
        0,
        1,
        1,
        -h * 0.8,
        0,
      ),
      k % 2 ? 'thin' : 'paper',
    ),
  );
const sign: Draw = (x, y, h) => [
  line(path('M', x, y, 'v', -h * 0.5)),
  shape(path('M', x, y - h, 'l', h * 0.36, h * 0.54, 'h', -h * 0.72), 'thin'),
  line(path('M', x, y - h * 0.8, 'v', h * 0.18)),
];

const waves: Draw = (x, y, h) =>
  [0.1, 0.3, 0.5, 0.7].map((k, i) =>
    line(
      path(
        'M',
        x - h * (1.2 - i * 0.2),
        y - h * k,
        'q',
        h * 0.3,
        -h * 0.12,
        h * 0.6,
        0,
        't',
        h * 0.6,
        0,
        't',
        h * 0.6,
        0,
      ),
    ),
  );

/** What is drawn for a noun; the first pattern that fits. */
const DRAWN: readonly [RegExp, Draw][] = [
  [/\b(?:boat lift|lift|elevator)s?\b/, lift], [/\btroughs?\b/, trough], [/\b(?:boats?|barges?|ships?|hull|ferry)\b/, boat],
  [/\b(?:foot)?bridges?\b|\bdeck\b|aqueduct|viaduct/, bridge], [/\b(?:crowd|volunteers|passengers|soldiers|placards|audience|queue|neighbours)\b/, crowd],
  [/\b(?:tower|chimney|spire|mast|skyscraper)s?\b/, tower], [/\b(?:wheel|pulley|hoist|mill)s?\b/, wheel], [/\b(?:winch|engine|pump|boiler|motor|turbine|machine)s?\b/, engine],
  [/\b(?:gear|cog|spring|damper)s?\b/, gear], [/\b(?:weight|load|sack|scales)s?\b/, weight], [/\b(?:crane|derrick)s?\b/, crane],
  [/\b(?:city|town|village|roofs?|street|houses)\b/, roofs], [/\b(?:house|home|cottage|shed|hut|barn)\b/, house], [/\b(?:hall|court|museum|library|council|chamber|bank|school|hospital|college|university|station|factory)\b/, hall],
  [/\b(?:gate|barrier|fence|weir)s?\b/, gate], [/\b(?:stairs?|steps|slope|staircase)\b/, steps], [/\b(?:handrail|rails?|railing)\b/, rail], [/\b(?:train|railway|carriage|tram)s?\b/, train], [/\b(?:car|truck|lorry|bus|van|traffic)s?\b/, car],
  [/\b(?:road|path|track|lane)s?\b/, road], [/\b(?:clock|watch|wristwatch|calendar)s?\b/, clock], [/\b(?:gauge|meter|instrument|thermometer|compass|sensor)s?\b/, gauge],
  [/\b(?:book|ledger|notebook|dictionary|log)s?\b/, book], [/\b(?:letter|paper|papers|document|page|report|bill|contract|drawing|drawings|notice|newspapers|label|tag|list|table of)s?\b/, paper],
  [/\b(?:shop|shelf|shelves|store|counter|books|files)\b/, shelf], [/\b(?:table|desk|bench|workbench)s?\b/, table], [/\b(?:window|sash|sill|glass|pane)s?\b/, pane], [/\b(?:door|drawer|case|box|cupboard)s?\b/, door],
  [/\b(?:lamp|lantern|lights?|signal|candle)s?\b/, lamp], [/\b(?:tree|forest|wood|seedling|branch)s?\b/, tree], [/\b(?:hill|mountain|field|valley|coast|cliff|island|moor|harbour|park)s?\b/, hill],
  [/\b(?:chart|graph|figures|curve|line)s?\b/, chart], [/\b(?:hand|hands|fist|finger|thumb|handshake)\b/, hand], [/\b(?:bed|ward)s?\b/, bed], [/\b(?:fish|eels?)\b/, fish], [/\b(?:dog|cat|horse|sheep|cow|animal)s?\b/, animal],
  [/\b(?:wrench|scraper|knife|hammer|screw|bolt|nail|wedge|tool|tools|blade|brush|pencil|pen)s?\b/, tool], [/\bbells?\b/, bell], [/\b(?:coins?|money|banknotes|till)\b/, coins], [/\b(?:sign|warning|danger)s?\b/, sign], [/\blocks?\b/, gate], [/\b(?:water|river|canal|sea|lake|stream|channel|rain)s?\b/, waves],
  [/\b(?:man|woman|person|engineer|keeper|worker|shopkeeper|nurse|contractor|customer|researcher|figure|inspector|child|boy|girl|driver|owner|patient)s?\b/, person],
]; // prettier-ignore
const WATER = /\b(?:water|river|canal|lock|sea|harbour|dock|boats?|barge|ship|weir|trough|lake)\b/;
const INDOORS =
  /\b(?:shop|room|shelf|shelves|table|desk|bench|window|sash|door|clock|ledger|book|bed|office|counter|drawer|lamp|papers|hospital|ward)\b/;

const drawnBy = (key: string): Draw | null => DRAWN.find(([p]) => p.test(key))?.[1] ?? null;

/** The frame for what is asked. The same asking gives the same frame. */
export function drawFrame(asked: FrameAsked): Frame {
  const [width, height] = SIZES[asked.frame];
  const all = asked.keys.map((k) => k.toLowerCase());
  const text = all.join(' ');
  const horizon = height * HORIZON[asked.angle];
  const night = asked.time === 'night' || asked.time === 'evening';
  const strokes: Stroke[] = [];
  const indoors = INDOORS.test(text) && !WATER.test(text);
  if (asked.angle !== 'overhead') {
    if (
      !indoors &&
      (asked.time === 'night' ||
        asked.time === 'dawn' ||
        asked.time === 'evening' ||
        asked.time === 'morning')
    )
      strokes.push(
        circle(
          width * 0.82,
          height * (asked.time === 'night' ? 0.18 : 0.3),
          6,
          asked.time === 'night' ? 'paper' : 'thin',
        ),
      );
    strokes.push(line(path('M', 0, horizon, 'h', width)));
    if (WATER.test(text))
      for (let k = 1; k < 5; k++)
        strokes.push(
          line(
            path(
              'M',
              (k * 23) % 40,
              horizon + ((height - horizon) * k) / 5,
              'h',
              width * 0.3,
              'm',
              width * 0.12,
              0,
              'h',
              width * 0.28,
            ),
          ),
        );
    else if (indoors)
      strokes.push(
        line(path('M', width * 0.16, horizon, 'L', 0, height)),
        line(path('M', width * 0.84, horizon, 'L', width, height)),
      );
    else if (asked.size === 'extreme wide' || asked.size === 'wide')
      strokes.push(
        shape(
          path(
            'M',
            0,
            horizon,
            'q',
            width * 0.25,
            -height * 0.14,
            width * 0.5,
            -height * 0.05,
            'q',
            width * 0.25,
            -height * 0.12,
            width * 0.5,
            height * 0.05,
          ),
          'none',
        ),
      );
  } else for (let k = 1; k < 6; k++) strokes.push(line(path('M', 0, (height * k) / 6, 'h', width)));
  const h = height * SHARE[asked.size] * (asked.frame === '9:16' ? 0.62 : 1);
  const base =
    asked.angle === 'overhead'
      ? height * 0.5 + h * 0.45
      : Math.min(height * 1.1, horizon + (height - horizon) * (asked.size === 'extreme wide' ? 0.1 : 0.55));
  const main = all.map((k) => ({ k, draw: drawnBy(k) })).filter((x) => x.draw);
  const beside = asked.people > 0 ? 0.36 : 0.5;
  let unknown: string | null = null;
  if (main[0])
    strokes.push(
      ...main[0].draw!(width * (main.length > 1 || asked.people ? 1 - beside - 0.06 : 0.5), base, h),
    );
  else if (all[0] && !asked.people) {
    unknown = asked.keys[0];
    strokes.push(box(width * 0.5 - h * 0.6, base - h * 0.8, h * 1.2, h * 0.8, 'thin'));
  }
  const second = main.find((x) => x.draw !== main[0]?.draw);
  if (second && !asked.people) strokes.push(...second.draw!(width * 0.22, base, h * 0.6));
  for (let k = 0; k < Math.min(asked.people, 3); k++)
    strokes.push(
      ...person(width * (0.26 + k * 0.16), Math.min(height, base + h * 0.1), Math.max(h * 0.9, height * 0.3)),
    );
  return { width, height, strokes, night, words: asked.words, unknown };
}

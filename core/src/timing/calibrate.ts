/**
 * Fitting a voice to recordings. Up to FEW recordings one scale is fitted on a sound default voice; beyond, every
 * figure is fitted by least squares on relative errors, shrunk towards the scaled default (ridge: Hoerl and Kennard 1970)
 * and kept at or above nought (coordinate descent on the normal equations: Franc, Hlaváč and Navara 2005).
 * The strength of the shrinkage is chosen by cross-validation over fixed folds, which also gives the error band.
 */
import type { Pronouncer } from '../language/phones.ts';
import { spokenTokens } from '../language/spoken/index.ts';
import { FEATURE_COUNT, featureVector } from './features.ts';
import { DEFAULT_VOICE, PAUSES, PHONE_CLASSES, type Voice } from './voice.ts';

export interface Recording {
  text: string;
  ms: number;
}

/** Up to this many recordings a single scale is the safer fit (measured: about 3 % from 8 to 12 recordings on). */
export const FEW = 30;
const FOLDS = 5;
const SHRINKAGE = [0.03, 0.1, 0.3, 1, 3, 10, 30];

interface Sample {
  x: Float64Array;
  y: number;
}

const dot = (a: ArrayLike<number>, b: ArrayLike<number>) => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
};

/** A percentile (0 to 1) of values by linear interpolation. NaN when there are none. */
export function percentile(values: readonly number[], p: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (sorted.length - 1) * p;
  const low = Math.floor(at);
  return sorted[low] + (sorted[Math.min(low + 1, sorted.length - 1)] - sorted[low]) * (at - low);
}

/** The voice as a vector in feature order. */
function weights(voice: Voice): Float64Array {
  return Float64Array.from([
    ...PHONE_CLASSES.map((c) => voice.phoneMs[c] * voice.scale),
    voice.wordMs * voice.scale,
    ...PAUSES.map((p) => voice.pauseMs[p] * voice.scale),
    voice.leadMs + voice.tailMs,
  ]);
}

/** One scale on all of the base and what is left over once a recording, by least squares on relative errors; neither below nought. */
function scaled(samples: readonly Sample[], base: Float64Array): Float64Array {
  const last = FEATURE_COUNT - 1;
  let [aa, ab, bb, ay, by] = [0, 0, 0, 0, 0];
  for (const { x, y } of samples) {
    const a = (dot(x, base) - base[last]) / y;
    const b = 1 / y;
    aa += a * a;
    ab += a * b;
    bb += b * b;
    ay += a;
    by += b;
  }
  const det = aa * bb - ab * ab;
  let k = det > 1e-12 * aa * bb ? (ay * bb - by * ab) / det : ay / aa;
  let constant = det > 1e-12 * aa * bb ? (by * aa - ay * ab) / det : 0;
  if (constant < 0 || constant > 2000 || !(k > 0)) {
    constant = 0;
    k = ay / aa;
  }
  return base.map((w, i) => (i === last ? constant : w * k));
}

/** What the default voice leaves at nought still needs a size to be shrunk by. */
const FLOOR_MS = 12;

function shrunk(samples: readonly Sample[], towards: Float64Array, lambda: number): Float64Array {
  const n = FEATURE_COUNT;
  const gram = Array.from({ length: n }, () => new Float64Array(n));
  const right = new Float64Array(n);
  for (const { x, y } of samples)
    for (let i = 0; i < n; i++) {
      if (!x[i]) continue;
      right[i] += x[i] / y;
      for (let j = 0; j < n; j++) gram[i][j] += (x[i] * x[j]) / (y * y);
    }
  for (let i = 0; i < n; i++) {
    const size = Math.max(towards[i], FLOOR_MS);
    const ridge = (lambda * 0.01) / (size * size);
    gram[i][i] += ridge;
    right[i] += ridge * towards[i];
  }
  const beta = towards.slice();
  for (let round = 0; round < 4000; round++) {
    let moved = 0;
    for (let i = 0; i < n; i++) {
      const next = Math.max(0, beta[i] + (right[i] - dot(gram[i], beta)) / gram[i][i]);
      moved = Math.max(moved, Math.abs(next - beta[i]));
      beta[i] = next;
    }
    if (moved < 1e-7) break;
  }
  return beta;
}

const errorsOf = (samples: readonly Sample[], beta: Float64Array) =>
  samples.map(({ x, y }) => Math.abs(dot(x, beta) - y) / y);

function fitter(samples: readonly Sample[], base: Float64Array) {
  const fold = (i: number) => i % FOLDS;
  const crossValidate = (fit: (part: Sample[]) => Float64Array) =>
    Array.from({ length: FOLDS }, (_, f) => {
      const train = samples.filter((_s, i) => fold(i) !== f);
      const test = samples.filter((_s, i) => fold(i) === f);
      return train.length && test.length ? errorsOf(test, fit(train)) : [];
    }).flat();
  const one = (part: readonly Sample[]) => scaled(part, base);
  if (samples.length <= FEW) return { beta: one(samples), errors: crossValidate(one) };
  let best = { cost: Infinity, lambda: 1, errors: [] as number[] };
  for (const lambda of SHRINKAGE) {
    const errors = crossValidate((part) => shrunk(part, one(part), lambda));
    const cost = errors.reduce((sum, e) => sum + e * e, 0);
    if (cost < best.cost) best = { cost, lambda, errors };
  }
  return { beta: shrunk(samples, one(samples), best.lambda), errors: best.errors };
}

/** The shortest recording that can teach a voice anything, in milliseconds. */
export const SHORTEST_RECORDING = 400;

/**
 * A voice fitted to recordings of known text. Throws RangeError when there is none that can be used: recordings shorter
 * than 0.4 s, or of a text without words, are passed over.
 */
export function calibrate(
  recordings: readonly Recording[],
  pronouncer: Pronouncer,
  name = 'Calibrated voice',
  base: Voice = DEFAULT_VOICE,
): Voice {
  const samples = recordings
    .filter((r) => r.ms >= SHORTEST_RECORDING)
    .map((r) => ({
      x: featureVector(spokenTokens(r.text, { knows: pronouncer.knows }), pronouncer),
      y: r.ms,
    }))
    .filter((s) => s.x[PHONE_CLASSES.length] > 0);
  if (!samples.length)
    throw new RangeError(
      'None of the recordings can be used: each needs its text and at least 0.4 s of sound.',
    );
  const { beta, errors } = fitter(samples, weights(base));
  const round = (v: number) => Math.round(v * 100) / 100;
  const constant = beta[FEATURE_COUNT - 1];
  return {
    version: 1,
    id:
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'voice',
    name,
    phoneMs: Object.fromEntries(PHONE_CLASSES.map((c, i) => [c, round(beta[i])])) as Voice['phoneMs'],
    wordMs: round(beta[PHONE_CLASSES.length]),
    pauseMs: Object.fromEntries(
      PAUSES.map((p, i) => [p, round(beta[PHONE_CLASSES.length + 1 + i])]),
    ) as Voice['pauseMs'],
    leadMs: Math.round(constant / 2),
    tailMs: Math.round(constant / 2),
    scale: 1,
    calibration: {
      recordings: samples.length,
      p50: errors.length ? round(percentile(errors, 0.5) * 100) / 100 : 0,
      p90: errors.length ? round(percentile(errors, 0.9) * 100) / 100 : 0,
      note:
        samples.length <= FEW
          ? 'one scale on the even voice'
          : 'all figures fitted, shrunk towards the even voice',
    },
  };
}

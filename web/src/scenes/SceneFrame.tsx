/** A scene as a simple frame, drawn by the stand-in of the picture library. */
import { memo } from 'react';
import type { Picture } from '@ursprung/core/scenes/desk';
import { drawFrame } from '@ursprung/standins/frames';

const FILL = {
  paper: 'var(--sheet)',
  thin: 'var(--bench)',
  hatch: 'url(#frame-hatch)',
  none: 'none',
} as const;

/** The hatch that frames share; once a page. */
export const FrameDefs = () => (
  <svg width="0" height="0" aria-hidden="true" className="absolute">
    <defs>
      <pattern
        id="frame-hatch"
        width="3"
        height="3"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="3" height="3" fill="var(--sheet)" />
        <rect width="1" height="3" fill="var(--ink3)" />
      </pattern>
    </defs>
  </svg>
);

export const SceneFrame = memo(function SceneFrame({
  picture,
  ratio,
  width,
  height,
}: {
  picture: Picture | undefined;
  ratio: '16:9' | '9:16' | '1:1';
  width: number;
  height: number;
}) {
  const frame = drawFrame({
    keys: picture
      ? picture.search
          .filter((w) => w.why !== 'name')
          .map((w) => w.text)
          .concat(picture.search.filter((w) => w.why === 'name').map((w) => w.text))
      : [],
    size: picture?.size ?? 'medium',
    angle: picture?.angle ?? 'eye level',
    time: picture?.time ?? null,
    people: picture?.cast.length ?? 0,
    words: picture?.onScreen[0] ?? null,
    frame: ratio,
  });
  return (
    <svg
      viewBox={`0 0 ${frame.width} ${frame.height}`}
      width={width}
      height={height}
      preserveAspectRatio="xMidYMid slice"
      className="block border border-mark bg-sheet"
      aria-hidden="true"
    >
      <g fill="none" stroke="var(--ink2)" strokeLinejoin="round">
        {frame.strokes.map((s, i) => (
          <path key={i} d={s.d} fill={FILL[s.tone]} strokeWidth="1" vectorEffect="non-scaling-stroke" />
        ))}
      </g>
      {frame.night && <rect width={frame.width} height={frame.height} fill="var(--ink)" opacity="0.16" />}
      {frame.words && width >= 150 && (
        <text
          x={frame.width - 6}
          y={frame.height - 8}
          textAnchor="end"
          fontSize="9"
          fontFamily="var(--font-serif)"
          fontWeight="600"
          fill="var(--ink)"
          stroke="var(--sheet)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {frame.words.length > 34 ? `${frame.words.slice(0, 33)}…` : frame.words}
        </text>
      )}
      {frame.unknown && width >= 150 && (
        <text x={frame.width / 2} y={frame.height * 0.55} textAnchor="middle" fontSize="9" fill="var(--ink2)">
          {frame.unknown}
        </text>
      )}
    </svg>
  );
});

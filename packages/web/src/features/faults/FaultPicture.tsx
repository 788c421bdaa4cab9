import type { ReactNode } from 'react';

/** Side of a picture in its own units. */
const S = 72;
const BASE = '#8b8b8b';
const DARK = '#5c5c5c';
const DEEP = '#3a3a3a';
const LIGHT = '#b9b9b9';
const BRIGHT = '#e4e4e4';

/** Points strewn alike in every drawing. */
function strewn(n: number, seed: number): readonly (readonly [number, number, number])[] {
  let s = seed;
  const next = () => {
    s = (s * 16807) % 2147483647;
    return s / 2147483647;
  };
  return Array.from({ length: n }, () => [next() * S, next() * S, next()] as const);
}

const dots = (n: number, seed: number, r: number, fill: string) =>
  strewn(n, seed).map(([x, y, z], i) => <circle key={i} cx={x} cy={y} r={r * (0.6 + 0.8 * z)} fill={fill} />);

/** A panel with a soft light across it: the ground of every drawing. */
const sheen = <path d="M-6 58 L58 -6 L72 -6 L72 4 L4 72 L-6 72 Z" fill={BRIGHT} opacity=".16" />;

const DRAWN: Readonly<Record<string, ReactNode>> = {
  mottling: strewn(11, 7).map(([x, y, z], i) => (
    <ellipse key={i} cx={x} cy={y} rx={9 + 7 * z} ry={6 + 5 * z} fill={i % 2 ? DARK : LIGHT} opacity=".45" />
  )),
  stripes: [6, 20, 34, 48, 62].map((y) => <rect key={y} y={y} width={S} height="6" fill={DARK} opacity=".75" />),
  'dark-edges': (
    <>
      <path d="M0 0H72V72H0Z M9 9V63H63V9Z" fillRule="evenodd" fill={DARK} opacity=".85" />
      <path d="M9 44 C30 36 46 36 63 40" stroke={DARK} strokeWidth="5" fill="none" opacity=".8" />
    </>
  ),
  'light-zone': (
    <>
      <ellipse cx="50" cy="24" rx="26" ry="17" fill={LIGHT} opacity=".6" />
      <ellipse cx="52" cy="22" rx="15" ry="9" fill={BRIGHT} opacity=".7" />
    </>
  ),
  halo: (
    <>
      <circle cx="36" cy="36" r="25" fill="none" stroke={BRIGHT} strokeWidth="4" />
      <circle cx="36" cy="36" r="23" fill={DARK} opacity=".4" />
    </>
  ),
  bleeding: (
    <>
      <rect y="34" width={S} height="38" fill={DARK} />
      {[8, 22, 35, 50, 63].map((x, i) => (
        <path key={x} d={`M${x - 6} 36 Q${x} ${10 + 5 * (i % 3)} ${x + 6} 36`} fill={DARK} opacity=".55" />
      ))}
    </>
  ),
  swimming: (
    <>
      {strewn(26, 31).map(([x, y, z], i) => (
        <path
          key={i}
          d={`M${x} ${y} q4 ${-6 - 4 * z} 9 ${-1 - z}`}
          stroke={BRIGHT}
          strokeWidth="1.6"
          fill="none"
          opacity=".85"
        />
      ))}
    </>
  ),
  'dry-spray': (
    <>
      {dots(150, 3, 0.9, BRIGHT)}
      {dots(120, 11, 0.8, DEEP)}
    </>
  ),
  'orange-peel': Array.from({ length: 49 }, (_, i) => (
    <circle
      key={i}
      cx={6 + (i % 7) * 10 + (Math.floor(i / 7) % 2) * 4}
      cy={6 + Math.floor(i / 7) * 10}
      r="4.4"
      fill="none"
      stroke={i % 2 ? BRIGHT : DARK}
      strokeWidth="1.6"
      opacity=".8"
    />
  )),
  run: (
    <path
      d="M6 16 Q20 20 24 16 Q28 16 30 34 Q31 50 35 52 Q40 51 40 36 Q41 18 46 16 Q58 20 66 16"
      fill="none"
      stroke={DEEP}
      strokeWidth="5"
      strokeLinecap="round"
    />
  ),
  fisheyes: strewn(7, 19).map(([x, y, z], i) => (
    <g key={i}>
      <circle cx={10 + x * 0.72} cy={10 + y * 0.72} r={5 + 3 * z} fill={DEEP} stroke={BRIGHT} strokeWidth="2" />
    </g>
  )),
  wrinkling: [8, 17, 26, 35, 44, 53, 62].map((y, i) => (
    <path
      key={y}
      d={`M0 ${y} q9 ${i % 2 ? -9 : 9} 18 0 t18 0 t18 0 t18 0`}
      stroke={i % 2 ? DEEP : BRIGHT}
      strokeWidth="2.6"
      fill="none"
    />
  )),
  peeling: (
    <>
      <path d="M72 0 V40 L38 30 L30 0 Z" fill={DARK} />
      <path d="M30 0 L38 30 L72 40 L56 46 L26 36 Z" fill={BRIGHT} />
      <path d="M38 30 L72 40" stroke={DEEP} strokeWidth="2" />
    </>
  ),
  'solvent-pop': (
    <>
      {dots(46, 5, 1.7, DEEP)}
      {dots(12, 9, 2.4, BRIGHT)}
    </>
  ),
  scratches: strewn(15, 13).map(([x, y, z], i) => (
    <path
      key={i}
      d={`M${x - 22} ${y + 8 * z} L${x + 22} ${y - 8 * z}`}
      stroke={i % 3 ? BRIGHT : DEEP}
      strokeWidth="1.1"
      opacity=".85"
    />
  )),
  'repair-edge': (
    <path
      d="M14 40 C10 20 30 10 42 16 C60 20 64 42 52 54 C40 64 18 60 14 40 Z"
      fill={LIGHT}
      opacity=".5"
      stroke={DEEP}
      strokeWidth="2"
    />
  ),
  splatter: (
    <>
      <path d="M28 30 q8 -10 16 -3 q10 2 6 12 q4 10 -8 10 q-10 5 -14 -4 q-8 -6 0 -15 Z" fill={DEEP} />
      {dots(6, 41, 2.2, DEEP)}
    </>
  ),
  nibs: strewn(9, 23).map(([x, y], i) => (
    <g key={i}>
      <circle cx={6 + x * 0.84} cy={6 + y * 0.84} r="2.4" fill={DEEP} />
      <circle cx={5.2 + x * 0.84} cy={5.2 + y * 0.84} r="0.9" fill={BRIGHT} />
    </g>
  )),
  dieback: (
    <>
      <rect x="36" width="36" height={S} fill="#9a9a9a" />
      <path d="M-6 58 L36 16 L36 34 L4 66 Z" fill={BRIGHT} opacity=".7" />
      <path d="M36 16 L58 -6 L72 -6 L72 4 L36 34 Z" fill={BRIGHT} opacity=".14" />
      {dots(40, 15, 0.7, DARK)}
    </>
  ),
  'ground-shows': (
    <>
      <rect width={S} height={S} fill={LIGHT} />
      <path d="M0 0H72V14H0Z M0 58H72V72H0Z" fill={DARK} opacity=".55" />
      <ellipse cx="34" cy="36" rx="20" ry="9" fill={DARK} opacity=".4" />
    </>
  ),
  blushing: (
    <>
      <ellipse cx="30" cy="30" rx="34" ry="22" fill={BRIGHT} opacity=".5" />
      <ellipse cx="52" cy="48" rx="24" ry="16" fill={BRIGHT} opacity=".42" />
    </>
  ),
  'flakes-standing': strewn(20, 29).map(([x, y, z], i) => (
    <path key={i} d={`M${x} ${y} l4 ${-9 - 4 * z} l4 ${9 + 4 * z} Z`} fill={i % 2 ? BRIGHT : DEEP} opacity=".9" />
  )),
};

/** A fault as it looks, drawn. @param name empty where it stands beside its name */
export function FaultPicture({ id, name, size = 72 }: { id: string; name: string; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox={`0 0 ${S} ${S}`}
      {...(name ? { role: 'img', 'aria-label': name } : { 'aria-hidden': true })}
      style={{ flex: 'none' }}
    >
      <rect width={S} height={S} fill={BASE} />
      {DRAWN[id]}
      {id === 'dieback' || id === 'ground-shows' ? null : sheen}
    </svg>
  );
}

/** Faults that are drawn. */
export const PICTURED: readonly string[] = Object.keys(DRAWN);

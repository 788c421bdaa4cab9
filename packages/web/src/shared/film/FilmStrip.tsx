import { useTheme } from '@mui/material';
import type { ToldColours } from '@steady-gleam/contracts';
import type { StackLayer } from '@steady-gleam/core/finishes';
import type { LayerFilm } from '@steady-gleam/core/jobs';
import { useEffect, useRef, useState, type CSSProperties, type RefObject } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { useLibrary } from '../library';
import { useUnits } from '../units';
import { useLayerColours } from './useLayerColours';
import { callLayer, fillOf, filmFigures, isFlaked, sayLayer, sayWholeLayer } from './filmFigures';

export interface FilmStripProps {
  readonly layers: readonly StackLayer[];
  /** Looks the server has told. */
  readonly told?: ToldColours;
  /** What is on and what is planned, by layer; null for a stack that is only planned. */
  readonly film?: readonly LayerFilm[] | null;
  /** The mix whose layers carry the marigold of the pick. */
  readonly pickedMix: string | null;
  readonly height: number;
  readonly names: boolean;
  /** Makes each block a way to its layer. */
  readonly linkTo?: (layer: StackLayer) => string;
  readonly selected?: string | null;
  /** Of the width there is. */
  readonly ofWidth?: number;
}

/** One stack as a strip of blocks, its total at the end. */
export function FilmStrip(props: FilmStripProps) {
  const { layers, told, film = null, pickedMix, height, names, linkTo, selected, ofWidth = 1 } = props;
  const { tones } = useTheme();
  const units = useUnits();
  const { library } = useLibrary();
  const looks = useLayerColours(layers, told);
  const blocks = useRef<HTMLDivElement>(null);
  const width = useWidth(blocks);
  const { planned, share, totalUm, onUm } = filmFigures(layers, film);
  const total = units.say('film', totalUm);
  const built = onUm > 0 ? `${units.figure('film', onUm)} of ${total}` : total;
  const full = (l: StackLayer) => sayWholeLayer(l, library, units);
  const edge = (l: StackLayer) =>
    selected === l.id ? tones.ink : l.kind === 'effect' && l.materialId === pickedMix ? tones.pick : null;
  return (
    <div
      role={linkTo ? 'group' : 'img'}
      aria-label={`Film section: ${layers.map(full).join('; ')}; ${onUm > 0 ? `${built} on` : `total ${built}, planned`}`}
      style={{ display: 'flex', alignItems: 'flex-end', gap: 12, minWidth: 0, width: '100%' }}
    >
      <div
        ref={blocks}
        style={{ display: 'flex', flex: 1, minWidth: 0, paddingRight: ofWidth < 1 ? `${(1 - ofWidth) * 100}%` : 0 }}
      >
        {layers.map((l, i) => {
          const text = sayLayer(l, units);
          // A name stands where it fits over its block.
          const fits = (planned(l) / totalUm) * width > text.length * 6.4 + 14;
          const inner = (
            <>
              {names ? <span style={nameStyle(fits)}>{`${text} ${units.name('film')}`}</span> : null}
              <Block
                height={height}
                fill={fillOf(l, looks?.[i])}
                flaked={isFlaked(l, library)}
                share={share(l)}
                edge={edge(l)}
              />
            </>
          );
          const style = { ...BLOCK, flex: `${planned(l)} 1 0`, minWidth: names ? 14 : 6 };
          return linkTo ? (
            <Link
              key={l.id}
              to={linkTo(l)}
              aria-label={`Edit ${callLayer(l, library, units)}`}
              title={full(l)}
              style={style}
            >
              {inner}
            </Link>
          ) : (
            <div key={l.id} style={style}>
              {inner}
            </div>
          );
        })}
      </div>
      <span style={{ ...TOTAL, fontSize: height < 24 ? 13 : 15, lineHeight: `${height}px` }}>{built}</span>
    </div>
  );
}

const BLOCK = { color: 'inherit', textDecoration: 'none', outlineOffset: -3 } as const;
const TOTAL = { fontFamily: FIGURES, whiteSpace: 'nowrap' } as const;

const nameStyle = (fits: boolean): CSSProperties => ({
  ...{ display: 'block', fontFamily: '"Archivo Variable", sans-serif', fontStretch: '78%', fontSize: 13.5 },
  ...{ fontWeight: 500, whiteSpace: 'nowrap', marginBottom: 2 },
  ...(fits ? {} : { visibility: 'hidden', width: 0 }),
});

/** px an element has inside; 0 until it is laid out. */
function useWidth(element: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const observer = new ResizeObserver(() => setWidth(element.current?.clientWidth ?? 0));
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return width;
}

interface BlockProps {
  readonly height: number;
  readonly fill: string;
  readonly flaked: boolean;
  /** Of it that is on, 0..1; the rest is hatched. */
  readonly share: number;
  /** Colour of a frame around it. */
  readonly edge: string | null;
}

function Block({ height, fill, flaked, share, edge }: BlockProps) {
  return (
    <div style={{ height, position: 'relative', background: fill }}>
      <svg width="100%" height="100%" style={{ position: 'absolute', inset: 0 }} aria-hidden>
        <defs>
          <pattern id="grain" width="17" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(4)">
            <path d="M1 2h6M10 6h5M4 8h3" stroke="#fff" strokeOpacity=".6" strokeWidth="1" />
          </pattern>
          <pattern id="planned" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0v7" stroke="#000" strokeOpacity=".34" strokeWidth="1" />
          </pattern>
        </defs>
        {flaked ? <rect width="100%" height="100%" fill="url(#grain)" /> : null}
        <rect
          x={`${share * 100}%`}
          width={`${(1 - share) * 100}%`}
          height="100%"
          fill="url(#planned)"
          visibility={share < 1 ? 'visible' : 'hidden'}
        />
        {edge ? (
          <rect x="1.5" y="1.5" style={FRAME} height="calc(100% - 3px)" fill="none" stroke={edge} strokeWidth="3" />
        ) : null}
      </svg>
    </div>
  );
}

const FRAME = { width: 'calc(100% - 3px)' } as const;

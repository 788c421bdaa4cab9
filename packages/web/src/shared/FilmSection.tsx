import { Box, useTheme } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import {
  LAYER_NAMES,
  layerFilmUm,
  type PieceStack,
  type Recipe,
  stackFilmUm,
  type StackLayer,
} from '@steady-gleam/core/finishes';
import type { Job } from '@steady-gleam/contracts';
import { type LayerFilm, stacksOfPick } from '@steady-gleam/core/jobs';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useCompute } from '../worker/useCompute';
import { FIGURES } from '../app/theme';
import { useLibrary } from './library';
import { cssOf } from './screenColour';
import { sayCoats } from './jobModel';
import { useUnits, type Units } from './units';

const PLAIN_FILL = { primer: '#7c7a72', sealer: '#8d8c86', lock: '#cfcfcf', clear: '#d9d9d9' } as const;

/** A layer's block: grounds, effects and shaded sealers as they look, the rest by kind. */
const fillOf = (l: StackLayer, look: Lab | undefined): string =>
  l.kind === 'ground' || l.kind === 'effect' || (l.kind === 'sealer' && l.materialId)
    ? look
      ? cssOf(look)
      : '#9b9b9b'
    : PLAIN_FILL[l.kind];

/** The stacks of a job: as its painter set them, or as they follow from the pick. */
export function useStacks(job: Pick<Job, 'mixId' | 'stacks'>, pick: Recipe): readonly PieceStack[] {
  const { library } = useLibrary();
  return job.stacks ?? stacksOfPick(job.mixId, pick, library);
}

interface FilmSectionProps {
  readonly job: Pick<Job, 'id' | 'mixId' | 'stacks'>;
  readonly pick: Recipe;
  /** What is on and what is planned, by layer, as the job's log has it; null while nothing is picked. */
  readonly film: readonly LayerFilm[] | null;
  /** Nothing is picked yet: every block is a guess and hatched. */
  readonly planned: boolean;
  /** Small and without names, for a list. */
  readonly compact?: boolean;
}

/** The layers of a job from substrate to clear, as wide as their dry film; a stack below the other on a two-tone piece. */
export function FilmSection({ job, pick, film, planned, compact = false }: FilmSectionProps) {
  const stacks = useStacks(job, pick);
  // What is laid, tone by tone: of a stripe only its own, since what lies below and over all belongs to the base.
  const laid = film
    ? [...new Set(film.map((f) => f.finishId))].map((id) => ({
        id,
        layers: film.flatMap((f) => (f.finishId === id ? [f.layer] : [])),
      }))
    : stacks;
  const shown = compact ? laid.slice(0, 1) : laid;
  const builds = shown.map((s) => buildUm(s.layers, film));
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', width: '100%', minWidth: 0, gap: '2px' }}>
      {shown.map((stack, i) => (
        <FilmStrip
          key={stack.id}
          // A thin tone is drawn as thin as it is beside a thick one.
          share={builds[i]! / Math.max(...builds)}
          layers={stack.layers}
          film={film}
          pickedSystem={planned ? null : job.mixId}
          height={compact ? 22 : Math.floor(34 / shown.length)}
          names={!compact && shown.length === 1}
          {...(compact ? {} : { linkTo: (l: StackLayer) => `/jobs/${job.id}/layers?layer=${l.id}` })}
        />
      ))}
    </Box>
  );
}

/** Stacks as a picture for a file: blocks as wide as their dry film, named, totals at the end. */
export function filmImage(
  stacks: readonly PieceStack[],
  looks: readonly (readonly Lab[])[],
  title: string,
  units: Units,
): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  const [width, row, left, top] = [1600, 230, 40, 90];
  canvas.width = width;
  canvas.height = top + row * stacks.length;
  const ink = canvas.getContext('2d')!;
  ink.fillStyle = '#ababab';
  ink.fillRect(0, 0, canvas.width, canvas.height);
  ink.fillStyle = '#121212';
  ink.font = '600 34px "Archivo Variable", sans-serif';
  ink.fillText(title, left, 54);
  const most = Math.max(...stacks.map((s) => stackFilmUm(s.layers)));
  stacks.forEach((stack, i) => {
    let x = left;
    const y = top + i * row + 34;
    ink.font = '24px "Archivo Variable", sans-serif';
    stack.layers.forEach((l, j) => {
      const w = (layerFilmUm(l) / most) * (width - 260);
      ink.fillStyle = fillOf(l, looks[i]?.[j]);
      ink.fillRect(x, y, w + 1, 110);
      ink.fillStyle = '#121212';
      const text = `${l.kind} ${sayCoats(l.coats)}×${units.figure('film', layerFilmUm(l) / l.coats)}`;
      if (w > ink.measureText(text).width) ink.fillText(text, x, y - 8);
      x += w;
    });
    ink.font = '26px monospace';
    ink.fillText(units.say('film', stackFilmUm(stack.layers)), x + 16, y + 64);
    if (stacks.length > 1) ink.fillText(stack.name, left, y + 144);
  });
  return canvas;
}

/** Dry film of a stack, um: as it is planned of it, else of its layers. */
const buildUm = (layers: readonly StackLayer[], film: readonly LayerFilm[] | null): number =>
  layers.reduce((sum, l) => sum + (film?.find((f) => f.layer.id === l.id)?.plannedUm ?? layerFilmUm(l)), 0);

interface FilmStripProps {
  readonly layers: readonly StackLayer[];
  /** What is on and what is planned, by layer; null for a stack that is only planned. */
  readonly film?: readonly LayerFilm[] | null;
  /** The mix whose layers carry the marigold of the pick. */
  readonly pickedSystem: string | null;
  readonly height: number;
  readonly names: boolean;
  /** Makes each block a way to its layer. */
  readonly linkTo?: (layer: StackLayer) => string;
  readonly selected?: string | null;
  /** Of the width there is. */
  readonly share?: number;
}

/** One stack as a strip of blocks, its total at the end. */
export function FilmStrip({
  layers,
  film = null,
  pickedSystem,
  height,
  names,
  linkTo,
  selected,
  share: ofWidth = 1,
}: FilmStripProps) {
  const theme = useTheme();
  const units = useUnits();
  const { library } = useLibrary();
  const { value: looks } = useCompute(JSON.stringify(['layers', layers.map((l) => ({ ...l, id: '' }))]), (c) =>
    c.layerColours(layers),
  );
  const ofLayer = (l: StackLayer) => film?.find((f) => f.layer.id === l.id) ?? null;
  const planned = (l: StackLayer): number => ofLayer(l)?.plannedUm ?? layerFilmUm(l);
  /** Share of a layer that is on. */
  const share = (l: StackLayer): number => {
    const of = ofLayer(l);
    return of && of.plannedUm > 0 ? Math.min(1, of.onUm / of.plannedUm) : of && of.onUm > 0 ? 1 : 0;
  };
  const total = buildUm(layers, film);
  const on = layers.reduce((sum, l) => sum + (ofLayer(l)?.onUm ?? 0), 0);
  const built = on > 0 ? `${units.figure('film', on)} of ${units.say('film', total)}` : units.say('film', total);
  const blocks = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const observer = new ResizeObserver(() => setWidth(blocks.current?.clientWidth ?? 0));
    observer.observe(blocks.current!);
    return () => observer.disconnect();
  }, []);
  const fill = (l: StackLayer, i: number): string => fillOf(l, looks?.[i]);
  const flaked = (l: StackLayer): boolean =>
    (l.kind === 'effect' && !!library.systems.find((s) => s.id === l.materialId)?.flakes.length) ||
    (l.kind === 'ground' && !!library.grounds.find((g) => g.id === l.materialId)?.flakes);
  const short = (l: StackLayer) => (l.style === 'control' ? 'control' : l.kind === 'lock' ? 'lock' : l.kind);
  const um = (l: StackLayer) => units.figure('film', layerFilmUm(l) / l.coats);
  const text = (l: StackLayer) => `${short(l)} ${l.coats === 1 ? '' : `${sayCoats(l.coats)}×`}${um(l)}`;
  const full = (l: StackLayer) => {
    const material =
      library.grounds.find((g) => g.id === l.materialId)?.name ??
      library.systems.find((s) => s.id === l.materialId)?.name;
    const name = l.kind === 'sealer' ? `sealer${material ? `, shade of ${material.toLowerCase()}` : ''}` : material;
    return `${name ?? LAYER_NAMES[l.kind]}${l.style === 'control' ? ' control coat' : ''}, ${sayCoats(l.coats)} × ${um(l)} ${units.name('film')}`;
  };
  /** With the word that stands over its block, so that it is called by what is seen. */
  const called = (l: StackLayer) => (full(l).startsWith(short(l)) ? full(l) : `${short(l)} ${full(l)}`);
  const block = (l: StackLayer, i: number) => (
    <div style={{ height, position: 'relative', background: fill(l, i) }}>
      <svg width="100%" height="100%" style={{ position: 'absolute', inset: 0 }} aria-hidden>
        <defs>
          <pattern id="grain" width="17" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(4)">
            <path d="M1 2h6M10 6h5M4 8h3" stroke="#fff" strokeOpacity=".6" strokeWidth="1" />
          </pattern>
          <pattern id="planned" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0v7" stroke="#000" strokeOpacity=".34" strokeWidth="1" />
          </pattern>
        </defs>
        {flaked(l) ? <rect width="100%" height="100%" fill="url(#grain)" /> : null}
        <rect
          x={`${share(l) * 100}%`}
          width={`${(1 - share(l)) * 100}%`}
          height="100%"
          fill="url(#planned)"
          visibility={share(l) < 1 ? 'visible' : 'hidden'}
        />
        {(pickedSystem !== null && l.kind === 'effect' && l.materialId === pickedSystem) || selected === l.id ? (
          <rect
            x="1.5"
            y="1.5"
            width="calc(100% - 3px)"
            height="calc(100% - 3px)"
            fill="none"
            stroke={selected === l.id ? theme.tones.ink : theme.tones.pick}
            strokeWidth="3"
          />
        ) : null}
      </svg>
    </div>
  );
  const label = `Film section: ${layers.map(full).join('; ')}; ${on > 0 ? `${built} on` : `total ${built}, planned`}`;
  return (
    <div
      role={linkTo ? 'group' : 'img'}
      aria-label={label}
      style={{ display: 'flex', alignItems: 'flex-end', gap: 12, minWidth: 0, width: '100%' }}
    >
      <div
        ref={blocks}
        style={{ display: 'flex', flex: 1, minWidth: 0, paddingRight: ofWidth < 1 ? `${(1 - ofWidth) * 100}%` : 0 }}
      >
        {layers.map((l, i) => {
          const wide = planned(l);
          // A name stands where it fits over its block.
          const named = names && (wide / total) * width > text(l).length * 6.4 + 14;
          const inner = (
            <>
              {names ? (
                <span
                  style={{
                    display: 'block',
                    fontFamily: '"Archivo Variable", sans-serif',
                    fontStretch: '78%',
                    fontSize: 13.5,
                    fontWeight: 500,
                    whiteSpace: 'nowrap',
                    marginBottom: 2,
                    visibility: named ? 'visible' : 'hidden',
                    width: named ? undefined : 0,
                  }}
                >
                  {text(l)} {units.name('film')}
                </span>
              ) : null}
              {block(l, i)}
            </>
          );
          const style = {
            flex: `${wide} 1 0`,
            minWidth: names ? 14 : 6,
            color: 'inherit',
            textDecoration: 'none',
            outlineOffset: -3,
          };
          return linkTo ? (
            <Link key={l.id} to={linkTo(l)} aria-label={`Edit ${called(l)}`} title={full(l)} style={style}>
              {inner}
            </Link>
          ) : (
            <div key={l.id} style={style}>
              {inner}
            </div>
          );
        })}
      </div>
      <span
        style={{
          fontFamily: FIGURES,
          fontSize: height < 24 ? 13 : 15,
          whiteSpace: 'nowrap',
          lineHeight: `${height}px`,
        }}
      >
        {built}
      </span>
    </div>
  );
}

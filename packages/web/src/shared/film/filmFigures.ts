import type { Lab } from '@steady-gleam/core/colour';
import { LAYER_NAMES, layerFilmUm, type StackLayer } from '@steady-gleam/core/finishes';
import type { LayerFilm } from '@steady-gleam/core/jobs';
import type { Library } from '@steady-gleam/core/materials';
import { sayCoats } from '../jobModel';
import { cssOf } from '../screenColour';
import type { Units } from '../units';

const PLAIN_FILL = { primer: '#7c7a72', sealer: '#8d8c86', lock: '#cfcfcf', clear: '#d9d9d9' } as const;
/** A colour that is still being worked out. */
const UNKNOWN = '#9b9b9b';

/** A layer's block: grounds, effects and shaded sealers as they look, the rest by kind. */
export function fillOf(l: StackLayer, look: Lab | undefined): string {
  if (l.kind === 'ground' || l.kind === 'effect') return look ? cssOf(look) : UNKNOWN;
  if (l.kind === 'sealer' && l.materialId) return look ? cssOf(look) : UNKNOWN;
  return PLAIN_FILL[l.kind];
}

/** What a film section tells of its layers in figures. */
export interface FilmFigures {
  /** Dry film planned of a layer, um. */
  readonly planned: (l: StackLayer) => number;
  /** Share of a layer that is on, 0..1. */
  readonly share: (l: StackLayer) => number;
  readonly totalUm: number;
  readonly onUm: number;
}

/** @param film what is on and what is planned, by layer; null for a stack that is only planned */
export function filmFigures(layers: readonly StackLayer[], film: readonly LayerFilm[] | null): FilmFigures {
  const ofLayer = (l: StackLayer) => film?.find((f) => f.layer.id === l.id) ?? null;
  const planned = (l: StackLayer): number => ofLayer(l)?.plannedUm ?? layerFilmUm(l);
  return {
    planned,
    share: (l) => {
      const { onUm = 0, plannedUm = 0 } = ofLayer(l) ?? {};
      return plannedUm > 0 ? Math.min(1, onUm / plannedUm) : onUm > 0 ? 1 : 0;
    },
    totalUm: layers.reduce((sum, l) => sum + planned(l), 0),
    onUm: layers.reduce((sum, l) => sum + (ofLayer(l)?.onUm ?? 0), 0),
  };
}

/** The word over a layer's block. */
const short = (l: StackLayer): string => (l.style === 'control' ? 'control' : l.kind);

/** A layer as it stands over its block: "effect 3×9". */
export const sayLayer = (l: StackLayer, units: Units): string =>
  `${short(l)} ${l.coats === 1 ? '' : `${sayCoats(l.coats)}×`}${units.figure('film', layerFilmUm(l) / l.coats)}`;

/** A layer in full: "Lagoon pearl, 3 × 9 um". */
export function sayWholeLayer(l: StackLayer, { grounds, systems }: Library, units: Units): string {
  const material = [...grounds, ...systems].find((m) => m.id === l.materialId)?.name;
  const name = l.kind === 'sealer' ? `sealer${material ? `, shade of ${material.toLowerCase()}` : ''}` : material;
  const um = units.figure('film', layerFilmUm(l) / l.coats);
  return `${name ?? LAYER_NAMES[l.kind]}${l.style === 'control' ? ' control coat' : ''}, ${sayCoats(l.coats)} × ${um} ${units.name('film')}`;
}

/** The same with the word that stands over its block, so that it is called by what is seen. */
export function callLayer(l: StackLayer, library: Library, units: Units): string {
  const full = sayWholeLayer(l, library, units);
  return full.startsWith(short(l)) ? full : `${short(l)} ${full}`;
}

/** Flakes lie in a layer. */
export const isFlaked = (l: StackLayer, { grounds, systems }: Library): boolean =>
  (l.kind === 'effect' && !!systems.find((s) => s.id === l.materialId)?.flakes.length) ||
  (l.kind === 'ground' && !!grounds.find((g) => g.id === l.materialId)?.flakes);

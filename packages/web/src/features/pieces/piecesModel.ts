import { type Area, areasSchema, type JobObjectRow, objectsSchema } from '@steady-gleam/contracts';
import type { Measure } from '@steady-gleam/core/units';
import { numberIn } from '../../shared/numberIn';
import { checkWith, formPath, type Checked } from '../../shared/checkWith';

export type MeasureName = keyof Area['measures'];

/** The measures of each shape, in the order they are asked. */
export const SHAPES: Record<
  Area['shape'],
  { readonly name: string; readonly asks: readonly (readonly [MeasureName, string, Measure])[] }
> = {
  area: { name: 'Area', asks: [['area', 'Area', 'area']] },
  panel: {
    name: 'Panel',
    asks: [
      ['width', 'Width', 'length'],
      ['height', 'Height', 'length'],
    ],
  },
  cylinder: {
    name: 'Cylinder',
    asks: [
      ['diameter', 'Diameter', 'length'],
      ['height', 'Height', 'length'],
    ],
  },
  dome: {
    name: 'Dome',
    asks: [
      ['diameter', 'Diameter', 'length'],
      ['height', 'Height', 'length'],
    ],
  },
  tub: {
    name: 'Tub',
    asks: [
      ['top', 'Top', 'length'],
      ['bottom', 'Floor', 'length'],
      ['height', 'Height', 'length'],
    ],
  },
  tube: {
    name: 'Tube frame',
    asks: [
      ['diameter', 'Diameter', 'length'],
      ['length', 'Length', 'length'],
    ],
  },
};

/** An area as it is being typed: figures as text, so that nothing typed is lost. */
export interface TypedArea {
  readonly area: Area;
  readonly count: string;
  readonly measures: Partial<Record<MeasureName, string>>;
}

export interface TypedPieces {
  readonly objects: readonly JobObjectRow[];
  readonly areas: readonly TypedArea[];
}

export const typedOf = (area: Area): TypedArea => ({
  area,
  count: String(area.count),
  measures: Object.fromEntries(
    Object.entries(area.measures).flatMap(([k, v]) => (v === undefined ? [] : [[k, String(v)]])),
  ),
});

export const areaTyped = (t: TypedArea): Area => ({
  ...t.area,
  count: numberIn(t.count),
  measures: Object.fromEntries(SHAPES[t.area.shape].asks.map(([name]) => [name, numberIn(t.measures[name])])),
});

export const blankArea = (id: string, objectId: string, more: Partial<Area> = {}): TypedArea =>
  typedOf({
    id,
    name: '',
    shape: 'panel',
    measures: {},
    count: 1,
    x: null,
    y: null,
    mounting: 'object',
    first: false,
    objectId,
    finishId: null,
    on: null,
    clear: 'cleared',
    ...more,
  });

/** The pieces with an object more that is like another: the same areas, none placed yet. */
export function withLikeObject(pieces: TypedPieces, like: string, newId: () => string): TypedPieces {
  const id = newId();
  const of = pieces.objects.find((o) => o.id === like)!;
  const nth = pieces.objects.length + 1;
  const own = pieces.areas.filter((t) => t.area.objectId === like);
  const ids = new Map(own.map((t) => [t.area.id, newId()]));
  return {
    objects: [...pieces.objects, { id, name: `${of.name.replace(/ \d+$/, '')} ${nth}`.slice(0, 80), counts: [] }],
    areas: [
      ...pieces.areas,
      ...own.map((t) => ({
        ...t,
        area: {
          ...t.area,
          id: ids.get(t.area.id)!,
          name: `${t.area.name.replace(/ \d+$/, '')} ${nth}`.slice(0, 40),
          objectId: id,
          on: t.area.on === null ? null : (ids.get(t.area.on) ?? null),
          x: null,
          y: null,
        },
      })),
    ],
  };
}

/** What is kept of the pieces. */
export interface Pieces {
  readonly objects: JobObjectRow[];
  readonly areas: Area[];
}

/** What typed pieces come to. @param named whether a single object has a name of its own, not the piece's */
export function meantBy({ objects, areas }: TypedPieces, named: boolean): unknown {
  const called = <T extends { readonly name: string }>(o: T): T => ({ ...o, name: o.name.trim() });
  return [named || objects.length > 1 ? objects.map(called) : null, areas.map((t) => called(areaTyped(t)))];
}

/** What was typed as it is kept, or the sentences by field that stand in its way. */
export function checkedPieces(pieces: TypedPieces): Checked<Pieces> {
  const within = (name: string) => (path: string) => formPath(`${name}${path}`);
  const objects = checkWith(objectsSchema, pieces.objects, within('objects'));
  const areas = checkWith(areasSchema, pieces.areas.map(areaTyped), within('areas'));
  const bare = pieces.objects.flatMap((o, i): [string, string][] =>
    pieces.areas.some((t) => t.area.objectId === o.id)
      ? []
      : [[`objects.${i}.name`, `Nothing is sprayed on ${o.name || 'it'}: give it an area, or take it out.`]],
  );
  if (objects.ok && objects.value && areas.ok && areas.value && !bare.length)
    return { ok: true, value: { objects: objects.value, areas: areas.value } };
  const faults = [objects, areas].map((found) => (found.ok ? {} : found.faults));
  return { ok: false, faults: { ...Object.fromEntries(bare), ...faults[0], ...faults[1] } };
}

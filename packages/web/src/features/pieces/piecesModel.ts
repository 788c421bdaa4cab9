import { type Area, areasSchema, type JobObjectRow, objectsSchema } from '@steady-gleam/contracts';
import type { Measure } from '@steady-gleam/core/units';
import { ValidationError } from 'yup';
import { numberIn } from '../../shared/numberIn';

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

/** What was typed as it is kept, or the sentences by field that stand in its way. */
export function checkedPieces(
  pieces: TypedPieces,
):
  | { readonly ok: true; readonly objects: JobObjectRow[]; readonly areas: Area[] }
  | { readonly ok: false; readonly faults: Readonly<Record<string, string>> } {
  const faults: Record<string, string> = {};
  const check = <T>(prefix: string, run: () => T): T | null => {
    try {
      return run();
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      for (const e of error.inner.length ? error.inner : [error]) faults[`${prefix}${e.path ?? ''}`] ??= e.message;
      return null;
    }
  };
  const objects = check('objects', () => objectsSchema.validateSync(pieces.objects, { abortEarly: false }));
  const areas = check('areas', () => areasSchema.validateSync(pieces.areas.map(areaTyped), { abortEarly: false }));
  pieces.objects.forEach((o, i) => {
    if (!pieces.areas.some((t) => t.area.objectId === o.id))
      faults[`objects[${i}].name`] ??= `Nothing is sprayed on ${o.name || 'it'}: give it an area, or take it out.`;
  });
  return objects && areas && !Object.keys(faults).length
    ? { ok: true, objects: objects, areas: areas }
    : { ok: false, faults };
}

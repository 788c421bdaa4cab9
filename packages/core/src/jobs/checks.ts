import { type EyeView } from '../letdown/eyeWords';
import { type Way } from '../products/ways';
import type { CellRef } from './events';
import type { WorkKind } from './mendSteps';
import type { Cell, JobFinish, JobLayer, JobObject, SprayArea, SpraySettings } from './job';

/** A step that is not a coat: something to look at, to do, or to find a fault at. */
export type CheckKind =
  | 'prep'
  | 'shake'
  | 'hiding'
  | 'mist'
  | 'mount'
  | 'look'
  | 'close'
  | 'mask'
  | 'unmask'
  | 'tail'
  | 'lamp'
  | 'flat'
  | 'standing'
  | 'bake'
  | WorkKind;

export interface Check {
  readonly id: string;
  readonly kind: CheckKind;
  /** Null where it is of the whole job. */
  readonly objectId: string | null;
  readonly areaIds: readonly string[];
  /** Of a look: the layer that is looked at, and after how many of its coats. Null for the rest. */
  readonly layerId: string | null;
  readonly coats: number | null;
  /** What must be over before it. */
  readonly after: readonly CellRef[];
  readonly afterChecks: readonly string[];
  /** Its own clock, minutes from when it may begin; 0 for one that has none. */
  readonly minutes: number;
  /** How long it keeps the painter, minutes. */
  readonly takes: number;
  /** Of a mend: what there is to do, its place, and from where it is looked at when it is done. */
  readonly text?: string;
  readonly spot?: string;
  readonly views?: readonly EyeView[];
}

/** Minutes: standing before a bake, the bake itself. Common practice (no source); the sheet and the parts' limits rule. */
export const STANDING = 15;
export const BAKE_MINUTES = 30;
/** Minutes the painter is kept, ours. */
export const TAKES: Readonly<Record<CheckKind, number>> = {
  dry: 0,
  clean: 6,
  sand: 12,
  polish: 20,
  strip: 90,
  set: 3,
  tint: 4,
  prep: 0,
  shake: 3,
  hiding: 1,
  mist: 1,
  mount: 5,
  look: 2,
  close: 1,
  mask: 10,
  unmask: 4,
  tail: 1,
  lamp: 1,
  flat: 25,
  standing: 0,
  bake: 0,
};

type Phased = Cell & { readonly phase: number };

/** After how many effect coats it is looked at where nothing was said: one less than the count; null for a single coat. */
export const usualLook = (coats: number): number | null => (coats > 1 + 1e-9 ? Math.ceil(coats - 1e-9) - 1 : null);

/** The checks of a plan, and its cells with the checks that must be over before them. @param areas in the order they are sprayed */
export function checksOf(
  q: {
    readonly finishes: readonly JobFinish[];
    readonly objects: readonly JobObject[];
    readonly areas: readonly SprayArea[];
    readonly settings: Pick<SpraySettings, 'bake'>;
    /** Where it is laid from cans. */
    readonly way: Way | null;
  },
  cells: readonly Phased[],
  layers: readonly JobLayer[],
): { readonly cells: readonly Cell[]; readonly checks: readonly Check[] } {
  const checks: Check[] = [];
  const before = new Map<Phased, string[]>();
  const seqs = new Map(q.areas.map((a) => [a.id, cells.filter((c) => c.areaId === a.id)]));
  const of = (areaId: string): readonly Phased[] => seqs.get(areaId) ?? [];
  const ref = ({ coatId, areaId }: CellRef): CellRef => ({ coatId, areaId });
  /** Adds a check before each of the given cells, after what lies right under them. */
  const add = (
    kind: CheckKind,
    id: string,
    blocked: readonly Phased[],
    more: Partial<Check> & Pick<Check, 'objectId' | 'areaIds'>,
  ): void => {
    checks.push({
      id,
      kind,
      layerId: null,
      coats: null,
      after: blocked.flatMap((c) => c.under.map(ref)),
      afterChecks: [],
      minutes: 0,
      takes: TAKES[kind],
      ...more,
    });
    for (const c of blocked) before.set(c, [...(before.get(c) ?? []), id]);
  };
  const next = (c: Phased): Phased | undefined => of(c.areaId)[of(c.areaId).indexOf(c) + 1];

  const first = cells.filter((c) => !c.under.length);
  const everywhere = { objectId: null, areaIds: first.map((c) => c.areaId) };
  if (first.length) add('prep', 'prep', first, everywhere);
  if (first.length && q.way) add('shake', 'shake', first, { ...everywhere, afterChecks: ['prep'] });
  for (const object of q.objects) {
    const areas = q.areas.filter((a) => a.objectId === object.id);
    const here = { objectId: object.id };
    // After the last cell that fits on each area, before what follows it there.
    const behind = (fits: (c: Phased) => boolean, on = areas): Phased[] =>
      on.flatMap((a) => {
        const last = of(a.id).findLast(fits);
        const after = last && next(last);
        return after ? [after] : [];
      });
    const ids = (list: readonly Phased[]) => list.map((c) => c.areaId);
    const plain = areas.filter((a) => a.on === null);

    const hidden = behind((c) => c.coat.kind === 'ground', plain);
    if (hidden.length) add('hiding', `hiding/${object.id}`, hidden, { ...here, areaIds: ids(hidden) });

    const grips = behind((c) => c.coat.style === 'grip', plain);
    if (grips.length) add('mist', `mist/${object.id}`, grips, { ...here, areaIds: ids(grips) });

    const effects = (a: SprayArea) => of(a.id).filter((c) => c.coat.kind === 'effect');
    const loose = areas.filter((a) => a.loose).flatMap((a) => effects(a).slice(0, 1));
    if (loose.length) add('mount', `mount/${object.id}`, loose, { ...here, areaIds: ids(loose) });

    for (const finish of q.finishes) {
      const own = areas.filter((a) => a.finishId === finish.id);
      const counted = layers.filter((l) => l.finishId === finish.id && l.counted);
      const counts = own.map((a) => ({
        area: a,
        cells: of(a.id).filter((c) => c.coats > 0 && counted.some((l) => l.id === c.layerId)),
      }));
      const most = Math.max(0, ...counts.map((c) => c.cells.reduce((s, o) => s + o.coats, 0)));
      // What was said of the object counts; else the card's first stop; else one coat short of all.
      const ofObject = object.counts.find((c) => c.finishId === finish.id);
      const said = ofObject ? ofObject.lookAfter : (finish.firstStop ?? null);
      const after = said !== null ? Math.min(said, most) : usualLook(most);
      // After none: it is not looked at in between, as a card is not.
      if (after === null || after <= 0 || !counted.length || most === 0) continue;
      // Never a coat beyond it: what is on then is looked at before the coat that would pass it.
      let seen = 0;
      const blocked = counts.flatMap(({ cells: laid }): Phased[] => {
        let sum = 0;
        for (const [i, c] of laid.entries()) {
          sum += c.coats;
          if (sum + (laid[i + 1]?.coats ?? Infinity) <= after + 1e-9) continue;
          seen = Math.max(seen, sum);
          return next(c) ? [next(c)!] : [];
        }
        return [];
      });
      if (blocked.length)
        add('look', `look/${object.id}/${finish.id}`, blocked, {
          ...here,
          areaIds: ids(blocked),
          layerId: counted[0]!.id,
          coats: seen,
        });
    }

    const jambs = areas.filter((a) => a.first && of(a.id).length);
    // A stripe is under clear before the jambs have theirs.
    const lasts = plain.filter((a) => !a.first).flatMap((a) => of(a.id).slice(-1));
    if (jambs.length && lasts.length)
      add('close', `close/${object.id}`, lasts, {
        ...here,
        areaIds: jambs.map((a) => a.id),
        after: jambs.map((a) => ref(of(a.id).at(-1)!)),
      });

    for (const stripe of areas.filter((a) => a.on !== null)) {
      const own = of(stripe.id);
      if (!own.length) continue;
      add('mask', `mask/${stripe.id}`, own.slice(0, 1), { ...here, areaIds: [stripe.id] });
      const base = of(stripe.on!).find((c) => c.phase === 3);
      add('unmask', `unmask/${stripe.id}`, base ? [base] : [], {
        ...here,
        areaIds: [stripe.id],
        after: [ref(own.at(-1)!)],
      });
    }

    const tails = behind(
      (c) => c.phase < 3,
      areas.filter((a) => effects(a).some((c) => c.reach.kind === 'blend')),
    );
    if (tails.length) add('tail', `tail/${object.id}`, tails, { ...here, areaIds: ids(tails) });
    const clears = behind(
      (c) => c.phase < 3,
      plain.filter((a) => effects(a).length),
    );
    if (clears.length) add('lamp', `lamp/${object.id}`, clears, { ...here, areaIds: ids(clears) });

    // Flakes are buried, sanded flat, and cleared again.
    const flat = plain.flatMap((a) => {
      const clearLayers = [...new Set(of(a.id).flatMap((c) => (c.coat.kind === 'clear' ? [c.layerId] : [])))];
      const locked = layers.some(
        (l, i) => l.finishId === a.finishId && l.kind === 'effect' && layers[i + 1]?.kind === 'lock',
      );
      const second = clearLayers[1];
      const cell = locked && second ? of(a.id).find((c) => c.layerId === second) : undefined;
      return cell ? [cell] : [];
    });
    if (flat.length) add('flat', `flat/${object.id}`, flat, { ...here, areaIds: ids(flat) });
  }
  const ends = q.areas
    .flatMap((a) => of(a.id).slice(-1))
    .filter((c) => q.areas.find((a) => a.id === c.areaId)!.on === null);
  // What came from cans is not baked.
  if (q.settings.bake && !q.way && ends.length) {
    const all = { objectId: null, areaIds: ends.map((c) => c.areaId) };
    add('standing', 'standing', [], {
      ...all,
      after: ends.map(ref),
      minutes: Math.max(STANDING, ...ends.map((c) => c.flashMinutes)),
    });
    add('bake', 'bake', [], { ...all, afterChecks: ['standing'], minutes: BAKE_MINUTES });
  }
  return {
    cells: cells.map((c) => ({ ...c, checks: before.get(c) ?? [] })),
    checks,
  };
}

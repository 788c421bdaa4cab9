import type { FinishQuery, FinishSummary } from '@steady-gleam/contracts';
import { sharedAngles, type AngleLab, type NearestFinish } from '@steady-gleam/core/bank';
import type { Lab } from '@steady-gleam/core/colour';
import { andControl, FAMILIES, FAMILY_IDS, STYLES } from '@steady-gleam/core/finishes';
import { averageReadings, type Reading } from '@steady-gleam/core/formats';
import type { Library } from '@steady-gleam/core/materials';
import { countCoats } from '../../shared/jobModel';

const nameOf = (list: readonly { id: string; name: string }[], id: string | null): string =>
  list.find((m) => m.id === id)?.name ?? 'a material that is not here any more';

/** What makes a finish, in a clause: the mix, and what was picked for it. */
export function sayMade(
  f: Pick<FinishSummary, 'mixId' | 'pick'>,
  library: Pick<Library, 'systems' | 'grounds'>,
): string {
  if (f.mixId === null) return 'ground and clear only';
  const mix = nameOf(library.systems, f.mixId);
  if (!f.pick) return `${mix}, nothing picked yet`;
  const { coats, style, groundId, controlCoats, strength } = f.pick;
  const at = strength === 1 ? '' : ` at ${strength.toFixed(2)}×`;
  return `${countCoats(coats)} of ${mix}${at}, ${STYLES[style].name.toLowerCase()}${andControl(controlCoats)}, over ${nameOf(library.grounds, groundId).toLowerCase()}`;
}

/** How well a finish is known, in a clause. */
export function sayKnown(f: Pick<FinishSummary, 'targetAngles' | 'rungsRead' | 'proven'>): string {
  const proven = f.proven === 1 ? 'held on one finished job' : `held on ${f.proven} finished jobs`;
  const rungs = f.rungsRead === 1 ? 'one rung read' : `${f.rungsRead} rungs read`;
  const target = f.targetAngles === 1 ? 'target read at one angle' : `target read at ${f.targetAngles} angles`;
  const parts = [f.targetAngles ? target : null, f.rungsRead ? rungs : null, f.proven ? proven : null];
  return parts.filter((p) => p !== null).join(', ') || 'nothing read yet';
}

/** Ways to look for a finish. */
export const WAYS = ['words', 'reading', 'look'] as const;
export type Way = (typeof WAYS)[number];

/** What the address of the page asks the bank for; whatever it can't mean is left out. */
export function queryOf(params: URLSearchParams): Omit<FinishQuery, 'page'> & { readonly by: Way } {
  const family = FAMILY_IDS.find((f) => f === params.get('family')) ?? null;
  const sort = (['latest', 'name', 'proven'] as const).find((s) => s === params.get('sort')) ?? 'latest';
  return {
    words: (params.get('words') ?? '').slice(0, 120),
    ...{ family, sort, ids: [], proven: params.get('proven') === 'true' },
    by: WAYS.find((w) => w === params.get('by')) ?? 'words',
  };
}

/** Readings as the bank is asked for them: several spots are one. */
export const askedOf = (readings: readonly Reading[]): AngleLab[] =>
  averageReadings(readings).map(({ incidence, aspecular, lab }) => ({ incidence, aspecular, lab }));

/** Counts of a card, as they are said: 3 and 3.4, without noughts. */
export const sayRung = (coats: number): string => String(Number(coats.toFixed(1)));

/** How near a finish comes, for the answer of the page. */
export function sayNear(near: NearestFinish, name: string, of: number): string {
  const at = near.coats === null ? ', as it was matched' : `, rung ${sayRung(near.coats)}`;
  const angles = of === 1 ? 'there' : near.shared === of ? 'at every angle' : `at ${near.shared} of ${of} angles`;
  return `Nearest: ${name}${at}. Within ${near.max.toFixed(1)} dE00 ${angles}.`;
}

/**
 * What was asked, at the angles a finish has, in its order: so that both strips have the same places. Undefined where something else
 * is asked by now than the finish was found for.
 */
export function askedAt(asked: readonly AngleLab[], angles: readonly AngleLab[]): Lab[] | undefined {
  const labs = sharedAngles(angles, asked).map((g) => g.other);
  return labs.length === angles.length ? labs : undefined;
}

export const familyName = (family: FinishSummary['family']): string => (family ? FAMILIES[family].name : '');

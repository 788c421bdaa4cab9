import type { FinishSummary } from '@steady-gleam/contracts';
import { andControl, FAMILIES, STYLES } from '@steady-gleam/core/finishes';
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

/** Whether every word of what was typed stands in a finish's names, its match or its family. */
export function answersTo(f: FinishSummary, typed: string, library: Pick<Library, 'systems' | 'grounds'>): boolean {
  const text = [
    ...[f.name, f.code, f.matching, f.family ? FAMILIES[f.family].name : '', sayMade(f, library)],
    ...f.jobs.map((j) => j.piece),
  ]
    .join(' ')
    .toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

import { laidFilmUm, type LaidWith, type PieceStack, type StackLayerKind } from '@steady-gleam/core/finishes';
import { countCoats } from '../../shared/jobModel';
import type { Units } from '../../shared/units';

/** The sentence over the layers, and what follows from their build. */
export function sayBuild(
  stacks: readonly PieceStack[],
  limitUm: number,
  units: Pick<Units, 'say' | 'figure'>,
  laid: LaidWith,
): { answer: string; why: string } {
  const builds = stacks.map((s) => laidFilmUm(s.layers, laid));
  const most = Math.max(...builds);
  const thickest = stacks[builds.indexOf(most)]!;
  const coats = thickest.layers.reduce((sum, l) => sum + l.coats, 0);
  const who = stacks.length > 1 ? `The ${thickest.name}: ` : '';
  if (!coats)
    return { answer: 'Nothing is laid yet.', why: 'Add layers from substrate to clear, or start from a family.' };
  const over = most - limitUm;
  const thin = [
    ...(laid.grip && thickest.layers.some((l) => l.kind === 'effect') ? ['grip'] : []),
    ...(laid.tack && thickest.layers.some((l) => l.kind === 'clear') ? ['tack'] : []),
  ];
  const more = thin.length ? `, ${thin.join(' and ')} coat${thin.length > 1 ? 's' : ''} with them` : '';
  return {
    answer: `${who}${units.say('film', most)} in ${countCoats(coats)}${more}: ${over > 0 ? `${units.say('film', over)} over your limit` : `${units.say('film', -over)} under your limit`}.`,
    why:
      over > 0
        ? `A build over ${units.say('film', limitUm)} tends to crack and to print at edges. Take out a coat, lay lighter, or sand back before more clear.`
        : 'First sprayed on top of the list. Drag a layer by its handle, or press space on the handle and move it with the arrows.',
  };
}

const keyOf = (jobId: string) => `steady-gleam.layers.${jobId}`;

/** Layers changed but not kept yet survive leaving the page; a draft of an older version of the job is dropped. */
export function draftOf(jobId: string, version: number): readonly PieceStack[] | null {
  try {
    const found = JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? 'null') as {
      version: number;
      stacks: PieceStack[];
    } | null;
    return found?.version === version && Array.isArray(found.stacks) ? found.stacks : null;
  } catch {
    return null;
  }
}

export function keepDraft(jobId: string, version: number, stacks: readonly PieceStack[]): void {
  sessionStorage.setItem(keyOf(jobId), JSON.stringify({ version, stacks }));
}

export function forgetDraft(jobId: string): void {
  sessionStorage.removeItem(keyOf(jobId));
}

/** Whether two sets of stacks say the same, whatever order their fields come in. */
export function sameStacks(a: readonly PieceStack[], b: readonly PieceStack[]): boolean {
  const plain = (stacks: readonly PieceStack[]) =>
    JSON.stringify(
      stacks.map((s) => [
        s.id,
        s.name,
        s.layers.map((l) => [l.id, l.kind, l.materialId, l.coats, l.style, l.strength, l.filmUm]),
      ]),
    );
  return plain(a) === plain(b);
}

/** Kinds of layers in the order they are laid. */
export const LAYER_KINDS: readonly StackLayerKind[] = ['primer', 'sealer', 'ground', 'effect', 'lock', 'clear'];

import type { Job, JobDetail, JobSummary, ReadingSet } from '@steady-gleam/contracts';
import type { Done } from '@steady-gleam/core/jobs';
import type { Lab } from '@steady-gleam/core/colour';
import {
  andControl,
  countOf,
  countsControl,
  FAMILIES,
  familyTable,
  limitAt,
  startRecipe,
  withCount,
  type FinishFamily,
  type Recipe,
} from '@steady-gleam/core/finishes';
import { averageReadings } from '@steady-gleam/core/formats';
import type { RungReading } from '@steady-gleam/core/letdown';
import type { TargetAngle } from '@steady-gleam/core/matching';
import type { Library } from '@steady-gleam/core/materials';
import type { Mix } from '@steady-gleam/core/looks';

/** What a job matches, after its name: "matching tub 5", or that nothing has to be matched. */
export const sayMatching = ({ matching }: Pick<Job, 'matching'>): string =>
  matching ? `matching ${matching}` : 'a look of its own';

export const pickOf = (job: Pick<Job, 'pick' | 'family'>): Recipe => job.pick ?? startRecipe(job.family);

/** Coats that are picked, counted as the job's family counts them. */
export const pickedCount = (job: Job): number => countOf(job.family, pickOf(job));

export function mixOf(job: Job): Mix {
  const { strength, style, controlCoats } = pickOf(job);
  // Where control coats are counted they are on the axis, not on top of it.
  return { mixId: job.mixId, strength, style, controlCoats: countsControl(job.family) ? 0 : controlCoats };
}

/** A count as it is laid: "3 coats", or where control coats are counted "3 coats: 1 and 2 control coats". */
export function sayCount(family: FinishFamily, n: number): string {
  const { coats, controlCoats } = withCount(family, { coats: 0, controlCoats: 0 }, n);
  return controlCoats > 0 ? `${countCoats(n)}: ${sayCoats(coats)}${andControl(controlCoats)}` : countCoats(n);
}

/** What the limits of a job's match follow from: its own, its family's as the shop has them. */
export type Limited = Pick<JobDetail, 'familyLimits'> & { readonly job: Pick<Job, 'family' | 'limits'> };

/** Averaged target with its tolerances; empty when nothing was read. */
export function targetOf(
  set: Pick<ReadingSet, 'readings' | 'doubt'> | null,
  { job: { family, limits }, familyLimits }: Limited,
): TargetAngle[] {
  const usual = familyTable(FAMILIES[family].limits, familyLimits?.own ?? null);
  return set
    ? averageReadings(set.readings).map(({ incidence, aspecular, lab }) => ({
        incidence,
        aspecular,
        lab,
        // A photo's stated doubt widens what passes.
        tolerance: Math.hypot(limitAt(aspecular, usual, limits), set.doubt ?? 0),
      }))
    : [];
}

/** Rung readings in the order of the target's angles. */
export function rungReadingsOf(rungs: readonly ReadingSet[], target: readonly TargetAngle[]): RungReading[] {
  return rungs.map((set) => {
    const averaged = averageReadings(set.readings);
    return {
      coats: set.rungCoats ?? 0,
      labs: target.map(
        (t): Lab | null =>
          averaged.find((a) => a.incidence === t.incidence && a.aspecular === t.aspecular)?.lab ?? null,
      ),
    };
  });
}

export type PlaceId = 'target' | 'map' | 'card' | 'mix' | 'plan' | 'booth' | 'spray';

/** Where a job's next decision is, and what to do there. */
export interface NextStep {
  readonly place: PlaceId;
  readonly stands: string;
  readonly action: string;
  /** The step as the list of jobs leads with it, after the piece's name. */
  readonly lead: string;
}

type Standing = Pick<
  JobSummary,
  'status' | 'mixId' | 'pick' | 'stacks' | 'targetAngles' | 'rungsRead' | 'batches' | 'plan' | 'run'
>;

/** @param sayTime clock time of a moment, ms since 1970 */
export function nextStep(job: Standing, now: number, sayTime: (at: number) => string): NextStep {
  const step = stepOf(job, now, sayTime);
  return { lead: `is next: ${step.action.charAt(0).toLowerCase()}${step.action.slice(1)}`, ...step };
}

function stepOf(
  job: Standing,
  now: number,
  sayTime: (at: number) => string,
): Omit<NextStep, 'lead'> & { readonly lead?: string } {
  if (job.status === 'finished') return { place: 'card', stands: 'finished', action: 'Look at its card' };
  if (job.status === 'away') return { place: 'target', stands: 'put away', action: 'Look at it' };
  if (job.run && job.run.next === null)
    return { place: 'spray', stands: 'every coat is on', action: 'Look, then finish it' };
  if (job.run) {
    const { done, total, readyAt, closesAt, next, isCoat } = job.run;
    if (closesAt !== null && closesAt < now)
      return {
        place: 'booth',
        stands: `${done} of ${total} sprays on; too late for ${next} since ${sayTime(closesAt)}: scuff first`,
        action: 'Back to the booth',
        lead: `waits too long: the recoat window for ${next} closed at ${sayTime(closesAt)}; scuff first`,
      };
    const from = readyAt !== null && readyAt > now ? `from ${sayTime(readyAt)}` : 'now';
    const then = isCoat ? `${next} ${from}` : `next: ${next}${from === 'now' ? '' : ` ${from}`}`;
    return {
      place: 'booth',
      stands: `${done >= total ? 'every coat is on' : `${done} of ${total} sprays on`}; ${then}`,
      action: 'Back to the booth',
      lead: isCoat ? `is being sprayed: ${then}` : `waits for you: ${next}${from === 'now' ? '' : ` ${from}`}`,
    };
  }
  if (!isPicked(job))
    return job.targetAngles === 0
      ? { place: 'target', stands: 'nothing read yet', action: 'Read the target' }
      : { place: 'map', stands: `target read at ${angles(job.targetAngles)}`, action: 'Pick ground and coats' };
  const needsCard = laysMix(job);
  if (job.rungsRead === 0 && needsCard) return { place: 'card', stands: 'ground picked', action: 'Spray the card' };
  const read = !needsCard ? 'layers kept' : job.rungsRead === 1 ? '1 rung read' : `${job.rungsRead} rungs read`;
  if (job.batches === 0)
    return job.rungsRead === 1
      ? { place: 'card', stands: read, action: 'See what the card says' }
      : { place: 'mix', stands: read, action: 'Mix for it' };
  const mixed = job.batches === 1 ? '1 cup mixed' : `${job.batches} cups mixed`;
  return job.plan
    ? { place: 'booth', stands: `${mixed}, planned`, action: 'Into the booth' }
    : { place: 'plan', stands: mixed, action: 'Plan the spraying' };
}

/** What is laid, by name: the mixes of the layers, or their grounds where no mix is; before that what is in the cup. */
export function sayMix(job: Pick<Job, 'mixId' | 'stacks'>, library: Pick<Library, 'systems' | 'grounds'>): string {
  const layers = (job.stacks ?? []).flatMap((s) => s.layers);
  const nameOf = (list: readonly { id: string; name: string }[], id: string | null) =>
    list.find((m) => m.id === id)?.name ?? 'a material that is not here any more';
  const mixes = layers.flatMap((l) => (l.kind === 'effect' ? [nameOf(library.systems, l.materialId)] : []));
  const grounds = layers.flatMap((l) => (l.kind === 'ground' ? [nameOf(library.grounds, l.materialId)] : []));
  const laid = [...new Set(mixes.length ? mixes : grounds)];
  return laid.length ? laid.join(', ') : nameOf(library.systems, job.mixId);
}

/** Whether it is known what is laid: picked on the map, or said in the layers. */
export const isPicked = (job: Pick<Job, 'pick' | 'stacks'>): boolean => job.pick !== null || job.stacks !== null;

/** Whether the layers lay the job's mix at all: a solid or a metallic by itself needs no card of it. */
const laysMix = (job: Pick<Job, 'mixId' | 'stacks'>): boolean =>
  !job.stacks || job.stacks.some((s) => s.layers.some((l) => l.kind === 'effect' && l.materialId === job.mixId));

/** What was done when a job was finished, in a sentence: counts by object, and when. @param say its moment */
export function sayDone(done: Done, say: (at: number) => string): string {
  const counts = done.counts.filter((c) => c.coats > 0);
  const several = counts.length > 1;
  const laid = counts.map((c) => `${countCoats(c.coats)}${several ? ` on ${c.name}` : ''}`).join(', ');
  return `Finished ${say(new Date(done.at).getTime())}: ${laid ? `${laid} of the effect` : 'no effect coat'}, ${done.sprays} of ${done.planned} sprays on.`;
}

/** What is still open on a job, a clause each, for the question before it is finished. */
export function openPoints(
  job: Pick<JobSummary, 'mixId' | 'pick' | 'stacks' | 'rungsRead' | 'batches' | 'run'>,
): string[] {
  if (!isPicked(job)) return ['no ground and count are picked'];
  const points: string[] = [];
  if (job.rungsRead === 0 && laysMix(job)) points.push('no rung of a card is read');
  if (job.batches === 0) points.push('nothing was mixed');
  if (!job.run) points.push('nothing was sprayed in the booth');
  if (job.run && job.run.done < job.run.total) points.push(`${job.run.done} of ${job.run.total} sprays are on`);
  if (job.run?.unseen && laysMix(job)) points.push(job.run.unseen);
  return points;
}

const angles = (n: number) => (n === 1 ? 'one angle' : `${n} angles`);

/** Coat counts as they are said in a shop: 2½, not 2.5, and ¼ for a mist coat; other fractions in decimals. */
export function sayCoats(n: number): string {
  const whole = Math.floor(n + 1e-9);
  const rest = n - whole;
  if (Math.abs(rest) < 1e-6) return String(whole);
  const part = ({ 0.25: '¼', 0.5: '½', 0.75: '¾' } as Record<number, string>)[Number(rest.toFixed(6))];
  if (part) return whole === 0 ? part : `${whole}${part}`;
  return n.toFixed(1);
}

export function countCoats(n: number): string {
  return `${sayCoats(n)} ${n <= 1 ? 'coat' : 'coats'}`;
}

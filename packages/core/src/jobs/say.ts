import { FAMILIES } from '../finishes/families';
import { sayCoat } from '../spraying/coatPlan';
import { type Check } from './checks';
import { sayCheck } from './sayCheck';
import { ENOUGH, LET_DOWN, type JobEvent } from './events';
import type { Cell } from './job';
import { sayList } from './list';
import type { Reach } from './reach';
import type { JobPlan } from './planTypes';
import type { JobState, Step } from './stateTypes';

interface Named {
  readonly id: string;
  readonly name: string;
}

/** What of a plan is said by its names. */
export interface PlanNames {
  readonly areas: readonly Named[];
  readonly objects: readonly Named[];
}

/** Areas by name; four and more as their number. */
export function sayAreas(plan: Pick<PlanNames, 'areas'>, ids: readonly string[]): string {
  const names = [...new Set(ids)].flatMap((id) => plan.areas.find((a) => a.id === id)?.name ?? []);
  return names.length > 3 ? `${names.length} areas` : sayList(names);
}

/** A check of a plan: its heading, and what there is to do. */
export function sayCheckOf(
  plan: PlanNames & Partial<Pick<JobPlan, 'finishes'>>,
  check: Check,
): { readonly title: string; readonly text: string } {
  const object = plan.objects.find((o) => o.id === check.objectId)?.name ?? 'the job';
  const families = (plan.finishes ?? []).flatMap((f) => (f.family ? [FAMILIES[f.family]] : []));
  return sayCheck(check, object, sayAreas(plan, check.areaIds), [...new Set(families.map((f) => f.prep))]);
}

export const sayCell = (plan: Pick<PlanNames, 'areas'>, cell: Cell): string =>
  `${sayCoat(cell.coat)} on ${sayAreas(plan, [cell.areaId])}`;

/** A step as the list of jobs says it. */
export function sayStep(plan: PlanNames, step: Step): string {
  if (step.is === 'cell') return sayCell(plan, step.state.cell);
  const { title } = sayCheckOf(plan, step.state.check);
  return step.state.is === 'fault' ? `a fault at: ${title}` : title;
}

/** How far a coat goes, said to the one who lays it; empty where it goes all over. Units by the caller. */
export function sayReach(
  reach: Reach,
  say: { readonly area: (m2: number) => string; readonly distance: (cm: number) => string },
): string {
  switch (reach.kind) {
    case 'all':
      return '';
    case 'none':
      return 'not here';
    case 'spot':
      return `only the spot, ${say.area(reach.m2)}`;
    case 'fan':
      return `on ${reach.from} only: whole for ${say.distance(reach.acrossCm)} across, fading over ${say.distance(reach.fadeCm)} all round; overspray away from what is right`;
    case 'blend':
      return `ends ${say.distance(reach.endCm)}${reach.from ? ` from ${reach.from}` : ' in'}, fading over the last ${say.distance(reach.fadeCm)}: turn the gun towards the repair`;
  }
}

/** How much is on, in the one sentence that every page, paper and list has of it. */
export function sayOn(state: Pick<JobState, 'done' | 'total' | 'strays'>): string {
  const off = state.strays.length
    ? `, and ${state.strays.length === 1 ? 'one' : state.strays.length} that left the plan`
    : '';
  return `${state.done} of ${state.total} sprays on${off}.`;
}

/** An event of the history in words; empty for one that says nothing by itself, as a check that was passed. */
export function sayEvent(plan: PlanNames & Pick<JobPlan, 'checks'>, e: JobEvent): string {
  const where = e.cells.length
    ? ` (${sayAreas(
        plan,
        e.cells.map((c) => c.areaId),
      )})`
    : '';
  const check = plan.checks.find((c) => c.id === e.checkId);
  const at = check ? sayCheckOf(plan, check).title : '';
  switch (e.kind) {
    case 'note':
      return `note${where}: ${e.text}`;
    case 'photo':
      return `photo${where}`;
    case 'fault':
      return `fault${at ? ` at “${at}”` : where}: ${e.text}`;
    case 'skip':
      return e.checkId !== null
        ? `left out “${at}”: ${e.text}`
        : e.text === ENOUGH
          ? `enough${where}`
          : `left out${where}: ${e.text}`;
    case 'extra':
      return `${saidCoats(e)} more${where}`;
    case 'mend':
      return e.mend ? `mended${where}, ${e.mend.spot || 'all over'}, ${e.mend.off}: ${e.text}` : '';
    case 'look':
      return e.look
        ? `${e.look.spot || 'all over'}${e.look.against ? ` against ${e.look.against}` : ''}${
            e.coats === null ? '' : ` at ${Number(e.coats.toFixed(2))} coats`
          }, ${
            e.look.patch !== null
              ? `patch as at ${e.look.patch} of the card`
              : `${e.look.view}: ${e.look.verdict ?? (e.look.photos?.length ? 'two photos' : 'taken back')}${e.look.hue ? `, ${e.look.hue}` : ''}`
          }`
        : '';
    default:
      return '';
  }
}

/** A coat more in words, as it is laid. */
function saidCoats({ coats, text }: Pick<JobEvent, 'coats' | 'text'>): string {
  const laid = (coats ?? 1) * (text === LET_DOWN ? 2 : 1);
  const said =
    laid === 1 ? 'one coat' : laid === 0.75 ? 'three quarters of a coat' : laid === 0.5 ? 'half a coat' : 'a mist coat';
  return text === LET_DOWN ? `${said} of the mix let down 1:1` : said;
}

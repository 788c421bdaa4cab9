import { waitBetween } from '../jobs/laid';
import { type JobPlan } from '../jobs/planTypes';
import { SCUFFED, type JobEvent } from '../jobs/events';
import type { JobState } from '../jobs/stateTypes';
import type { SetUpDifference } from '../spraying/setUp';
import { sayCoat } from '../spraying/coatPlan';
import type { CauseId, Fault } from './table';

/** What of a job's own record can speak for a cause. */
export interface FaultRecord {
  readonly plan: JobPlan;
  readonly state: JobState;
  readonly events: readonly JobEvent[];
  readonly temperatureC: number;
  /** Relative, fraction. */
  readonly humidity: number;
  /** Air was moved over drying film. */
  readonly blown: boolean;
  /** Build not to be passed, um. */
  readonly limitUm: number;
  /** Where the plan is laid otherwise than its card. */
  readonly differences: readonly SetUpDifference[];
  /** Reducers and hardeners in a cup that are made for less warmth than there is, by name. */
  readonly tooFast: readonly string[];
  /** Full coats in which the ground of a layer hides; null for what is none. */
  readonly hidesIn: (layerId: string) => number | null;
}

/** Something the record says about a cause: how much likelier it makes it, and why. */
export interface Evidence {
  readonly cause: CauseId;
  /** Likelihood of the record under this cause against under the others; ours. */
  readonly times: number;
  /** The reason, a clause; empty where it speaks against it. */
  readonly why: string;
}

export interface RankedCause {
  readonly id: CauseId;
  /** Of all causes of the fault, 0..1. */
  readonly chance: number;
  readonly why: readonly string[];
}

/** Flash that is enough for all a clock can say, as a share of what is needed; ours. */
const ENOUGH_FLASH = 0.8;
/** Distance or pressure off the card's by more than this share speaks; ours. */
const OFF = 0.12;
/** A coat heavier than the card's by more than this share speaks; ours. */
const HEAVY = 1.15;
/** Overlap of a translucent coat below which passes show; common practice (no source). */
const LEAST_OVERLAP = 0.7;
/** Booth colder than this is cold, C; air damper than this is damp. Common practice (no source). */
const [COLD_C, DAMP] = [15, 0.8] as const;
/** Share of a flash for which a film takes overspray in; as the plan has it. */
const OPEN_SHARE = 0.7;

const minutes = (ms: number): string => `${Math.round(ms / 60_000)} min`;

/** Waits that were taken between coats that lie on one another. */
function waitsTaken({ plan, state }: Pick<FaultRecord, 'plan' | 'state'>) {
  const by = new Map(state.cells.map((s) => [JSON.stringify([s.cell.coatId, s.cell.areaId]), s]));
  return state.cells.flatMap((s) =>
    s.sprayedAt === null
      ? []
      : s.under.flatMap((u) => {
          const below = by.get(JSON.stringify([u.coatId, u.areaId]));
          if (!below || below.sprayedAt === null) return [];
          return [
            {
              above: s,
              below,
              took: s.sprayedAt! - below.sprayedAt,
              needed: waitBetween(plan, below.cell, s.cell) * 60_000,
            },
          ];
        }),
  );
}

/** Everything a job's record says for and against the causes of faults. */
export function evidenceOf(record: FaultRecord): Evidence[] {
  const { plan, state, events } = record;
  const found: Evidence[] = [];
  const say = (cause: CauseId, times: number, why: string) => found.push({ cause, times, why });
  const waits = waitsTaken(record);

  const early = waits.filter((w) => !w.below.isDull && w.took < ENOUGH_FLASH * w.needed);
  const worst = early.reduce<(typeof early)[number] | null>(
    (a, w) => (!a || w.took / w.needed < a.took / a.needed ? w : a),
    null,
  );
  if (worst)
    say(
      'wet-below',
      10,
      `${sayCoat(worst.above.cell.coat)} went on ${minutes(worst.took)} after ${sayCoat(worst.below.cell.coat)}, which needed ${minutes(worst.needed)}`,
    );
  else if (waits.length) say('wet-below', 0.35, '');

  const scuffed = new Set(
    events
      .filter((e) => e.kind === 'sprayed' && e.text === SCUFFED)
      .flatMap((e) => e.cells.map((c) => JSON.stringify([c.coatId, c.areaId]))),
  );
  // What was sanded for it has a tooth of its own.
  const sands = new Set(
    state.checks.flatMap((c) => (c.check.kind === 'sand' && c.is === 'passed' ? [c.check.id] : [])),
  );
  const late = waits.find((w) => {
    if (w.above.cell.checks.some((id) => sands.has(id))) return false;
    const window = w.below.cell.coat.recoatMinutes;
    const key = JSON.stringify([w.above.cell.coatId, w.above.cell.areaId]);
    return window !== null && w.took > window * 60_000 && !scuffed.has(key);
  });
  if (late)
    say(
      'window-passed',
      10,
      `${sayCoat(late.above.cell.coat)} went on ${minutes(late.took)} after ${sayCoat(late.below.cell.coat)}, whose window closed after ${late.below.cell.coat.recoatMinutes} min`,
    );
  else if (waits.length) say('window-passed', 0.5, '');

  const check = (kind: string) => state.checks.filter((c) => c.check.kind === kind);
  for (const c of check('standing')) {
    if (c.is === 'skipped') say('short-standing', 8, `standing before heat was left out: ${c.reason}`);
    else if (c.is === 'passed' && c.at !== null && c.readyAt !== null && c.at < c.readyAt - 60_000)
      say('short-standing', 8, `heat came ${minutes(c.readyAt - c.at)} before it had stood long enough`);
    else if (c.is === 'passed') say('short-standing', 0.5, '');
  }
  for (const c of check('prep'))
    if (c.is === 'skipped')
      for (const cause of ['grease', 'no-tack', 'coarse-prep', 'no-tooth'] as const)
        say(cause, 4, `making it ready was left out: ${c.reason}`);
  for (const c of check('hiding'))
    if (c.is === 'skipped') say('thin-ground', 3, `the ground was not looked at with lights off: ${c.reason}`);

  for (const area of state.areas)
    for (const layer of area.layers) {
      const hides = record.hidesIn(layer.layerId);
      if (hides !== null && layer.coats > 0 && layer.coats < hides - 0.25)
        say('thin-ground', 9, `${layer.coats} coats of ground are on where ${hides} hide`);
    }

  for (const d of record.differences) {
    if (typeof d.card !== 'number' || typeof d.plan !== 'number' || d.card <= 0) continue;
    const ratio = d.plan / d.card;
    if (d.what === 'distanceCm' && ratio < 1 - OFF)
      say('too-close', 8, `laid from ${d.plan} cm, the card from ${d.card} cm`);
    if (d.what === 'distanceCm' && ratio > 1 + OFF)
      say('too-far', 8, `laid from ${d.plan} cm, the card from ${d.card} cm`);
    if (d.what === 'pressureBar' && ratio < 1 - OFF)
      say('low-pressure', 8, `laid with ${d.plan} bar, the card with ${d.card} bar`);
    if (d.what === 'turns' && ratio > 1 + OFF)
      say('too-heavy', 7, `the needle stood ${d.plan} turns open, at the card ${d.card}`);
    if (d.lays !== null && d.lays > HEAVY)
      say('too-heavy', 3, `a coat laid ${Math.round((d.lays - 1) * 100)} % more than at the card`);
  }
  const pitch = plan.cells.find((c) => c.coat.kind === 'effect' && c.coat.overlap < LEAST_OVERLAP);
  if (pitch) say('uneven-pitch', 6, `effect coats were laid with ${Math.round(pitch.coat.overlap * 100)} % of overlap`);

  for (const name of record.tooFast) say('fast-reducer', 9, `${name} is made for less than ${record.temperatureC} °C`);
  if (record.temperatureC < COLD_C) say('cold', 8, `the booth had ${record.temperatureC} °C`);
  if (record.humidity > DAMP) say('damp', 8, `the air was ${Math.round(record.humidity * 100)} % damp`);
  if (record.blown && plan.cells.some((c) => c.coat.chemistry === 'two-pack'))
    say('blown', 6, 'air was moved over drying film');
  const build = Math.max(0, ...state.areas.map((a) => a.filmUm));
  if (build > record.limitUm) say('thick-build', 9, `${Math.round(build)} µm are on, more than ${record.limitUm} µm`);

  for (const area of plan.areas) {
    const own = plan.cells.filter((c) => c.areaId === area.id && c.reach.kind === 'blend');
    const past = own.find((c, i) =>
      own
        .slice(i + 1)
        .some(
          (o) =>
            c.reach.kind === 'blend' &&
            o.reach.kind === 'blend' &&
            c.layerId !== o.layerId &&
            c.reach.endCm > o.reach.endCm,
        ),
    );
    if (past) say('reach', 9, `${sayCoat(past.coat)} on ${area.name} reaches past what lies over it`);
  }
  const round = new Map<string, number[]>();
  for (const s of state.cells)
    if (s.sprayedAt !== null) round.set(s.cell.round, [...(round.get(s.cell.round) ?? []), s.sprayedAt]);
  for (const [key, times] of round) {
    const cell = state.cells.find((s) => s.cell.round === key)!.cell;
    const spread = Math.max(...times) - Math.min(...times);
    if (times.length > 1 && spread > OPEN_SHARE * cell.flashMinutes * 60_000)
      say(
        'dry-overspray',
        7,
        `${sayCoat(cell.coat)} took ${minutes(spread)} over all areas, longer than its film stays open`,
      );
  }
  return found;
}

/** Causes of a fault, the likeliest first: how often it is each, times what the job's own record says. */
export function rankCauses(fault: Fault, evidence: readonly Evidence[] = []): RankedCause[] {
  const rated = fault.causes.map(({ id, prior }) => {
    const own = evidence.filter((e) => e.cause === id);
    // What says the same twice counts once: the strongest for it, the strongest against it.
    const most = Math.max(1, ...own.map((e) => e.times));
    const least = Math.min(1, ...own.map((e) => e.times));
    return { id, weight: prior * (most > 1 ? most : least), why: own.filter((e) => e.why).map((e) => e.why) };
  });
  const all = rated.reduce((sum, r) => sum + r.weight, 0);
  return rated.map(({ id, weight, why }) => ({ id, chance: weight / all, why })).sort((a, b) => b.chance - a.chance);
}

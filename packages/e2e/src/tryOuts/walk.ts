import type { BodyOf, Endpoint, JobDetail, ReadingSet, ReplyOf } from '@steady-gleam/contracts';
import {
  cardsApi,
  gunsApi,
  jobsApi,
  logApi,
  pathOf,
  readingsApi,
  tryOutApi,
  type HeldAsk,
} from '@steady-gleam/contracts';
import { FAMILIES, limitAt, STYLES, type FinishFamily } from '@steady-gleam/core/finishes';
import { D65_10 } from '@steady-gleam/core/colour';
import { averageReadings, spotLabsOf, spotsOf } from '@steady-gleam/core/formats';
import {
  effectOn,
  enoughTold,
  eventOf,
  extraTold,
  jobState,
  laidOf,
  looksOf,
  seenOf,
  workOfCard,
  workOfJob,
  type JobEvent,
  type Told,
} from '@steady-gleam/core/jobs';
import { adviseFirst, answerCard, liveAdvice, liveState, noiseOf, noiseOfSpots } from '@steady-gleam/core/letdown';
import { createSearch, type TargetAngle } from '@steady-gleam/core/matching';
import { findGround, findMix, REFERENCE_LIBRARY, type PreparedLibrary } from '@steady-gleam/core/materials';
import type { Schema } from 'yup';

/** A server, asked by the contract. */
export function asking(address: string) {
  return async <E extends Endpoint<Schema | null, Schema>>(
    e: E,
    { params = {}, body }: { params?: Record<string, string>; body?: BodyOf<E> } = {},
  ): Promise<ReplyOf<E>> => {
    const query = e.method === 'GET' && body ? `?${new URLSearchParams(body)}` : '';
    const reply = await fetch(`${address}${pathOf(e.path, params)}${query}`, {
      method: e.method,
      headers: { 'Content-Type': 'application/json' },
      ...(e.method === 'GET' || body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const said = (await reply.json()) as ReplyOf<E> & { message?: string };
    if (!reply.ok) throw new Error(`${e.method} ${e.path}: ${reply.status} ${said.message ?? ''}`);
    return said;
  };
}

type Ask = ReturnType<typeof asking>;

/** How a walked try-out ended. */
export interface Walked {
  readonly id: string;
  readonly seed: number;
  readonly family: FinishFamily;
  /** Whether what was picked can reach what is matched at all. */
  readonly reachable: boolean;
  /** Width of the true window against the best film. */
  readonly width: number;
  readonly end: string;
  readonly nominal: string;
  readonly looks: number;
  /** Largest dE00 over the angles at the end. */
  readonly worst: number;
}

const MOST_LOOKS = 4;

/**
 * Walks a try-out from its begin to the lifted curtain by the program's own advice: nothing is read by eye, no figure is typed.
 * @param state wet looks of three spots, or dry ones of nine
 */
export async function walkTryOut(
  ask: Ask,
  shop: PreparedLibrary,
  { seed, family, state }: { seed: number; family: FinishFamily; state: 'wet' | 'cleared' },
): Promise<Walked> {
  const id = crypto.randomUUID();
  const params = { id };
  const job = await ask(tryOutApi.begin, { body: { id, family, seed } });
  const finish = { id: job.finishId };

  /** Holds the instrument somewhere until it has read, and keeps the reading. */
  const read = async (held: Partial<HeldAsk> & Pick<HeldAsk, 'on'>): Promise<ReadingSet> => {
    for (let tries = 0; tries < 6; tries++) {
      const body = { label: '', coats: null, state: 'cleared' as const, objectId: null, areaIds: [], ...held };
      const said = await ask(tryOutApi.read, { params, body });
      if (said.is === 'wants white') await ask(tryOutApi.white, { params });
      if (said.is !== 'read') continue;
      const set = {
        ...{ id: crypto.randomUUID(), source: 'simulated' as const, doubt: null, takenAt: new Date().toISOString() },
        ...{ kind: held.on, rungCoats: body.coats, label: body.label, objectId: null, state: body.state },
        readings: said.readings,
      };
      return held.on === 'spot'
        ? ask(readingsApi.addToJob, { params, body: set })
        : ask(readingsApi.addToFinish, { params: finish, body: set });
    }
    throw new Error('The instrument never read.');
  };

  const target = await read({ on: 'target' });
  const angles: TargetAngle[] = averageReadings(target.readings).map(({ incidence, aspecular, lab }) => ({
    ...{ incidence, aspecular, lab },
    tolerance: limitAt(aspecular, FAMILIES[family].limits, null),
  }));
  const pick = pickFor(shop, family, job.mixId, angles);
  await ask(jobsApi.change, { params, body: { version: job.version, pick } });

  const [gun] = await ask(gunsApi.list);
  await ask(cardsApi.put, {
    params: finish,
    body: {
      ...{ id: crypto.randomUUID(), version: 0, rungs: [1, 2, 3, 4], gun: gun!.gun.name, gunId: gun!.gun.id },
      ...{ pressureBar: gun!.gun.pressureBar, onStand: true },
      settings: {
        ...{ sealer: '', groundCoats: '', reducer: '', distanceCm: null, tipMm: null, overlap: null, turns: null },
        ...{ temperatureC: null, patches: false, sameInstrument: true, eyeLittle: 1, eyeClear: 3 },
      },
    },
  });
  let at = Date.now();
  const told = (events: readonly Told[]): JobEvent[] =>
    events.map((e) => eventOf({ id: crypto.randomUUID(), at: (at += 1000), ...e }));

  let detail = await ask(jobsApi.read, { params });
  const input = (d: JobDetail) => ({ ...d, library: REFERENCE_LIBRARY, products: [], guns: [gun!.gun] });
  const run = workOfCard(input(detail))!;
  const ofCard = told(run.plan.cells.map((c) => ({ kind: 'sprayed', cells: [laidOf(c)] })));
  await ask(logApi.addCardEvents, { params: finish, body: { events: ofCard } });
  for (const coats of [0, 1, 2, 3, 4]) await read({ on: 'rung', coats });
  detail = await ask(jobsApi.read, { params });

  // What the card says, as its page asks it.
  const labsOf = (set: ReadingSet) => averageReadings(set.readings).map((a) => a.lab);
  const spots = [target, ...detail.rungs].map((s) => spotLabsOf(s.readings));
  const noise = noiseOf(
    noiseOfSpots(spots),
    angles.map((a) => a.lab[0]),
  );
  const rungs = detail.rungs.filter((r) => r.rungCoats! > 0).map((r) => ({ coats: r.rungCoats!, labs: labsOf(r) }));
  const ladder = {
    model: shop.model(angles),
    ground: shop.ground(findGround(pick.groundId)),
    recipe: { coat: shop.coat(findMix(job.mixId), pick.strength), style: STYLES[pick.style] },
    viewing: D65_10,
  };
  const answer = answerCard(ladder, {
    target: { angles, spots: spotsOf(target.readings), sameInstrument: true, noise },
    ...{ bare: labsOf(detail.rungs[0]!), rungs, verdicts: [], handHeld: false, believed: {} },
  })!;

  const work = workOfJob(input(detail))!;
  const events: JobEvent[] = [];
  const tell = async (...more: Told[]) => {
    const fresh = told(more);
    events.push(...fresh);
    await ask(logApi.addEvents, { params, body: { events: fresh } });
  };
  const object = work.plan.objects[0]!.id;
  const on = () => effectOn(work.plan, jobState(work.plan, events), job.mixId, object);
  const { layerIds, areaIds } = on();
  for (;;) {
    const { next } = jobState(work.plan, events);
    if (!next) throw new Error('The plan lays no effect.');
    if (next.is === 'check') await tell({ kind: 'check', checkId: next.state.check.id });
    else if (layerIds.includes(next.state.cell.layerId)) break;
    else await tell({ kind: 'sprayed', cells: [laidOf(next.state.cell)] });
  }
  const lay = async (coats: number) =>
    tell(...extraTold(jobState(work.plan, events), layerIds, areaIds, coats, true, () => crypto.randomUUID()));
  await tell(...enoughTold(jobState(work.plan, events), layerIds, areaIds, 'as the card says'));
  await lay(adviseFirst(answer.card).spray);
  let looks = 0;
  for (; looks < MOST_LOOKS; looks++) {
    await read({ on: 'spot', label: 'all over', coats: on().most, state });
    const now = jobState(work.plan, events);
    const all = (await ask(jobsApi.read, { params })).spots.map((s) => ({
      ...{ spot: s.label, coats: s.rungCoats ?? 0, readings: s.readings, wet: s.state === 'wet' },
      at: new Date(s.takenAt).getTime(),
    }));
    const seen = looksOf(all, seenOf(work.plan, now, object), answer.card, answer.read);
    const { amount } = liveAdvice(liveState(answer.card, on().most, seen));
    if (amount <= 0) break;
    await lay(amount);
  }
  await ask(tryOutApi.lift, { params, body: { isSure: true } });
  const { window, best, objects, nominal } = await ask(tryOutApi.curtain, { params });
  return {
    ...{ id, seed, family, looks: looks + 1, reachable: window !== null, end: objects[0]!.end, nominal: nominal.end },
    width: window ? (window[1] - window[0]) / best : 0,
    worst: Math.max(...objects[0]!.differences),
  };
}

/** What a painter takes from the map: the ground, strength and count that come nearest, in the family's own style. */
function pickFor(shop: PreparedLibrary, family: FinishFamily, mixId: string, target: readonly TargetAngle[]) {
  const { start } = FAMILIES[family];
  const search = createSearch({
    ...{ model: shop.model(target), grounds: shop.grounds(), target, style: STYLES[start.style] },
    coat: shop.coat(findMix(mixId), 1),
    space: {
      strengths: [0.8, 0.9, 1, 1.1, 1.2],
      counts: [1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5],
      controlCoats: [0],
    },
  });
  const { groundId, strength, coats } = shop
    .grounds()
    .flatMap(search)
    .reduce((a, b) => (b.rmsDe < a.rmsDe ? b : a));
  return { groundId, strength, coats, style: start.style, controlCoats: 0 };
}

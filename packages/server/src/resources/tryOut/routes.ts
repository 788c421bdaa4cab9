import { tryOutApi, type HeldAsk, type JobDetail } from '@steady-gleam/contracts';
import { sayInstrument } from '@steady-gleam/core/devices';
import { FAMILIES, familyTable, TRY_OUT_FAMILIES } from '@steady-gleam/core/finishes';
import type { Lab } from '@steady-gleam/core/colour';
import { effectOn, jobState, workOfCard, workOfJob, type JobWork } from '@steady-gleam/core/jobs';
import { libraryOf, REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import {
  CURTAIN_PARTS,
  drawHidden,
  filmAt,
  setUpFactor,
  type Ended,
  type HeldOn,
  type Place,
} from '@steady-gleam/core/tryOut';
import { randomInt } from 'node:crypto';
import { ApiError } from '../../errors';
import type { Route } from '../../http/route';
import type { AskBench } from '../../tryOut/askBench';
import type { BenchAsk } from '../../tryOut/bench';
import type { Repos } from '../repos';

const IS_DOWN = 'The curtain is down: lift it when the job is over.';

const refuse = (message: string): never => {
  throw new ApiError('notWorkable', undefined, message);
};

/** Try-outs: jobs whose paint, hand and instrument are simulated, and hidden until the curtain is lifted. */
export function routeTryOut(route: Route, repos: Repos, askBench: AskBench): void {
  const { tryOut, jobs, log, shelf } = repos;

  /** A try-out with what is hidden of it, and its film wherever something is held. */
  const worldOf = async (id: string) => {
    const { seed } = await tryOut.of(id);
    const [detail, on] = [await jobs.read(id), await shelf()];
    const { job, card } = detail;
    const hidden = drawHidden(seed, job.family, REFERENCE_LIBRARY);
    const input = { ...detail, library: libraryOf(on.own), products: on.products, guns: on.guns };
    const work = workOfJob(input);
    const filmOf = (laid: JobWork, state: ReturnType<typeof jobState>, place: Place): number => {
      const layerIds = laid.plan.layers.filter((l) => l.counted && l.materialId === job.mixId).map((l) => l.id);
      return filmAt(hidden, laid.plan, state, { layerIds, style: job.pick!.style }, place);
    };
    return {
      detail,
      work,
      ask: { seed, family: job.family, own: on.own, picked: job.pick } satisfies Partial<BenchAsk>,
      /** Film on an object, counts of the nominal hand. */
      onObject: (objectId: string, areaIds: readonly string[], spot: string): number => {
        const state = jobState(work!.plan, detail.events);
        const all = effectOn(work!.plan, state, job.mixId, objectId).areaIds;
        const own = all.filter((a) => areaIds.includes(a));
        return filmOf(work!, state, {
          ...{ objectId, areaIds: own.length ? own : all, spot },
          setUp: setUpFactor(card, work!.plan, job.mixId),
        });
      },
      /** Film on a rung of the card in force; what is not sprayed yet can't be read. */
      onRung: async (coats: number): Promise<number> => {
        const run = card && job.pick ? workOfCard(input) : null;
        if (!run) return refuse('There is no card yet: plan it, and spray it in the booth.');
        const state = jobState(run.plan, await log.list({ finishId: job.finishId }));
        const areaId = `rung-${coats}`;
        const own = state.cells.filter((c) => c.cell.areaId === areaId && c.cell.coats > 0);
        if (!own.length) return refuse(`The card has no rung with ${coats} coats.`);
        if (own.some((c) => c.sprayedAt === null))
          return refuse(`The rung with ${coats} coats is not sprayed yet: run the card in the booth first.`);
        return filmOf(run, state, { cardId: card!.id, areaId });
      },
    };
  };

  const heldOn = async (
    { on, label, coats, objectId, areaIds }: HeldAsk,
    world: Awaited<ReturnType<typeof worldOf>>,
  ): Promise<HeldOn> => {
    if (on === 'target') return { kind: 'target' };
    if (on === 'chip') return { kind: 'chip', label };
    if (!world.detail.job.pick)
      return refuse('Nothing is picked yet: read what has to be matched, then pick on the map.');
    if (on === 'rung') {
      if (coats === null) throw new ApiError('badRequest', { coats: 'Say which rung.' });
      return { kind: 'rung', coats, film: coats > 0 ? await world.onRung(coats) : 0 };
    }
    const object = world.work!.plan.objects.find((o) => o.id === objectId) ?? world.work!.plan.objects[0]!;
    const film = world.onObject(object.id, areaIds, label);
    return film > 0 ? { kind: 'spot', film } : refuse('No effect coat is on there yet: there is nothing to read.');
  };

  route(
    tryOutApi.begin,
    async ({ id, family, seed }) => {
      if (!TRY_OUT_FAMILIES.includes(family))
        throw new ApiError('badRequest', {
          family: `Try-outs are of ${TRY_OUT_FAMILIES.map((f) => FAMILIES[f].name.toLowerCase()).join(', ')}.`,
        });
      const drawn = seed ?? randomInt(2_147_483_647);
      const { mixId } = drawHidden(drawn, family, REFERENCE_LIBRARY);
      return tryOut.begin(id, family, { seed: drawn, mixId, now: Date.now() });
    },
    201,
  );
  route(tryOutApi.read, async (body, id) => {
    const world = await worldOf(id);
    const held = await heldOn(body, world);
    const { asked, white } = await tryOut.change(id, (was) => ({ ...was, asked: was.asked + 1 }));
    const said = await askBench({ ...world.ask, is: 'read', held, state: body.state, nth: asked, white });
    if (said.is === 'curtain' || said.is === 'part') throw new Error('The bench answered something else.');
    return {
      is: said.is,
      said: sayInstrument(said) ?? '',
      readings: said.is === 'read' ? said.readings.map((r) => ({ ...r })) : [],
    };
  });
  route(tryOutApi.white, async (_, id) => {
    await tryOut.change(id, (was) => ({ ...was, white: was.asked }));
    return {};
  });
  route(tryOutApi.lift, async (_, id) => {
    await tryOut.change(id, (was) => ({ ...was, lifted: true }));
    return (await jobs.read(id)).job;
  });
  route(tryOutApi.part, async ({ part }, id) => {
    const { lifted } = await tryOut.of(id);
    if (!lifted) return refuse(IS_DOWN);
    const world = await worldOf(id);
    if (world.ask.picked) await askBench({ ...world.ask, is: 'part', part: Math.min(part, CURTAIN_PARTS - 1) });
    return { parts: CURTAIN_PARTS };
  });
  route(tryOutApi.curtain, async (_, id) => {
    const { lifted } = await tryOut.of(id);
    if (!lifted) return refuse(IS_DOWN);
    const world = await worldOf(id);
    const { job } = world.detail;
    if (!job.pick) return refuse('Nothing was picked, so there is nothing to compare.');
    const { plan } = world.work!;
    const said = await askBench({
      ...world.ask,
      is: 'curtain',
      of: {
        picked: job.pick,
        ...limitsOf(world.detail),
        objects: plan.objects.map((o) => ({ name: o.name, film: world.onObject(o.id, [], '') })),
      },
    });
    if (said.is !== 'curtain') throw new Error('The bench answered something else.');
    const { curtain } = said;
    return {
      ...curtain,
      made: { ...curtain.made, labs: told(curtain.made.labs) },
      window: curtain.window && ([curtain.window[0], curtain.window[1]] as [number, number]),
      objects: curtain.objects.map(toldEnd),
      nominal: { ...toldEnd(curtain.nominal), coats: curtain.nominal.coats },
    };
  });
}

/** Colours as an answer has them. */
const told = (labs: readonly Lab[]) => labs.map(([l, a, b]) => [l, a, b] as [number, number, number]);
const toldEnd = (end: Ended) => ({ ...end, labs: told(end.labs), differences: [...end.differences] });

const limitsOf = ({ job, familyLimits }: JobDetail) => ({
  usual: familyTable(FAMILIES[job.family].limits, familyLimits?.own ?? null),
  limits: job.limits,
});

import { groupsOf } from '@steady-gleam/core/jobs';
import type { Batch } from '@steady-gleam/contracts';
import { USUAL_TRANSFER } from '@steady-gleam/core/matching';
import {
  TRANSFER_SD,
  hardenerInClears,
  needFor,
  poursOf,
  solidsOf,
  USUAL_LOSS_ML,
  type MixGroup,
} from '@steady-gleam/core/mixing';
import { STARTING_GUNS, type Product, productFor } from '@steady-gleam/core/products';
import { useEffect, useState } from 'react';
import type { PageDetail } from '../../shared/useJob';
import type { JobWorked } from '../../shared/useJobWork';
import { transferOf } from '../../shared/useShop';
import type { CardCount } from '../card/useCardCount';
import type { BatchNotes } from './batchProps';
import { typedBatch, START_SETTINGS, type MixSettings } from './mixModel';
import { useMixing } from './useMixing';

interface Kept extends BatchNotes {
  readonly settings: Readonly<Record<string, MixSettings>>;
  readonly leftover: string;
}

const EMPTY: Kept = { settings: {}, lots: {}, note: '', onCard: false, leftover: '' };
const keyOf = (jobId: string) => `steady-gleam.mix.${jobId}`;
function kept(jobId: string): Kept {
  try {
    return { ...EMPTY, ...(JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? '{}') as Partial<Kept>) };
  } catch {
    return EMPTY;
  }
}

/** Everything the mix room works from: cups of the job, what is set for each, and what follows. */
export function useMixRoom(
  detail: PageDetail,
  work: JobWorked,
  count: CardCount,
  shelf: readonly Product[],
  mixed: readonly Batch[],
) {
  const { job, card } = detail;
  const { library, plan } = work;
  const [state, setState] = useState(() => kept(job.id));
  useEffect(() => sessionStorage.setItem(keyOf(job.id), JSON.stringify(state)), [job.id, state]);
  const { mixing, setMixing, faults, failure } = useMixing(job);
  const hand = count.hand === null ? null : { mixId: job.mixId, film: count.hand };
  const area = plan.areas.reduce((sum, a) => sum + (a.on === null ? a.areaM2 : 0), 0);
  const groups = groupsOf(plan, library, hand);
  // The gun that was said, here or on the card; none is made up.
  const gun = mixing.gunId !== null || card?.gun === work.gun.name ? work.gun : null;
  const transfer = gun ? transferOf(gun, mixed) : { mean: USUAL_TRANSFER, sd: TRANSFER_SD, lessons: 0 };
  const lossMl = gun?.lossMl ?? USUAL_LOSS_ML;
  const ownBatches = mixed.filter((b) => b.jobId === job.id);
  // The reducer is the job's: flash, order and times follow it.
  const settingsOf = (g: MixGroup): MixSettings => ({
    ...(state.settings[g.id] ?? START_SETTINGS),
    reducer: mixing.reducers?.[g.id] ?? '',
  });
  const setSettings = (g: MixGroup, more: Partial<MixSettings>) =>
    setState((old) => ({
      ...old,
      settings: { ...old.settings, [g.id]: { ...(old.settings[g.id] ?? START_SETTINGS), ...more } },
    }));
  const plainPours = (g: MixGroup, sameHardener: string | null) =>
    poursOf({
      group: g,
      product: productFor(g, library, shelf, mixing.products),
      library,
      settings: settingsOf(g),
      temperatureC: mixing.temperatureC,
      areaM2: area,
      sameHardener,
      added: mixing.added?.[g.id] ?? [],
    });
  const worked = (g: MixGroup) => {
    const product = productFor(g, library, shelf, mixing.products);
    const same = hardenerInClears(g, groups, ownBatches, (other) => plainPours(other, null).pours);
    const pours = plainPours(g, same);
    const solids = solidsOf(g, product, library);
    const need = needFor(g, solids, { lossMl }, transfer);
    return {
      product,
      pours,
      solids,
      need,
      ...typedBatch(pours.pours, need, settingsOf(g), product, mixing.temperatureC),
    };
  };
  return {
    state,
    setState,
    mixing,
    setMixing,
    mixingFaults: faults,
    failure,
    hand,
    area,
    groups,
    gun,
    sprayer: gun ?? STARTING_GUNS[0]!,
    transfer,
    ownBatches,
    settingsOf,
    setSettings,
    worked,
    /** What lands, in words. */
    lands: `${Math.round(transfer.mean * 100)} % lands${gun ? ` with ${gun.name}` : ''}${transfer.lessons ? `, learned from ${transfer.lessons} ${transfer.lessons === 1 ? 'batch' : 'batches'}` : ''}`,
  };
}

export type MixRoom = ReturnType<typeof useMixRoom>;

import { type Batch, batchesApi, gunsApi, productsApi } from '@steady-gleam/contracts';
import { learnTransfer, TRANSFER_SD } from '@steady-gleam/core/mixing';
import type { Gun } from '@steady-gleam/core/products';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useSyncExternalStore } from 'react';
import { call } from './apiClient';
import { withParcels } from './log/parcels';
import { onPost, postNow } from './log/post';

const KEYS = { products: ['products'], guns: ['guns'], batches: ['batches'] } as const;

/** What is asked of the shelf, also ahead of the pages that show it. */
export const SHELF = {
  products: {
    queryKey: KEYS.products,
    queryFn: () => call(productsApi.list),
  },
  guns: { queryKey: KEYS.guns, queryFn: () => call(gunsApi.list) },
  batches: { queryKey: KEYS.batches, queryFn: () => call(batchesApi.list, { body: {} }) },
} as const;

export const useProducts = () => useQuery(SHELF.products);

export const useGuns = () => useQuery(SHELF.guns);

/** All batches of one job, also those that are long over. */
const batchesOfJob = (jobId: string) => ({
  queryKey: [...KEYS.batches, jobId],
  queryFn: () => call(batchesApi.list, { body: { jobId } }),
});

/** Batches, newest first, with what waits on this device to be told. @param jobId of which all of them are wanted */
export function useBatches(jobId?: string) {
  const asked = useQuery({ ...SHELF.batches, refetchInterval: 60_000 });
  const { data: own } = useQuery({ ...batchesOfJob(jobId ?? ''), enabled: jobId !== undefined });
  const { parcels } = useSyncExternalStore(onPost, postNow);
  const { data: known } = asked;
  const data = useMemo(() => {
    const told = [...(known ?? []), ...(own ?? []).filter((b) => !known?.some((k) => k.id === b.id))];
    const all = withParcels(told, parcels).sort((a, b) => (a.mixedAt < b.mixedAt ? 1 : -1));
    return known || all.length ? all : undefined;
  }, [known, own, parcels]);
  return { ...asked, data };
}

/** A change of the shop's shelf; afterwards the list is read anew. */
export function useShopChange<T, R>(what: keyof typeof KEYS, run: (input: T) => Promise<R>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSuccess: () => client.invalidateQueries({ queryKey: KEYS[what] }) });
}

/** Batches a gun has sprayed out: what it can be taught by. */
export const batchesOf = (gun: Gun, batches: readonly Batch[]): Batch[] =>
  batches.filter((b) => b.gunId === gun.id && b.leftMl !== null && b.removedAt === null);

/** What of a gun's spray lands: its stated share, corrected by the batches it has sprayed out, but for those that are left out. */
export function transferOf(gun: Gun, batches: readonly Batch[]) {
  const used = batchesOf(gun, batches)
    .filter((b) => b.teaches)
    .map((b) => ({ solidMl: b.solidMl, volumeSolids: b.volumeSolids, usedMl: b.ml - b.leftMl!, lossMl: b.lossMl }));
  return learnTransfer({ mean: gun.transfer, sd: TRANSFER_SD }, used);
}

/** What a gun's share becomes without a batch, in a sentence; empty where it taught nothing. */
export function sayUntaught(gun: Gun | undefined, batch: Batch, batches: readonly Batch[]): string {
  if (!gun) return '';
  const others = batches.filter((b) => b.id !== batch.id);
  const [was, now] = [transferOf(gun, [...others, { ...batch, removedAt: null }]), transferOf(gun, others)];
  if (was.lessons === now.lessons) return '';
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  return `${gun.name} is taken to land ${percent(now.mean)} again; with this batch it was ${percent(was.mean)}.`;
}

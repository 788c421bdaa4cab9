import { shopPlaceApi, type BodyOf, type ShopCopy } from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, putBytes } from '../../shared/apiClient';

const PLACE = ['shop'] as const;
const REFETCH_MS = 30_000;

/** How the shop stands. */
export const useShopPlace = () =>
  useQuery({ queryKey: PLACE, queryFn: () => call(shopPlaceApi.read), refetchInterval: REFETCH_MS });

function usePlaceChange<T, R>(run: (input: T) => Promise<R>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSuccess: () => client.invalidateQueries({ queryKey: PLACE }) });
}

export const useSetCodes = () =>
  usePlaceChange((body: BodyOf<typeof shopPlaceApi.setCodes>) => call(shopPlaceApi.setCodes, { body }));
export const useEndDevice = () => usePlaceChange((id: string) => call(shopPlaceApi.endDevice, { params: { id } }));
export const useMakeCopy = () => usePlaceChange<void, ShopCopy>(() => call(shopPlaceApi.makeCopy));
export const useBringCopy = () => usePlaceChange((file: File) => putBytes(shopPlaceApi.bringCopy.path, file));

/** Ends every device's session, this one's too: the door is shown next. */
export function useEndAll() {
  const client = useQueryClient();
  return useMutation({ mutationFn: () => call(shopPlaceApi.endAll), onSuccess: () => client.invalidateQueries() });
}

/** Puts a copy in the place of what the shop has; everything is asked anew. */
export function useGoBack() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (copy: ShopCopy) =>
      call(shopPlaceApi.goBack, { body: { name: copy.name, isSure: true }, waitMs: 10 * 60_000 }),
    onSuccess: () => client.invalidateQueries(),
  });
}

import { inboxApi, type Inbox, type OfferedFile } from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../apiClient';
import { countOf } from '../countOf';

const INBOX = ['inbox'] as const;
/** Where readings are wanted the folder is asked for this often, ms. */
const ASKS_MS = 2_000;

/** The watched folder, asked again and again while somebody waits for it. */
export function useInbox(isWanted = true): Inbox | null {
  const { data } = useQuery({
    queryKey: INBOX,
    queryFn: () => call(inboxApi.list),
    enabled: isWanted,
    refetchInterval: (q) => (q.state.data?.watched === false ? false : ASKS_MS),
  });
  return data ?? null;
}

/** Lays a file aside, or offers it again. */
export function usePutFile() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, state }: { id: string; state: 'aside' | 'offered' }) =>
      call(inboxApi.put, { params: { id }, body: { state } }),
    onSettled: () => client.invalidateQueries({ queryKey: INBOX }),
  });
}

export const readFileOf = (id: string) => call(inboxApi.read, { params: { id } });

/** What came in, in words: "3 spots at 5 angles came in 20 s ago, export.csv". */
export function sayOffered({ name, spots, angles, cameAt }: OfferedFile, now: number): string {
  const s = Math.max(0, (now - new Date(cameAt).getTime()) / 1000);
  const ago = s < 90 ? `${Math.round(s)} s` : s < 5400 ? `${Math.round(s / 60)} min` : `${Math.round(s / 3600)} h`;
  const what =
    spots === null || angles === null ? 'A file' : `${countOf(spots, 'spot')} at ${countOf(angles, 'angle')}`;
  return `${what} came in ${ago} ago: ${name}`;
}

import { sessionApi } from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './apiClient';
import { forgetKnown } from './known';

const SESSION = ['session'] as const;

/** Who this device is to the shop. */
export function useSession() {
  return useQuery({ queryKey: SESSION, queryFn: () => call(sessionApi.read), staleTime: 60_000 });
}

/** Signs this device in; afterwards everything is asked anew. */
export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (passcode: string) => call(sessionApi.open, { body: { passcode } }),
    onSuccess: () => client.invalidateQueries(),
  });
}

/** Signs it out: what it knew is forgotten, what waits to be sent stays. */
export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call(sessionApi.close),
    onSuccess: async () => {
      await forgetKnown();
      client.clear();
    },
  });
}

import { CssBaseline } from '@mui/material';
import { ThemeProvider } from '../ui/ThemeProvider';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { ROUTES } from './routes';
import { ApiFailure } from '../shared/apiClient';
import { bringBackKnown, keepKnown } from '../shared/known';
import { askToPersist } from '../shared/log/device';
import { onArrival, startPost } from '../shared/log/post';
import { onReach } from '../shared/reach';
import { UnitsProvider } from '../shared/units';
import { createSteadyTheme, type ThemeMode } from './theme';
import { ThemeModeContext } from './themeMode';
import { warmUp } from './warmUp';

const router = createBrowserRouter(ROUTES);

const STORED_MODE = 'steady-gleam.theme';

function readMode(): ThemeMode {
  return localStorage.getItem(STORED_MODE) === 'dim' ? 'dim' : 'bench';
}

/** How long an answer stays on this device for while the server is away, ms: a page asked for again stands at once. */
const KEPT_MS = 24 * 3_600_000;

export const makeClient = (): QueryClient =>
  new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 10_000,
        gcTime: KEPT_MS,
        // Whether the server is there is found out by asking it: the browser knows of other networks.
        networkMode: 'always',
        retry: (count, error) => count < 2 && !(error instanceof ApiFailure && error.code !== 'offline'),
      },
      mutations: { networkMode: 'always' },
    },
  });

/** Everything is asked anew when the server is back, when this device was let in, and when something it kept has arrived. */
function askAnew(client: QueryClient): () => void {
  const stops = [
    onReach((now, before) => {
      // What was told to another page of this device stands in for what was not asked here.
      if (now.isAway && !before.isAway) void bringBackKnown(client);
      if ((before.isAway && !now.isAway) || (before.isLocked && !now.isLocked)) void client.invalidateQueries();
    }),
    onArrival((parcel) => {
      void client.invalidateQueries({ queryKey: ['jobs'] });
      if (parcel.kind.startsWith('batch')) void client.invalidateQueries({ queryKey: ['batches'] });
    }),
  ];
  return () => stops.forEach((stop) => stop());
}

export function App({ client }: { client: QueryClient }) {
  const [mode, setMode] = useState<ThemeMode>(readMode);
  const theme = useMemo(() => createSteadyTheme(mode), [mode]);
  useEffect(() => {
    const stops = [startPost(), keepKnown(client), askAnew(client), warmUp(client)];
    void askToPersist();
    return () => stops.forEach((stop) => stop());
  }, [client]);
  const modeValue = useMemo(
    () => ({
      mode,
      toggle: () => {
        const next = mode === 'bench' ? 'dim' : 'bench';
        localStorage.setItem(STORED_MODE, next);
        setMode(next);
      },
    }),
    [mode],
  );
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <ThemeModeContext value={modeValue}>
        <QueryClientProvider client={client}>
          <UnitsProvider>
            <RouterProvider router={router} />
          </UnitsProvider>
        </QueryClientProvider>
      </ThemeModeContext>
    </ThemeProvider>
  );
}

import { CssBaseline, ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { ApiFailure } from '../shared/apiClient';
import { JobsPage } from '../features/jobs/JobsPage';
import { NewJobPage } from '../features/jobs/NewJobPage';
import { TargetPage } from '../features/target/TargetPage';
import { MaterialsPage } from '../features/materials/MaterialsPage';
import { MapPage } from '../features/map/MapPage';
import { RecipesPage } from '../features/recipes/RecipesPage';
import { MixPage } from '../features/mix/MixPage';
import { PiecesPage } from '../features/pieces/PiecesPage';
import { OnTheJobPage } from '../features/spray/OnTheJobPage';
import { CardPage } from '../features/card/CardPage';
import { ProductsPage } from '../features/products/ProductsPage';
import { bringBackKnown, keepKnown } from '../shared/known';
import { askToPersist } from '../shared/log/device';
import { onArrival, startPost } from '../shared/log/post';
import { onReach } from '../shared/reach';
import { UnitsProvider } from '../shared/units';
import { FaultPage } from './FaultPage';
import { JobLayout } from './JobLayout';
import { NotFoundPage } from './NotFoundPage';
import { Shell } from './Shell';
import { createSteadyTheme, type ThemeMode } from './theme';
import { ThemeModeContext } from './themeMode';
import { warmUp } from './warmUp';

const router = createBrowserRouter([
  {
    path: '/jobs/:id/booth',
    errorElement: <FaultPage />,
    lazy: async () => ({ Component: (await import('../features/booth/BoothPage')).BoothPage }),
  },
  {
    path: '/jobs/:id/inspect',
    errorElement: <FaultPage />,
    lazy: async () => ({ Component: (await import('../features/inspect/InspectPage')).InspectPage }),
  },
  {
    path: '/jobs/:id/card/booth',
    errorElement: <FaultPage />,
    lazy: async () => ({ Component: (await import('../features/booth/BoothPage')).CardBoothPage }),
  },
  {
    element: <Shell />,
    errorElement: <FaultPage />,
    children: [
      { path: '/', element: <JobsPage /> },
      { path: '/jobs/new', element: <NewJobPage /> },
      {
        path: '/find',
        lazy: async () => ({ Component: (await import('../features/findMix/FindMixPage')).FindMixPage }),
      },
      {
        path: '/try-out',
        lazy: async () => ({ Component: (await import('../features/tryOut/TryOutPage')).TryOutPage }),
      },
      {
        path: '/bank',
        lazy: async () => ({ Component: (await import('../features/bank/BankPage')).BankPage }),
      },
      {
        path: '/bank/:id',
        lazy: async () => ({ Component: (await import('../features/bank/FinishPage')).FinishPage }),
      },
      {
        path: '/bank/:id/cards/:cardId',
        lazy: async () => ({
          Component: (await import('../features/bank/CardOfFinishPage')).CardOfFinishPage,
        }),
      },
      { path: '/materials', element: <MaterialsPage /> },
      { path: '/products', element: <ProductsPage /> },
      {
        path: '/shop',
        lazy: async () => ({ Component: (await import('../features/shop/ShopPage')).ShopPage }),
      },
      {
        path: '/shop/devices/:device',
        lazy: async () => ({ Component: (await import('../features/shop/DevicePage')).DevicePage }),
      },
      {
        path: '/practice/:room?',
        lazy: async () => ({ Component: (await import('../features/practice/PracticePage')).PracticePage }),
      },
      {
        path: '/faults',
        lazy: async () => ({ Component: (await import('../features/faults/FaultsPage')).FaultsPage }),
      },
      {
        path: '/jobs/:id',
        element: <JobLayout />,
        children: [
          { path: 'target', element: <TargetPage /> },
          { path: 'map', element: <MapPage /> },
          {
            path: 'find',
            lazy: async () => ({ Component: (await import('../features/findMix/FindForJobPage')).FindForJobPage }),
          },
          { path: 'recipes', element: <RecipesPage /> },
          {
            path: 'sample',
            lazy: async () => ({ Component: (await import('../features/sample/SamplePage')).SamplePage }),
          },
          {
            path: 'layers',
            lazy: async () => ({ Component: (await import('../features/layers/LayersPage')).LayersPage }),
          },
          { path: 'card', element: <CardPage /> },
          { path: 'pieces', element: <PiecesPage /> },
          { path: 'mix', element: <MixPage /> },
          {
            path: 'plan',
            lazy: async () => ({ Component: (await import('../features/plan/PlanPage')).PlanPage }),
          },
          { path: 'spray', element: <OnTheJobPage /> },
          {
            path: 'curtain',
            lazy: async () => ({ Component: (await import('../features/tryOut/CurtainPage')).CurtainPage }),
          },
        ],
      },
      { path: '*', element: <NotFoundPage /> },
    ],
  },
]);

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

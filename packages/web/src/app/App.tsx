import { CssBaseline, ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
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
import { UnitsProvider } from '../shared/units';
import { FaultPage } from './FaultPage';
import { JobLayout } from './JobLayout';
import { NotFoundPage } from './NotFoundPage';
import { Shell } from './Shell';
import { createSteadyTheme, type ThemeMode } from './theme';
import { ThemeModeContext } from './themeMode';

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
        path: '/faults',
        lazy: async () => ({ Component: (await import('../features/faults/FaultsPage')).FaultsPage }),
      },
      {
        path: '/jobs/:id',
        element: <JobLayout />,
        children: [
          { path: 'target', element: <TargetPage /> },
          { path: 'map', element: <MapPage /> },
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

export function App() {
  const [mode, setMode] = useState<ThemeMode>(readMode);
  const theme = useMemo(() => createSteadyTheme(mode), [mode]);
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: {
            staleTime: 10_000,
            retry: (count, error) => count < 2 && !(error instanceof ApiFailure && error.code !== 'offline'),
          },
        },
      }),
  );
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

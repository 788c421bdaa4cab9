import type { RouteObject } from 'react-router';
import { JobsPage } from '../features/jobs/JobsPage';
import { FaultPage } from './FaultPage';
import { NotFoundPage } from './NotFoundPage';
import { Shell } from './Shell';

/** The pages by their addresses. All but the list are fetched when they are first gone to: the list stands at once. */
export const ROUTES: RouteObject[] = [
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
      {
        path: '/jobs/new',
        lazy: async () => ({ Component: (await import('../features/jobs/NewJobPage')).NewJobPage }),
      },
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
      {
        path: '/materials',
        lazy: async () => ({ Component: (await import('../features/materials/MaterialsPage')).MaterialsPage }),
      },
      {
        path: '/products',
        lazy: async () => ({ Component: (await import('../features/products/ProductsPage')).ProductsPage }),
      },
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
        lazy: async () => ({ Component: (await import('./JobLayout')).JobLayout }),
        children: [
          {
            path: 'target',
            lazy: async () => ({ Component: (await import('../features/target/TargetPage')).TargetPage }),
          },
          { path: 'map', lazy: async () => ({ Component: (await import('../features/map/MapPage')).MapPage }) },
          {
            path: 'find',
            lazy: async () => ({ Component: (await import('../features/findMix/FindForJobPage')).FindForJobPage }),
          },
          {
            path: 'recipes',
            lazy: async () => ({ Component: (await import('../features/recipes/RecipesPage')).RecipesPage }),
          },
          {
            path: 'sample',
            lazy: async () => ({ Component: (await import('../features/sample/SamplePage')).SamplePage }),
          },
          {
            path: 'layers',
            lazy: async () => ({ Component: (await import('../features/layers/LayersPage')).LayersPage }),
          },
          { path: 'card', lazy: async () => ({ Component: (await import('../features/card/CardPage')).CardPage }) },
          {
            path: 'pieces',
            lazy: async () => ({ Component: (await import('../features/pieces/PiecesPage')).PiecesPage }),
          },
          { path: 'mix', lazy: async () => ({ Component: (await import('../features/mix/MixPage')).MixPage }) },
          {
            path: 'plan',
            lazy: async () => ({ Component: (await import('../features/plan/PlanPage')).PlanPage }),
          },
          {
            path: 'spray',
            lazy: async () => ({ Component: (await import('../features/spray/OnTheJobPage')).OnTheJobPage }),
          },
          {
            path: 'curtain',
            lazy: async () => ({ Component: (await import('../features/tryOut/CurtainPage')).CurtainPage }),
          },
        ],
      },
      { path: '*', element: <NotFoundPage /> },
    ],
  },
];

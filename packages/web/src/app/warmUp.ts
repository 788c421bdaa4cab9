import type { QueryClient } from '@tanstack/react-query';
import type { RouteObject } from 'react-router';
import { jobQueryOf } from '../features/jobs/JobControls';
import { MATERIALS } from '../shared/library';
import { reachNow } from '../shared/reach';
import { jobsPage } from '../shared/useJob';
import { SHELF } from '../shared/useShop';
import { ROUTES } from './routes';

/** A while after the start: what the first page needs comes first, ms. */
const AFTER_MS = 2_500;
/** The list as it is opened. */
const LIST = jobQueryOf(new URLSearchParams());

/** Fetches what is fetched when it is gone to or opened: without a service worker nothing else keeps it for when the server is away. */
async function fetchPages(routes: readonly RouteObject[]): Promise<void> {
  for (const { lazy, children } of routes) {
    if (typeof lazy === 'function') await lazy();
    if (children) await fetchPages(children);
  }
}

const fetchAll = () =>
  Promise.all([
    fetchPages(ROUTES),
    import('../shared/JobMenuSheet'),
    import('../shared/SeenRows'),
    import('./ShortcutsDialog'),
    import('../features/shop/SignIn'),
  ]).catch(() => undefined);

/**
 * Asks ahead for what every page needs, so that a device that was opened on one page has the list, the shelf and the cups that
 * set should the server go away. @returns what ends it
 */
export function warmUp(client: QueryClient): () => void {
  const timer = setTimeout(() => {
    const { isAway, isLocked } = reachNow();
    if (isAway || isLocked) return;
    void client.prefetchQuery(MATERIALS);
    void client.prefetchQuery(SHELF.products);
    void client.prefetchQuery(SHELF.guns);
    void client.prefetchQuery(SHELF.batches);
    void client.prefetchQuery(jobsPage(LIST, 0));
    // Only a shop by plain HTTP: elsewhere the browser has put all of it by.
    if (!('serviceWorker' in navigator)) void fetchAll();
  }, AFTER_MS);
  return () => clearTimeout(timer);
}

import type { QueryClient } from '@tanstack/react-query';
import { jobQueryOf } from '../features/jobs/JobControls';
import { MATERIALS } from '../shared/library';
import { reachNow } from '../shared/reach';
import { jobsPage } from '../shared/useJob';
import { SHELF } from '../shared/useShop';

/** A while after the start: what the first page needs comes first, ms. */
const AFTER_MS = 2_500;
/** The list as it is opened. */
const LIST = jobQueryOf(new URLSearchParams());

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
  }, AFTER_MS);
  return () => clearTimeout(timer);
}

import type { JobQuery } from '@steady-gleam/contracts';
import { JOB_LIST, jobsPage } from '../../shared/useJob';
import { usePages } from '../../shared/usePages';

/** Jobs move on in the booth, also from another device: the list is asked for again so often, ms. */
const REFETCH_MS = 30_000;

/** The pages of the list of jobs that answer to a query. */
export const useJobPages = (query: Omit<JobQuery, 'page'>) =>
  usePages([...JOB_LIST, query], (page) => jobsPage(query, page).queryFn(), REFETCH_MS);

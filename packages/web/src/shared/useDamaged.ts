import { damagedApi } from '@steady-gleam/contracts';
import { useQuery } from '@tanstack/react-query';
import { call } from './apiClient';

/** How long the list of damaged rows is taken as it was told, ms: every stored row is looked through for it, and none goes bad by itself. */
const RESTS_MS = 10 * 60_000;

/** Stored rows that can't be read any more. */
export const useDamaged = () =>
  useQuery({ queryKey: ['damaged'], queryFn: () => call(damagedApi.list), staleTime: RESTS_MS });

import { Button } from '@mui/material';
import { materialsApi, type StoredMaterial } from '@steady-gleam/contracts';
import { type Library, libraryOf, REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { useQuery } from '@tanstack/react-query';
import { createContext, use, useMemo, type ReactNode } from 'react';
import { tellMaterials } from '../worker/materialsOf';
import { call } from './apiClient';
import { Notice } from './Notice';

interface LibraryValue {
  readonly library: Library;
  readonly own: readonly StoredMaterial[];
}

const LibraryContext = createContext<LibraryValue>({ library: REFERENCE_LIBRARY, own: [] });

export const materialsKey = ['materials'] as const;
/** What is asked of the shop's own materials. */
export const MATERIALS = {
  queryKey: materialsKey,
  queryFn: async () => (await call(materialsApi.list)) as readonly StoredMaterial[],
};

/** Loads the shop's own materials once, for the screens and for the worker. */
export function LibraryProvider({ children, waiting }: { children: ReactNode; waiting: ReactNode }) {
  const { data, error, isPending, refetch } = useQuery(MATERIALS);
  const value = useMemo((): LibraryValue => {
    const own = data ?? [];
    // Before any page below is drawn with it, and asks.
    if (data) tellMaterials(own.map((m) => m.material));
    return { library: libraryOf(own.map((m) => m.material)), own };
  }, [data]);
  if (error && !data) {
    return (
      <Notice title="The materials could not be opened." text={error.message}>
        <Button variant="contained" onClick={() => void refetch()}>
          Try again
        </Button>
      </Notice>
    );
  }
  return <LibraryContext value={value}>{isPending ? waiting : children}</LibraryContext>;
}

export function useLibrary(): LibraryValue {
  return use(LibraryContext);
}

import { useMediaQuery, useTheme } from '@mui/material';

/** Whether there is room for every column of a table; a tablet shows those it is worked by. */
export function useWide(): boolean {
  return useMediaQuery(useTheme().breakpoints.up('lg'), { noSsr: true });
}

import { createContext } from 'react';
import type { ThemeMode } from './theme';

export const ThemeModeContext = createContext<{ mode: ThemeMode; toggle: () => void }>({
  mode: 'bench',
  toggle: () => {},
});

/** The system's own: the components' one brings colour schemes by CSS variables along, 7 kB that nothing here uses. */
export { ThemeProvider } from '@mui/system';

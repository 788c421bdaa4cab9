import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource/atkinson-hyperlegible-mono';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App, makeClient } from './app/App';
import { HEALTH_PATH } from '@steady-gleam/contracts';
import { ApiFailure, request } from './shared/apiClient';
import { bringBackKnown } from './shared/known';
import { takeAfterMissing } from './shared/newBuild';

// Kept by the browser after the first visit; without it everything works while the server is there.
if ('serviceWorker' in navigator && import.meta.env.PROD)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined);

addEventListener('vite:preloadError', (event) => {
  if (takeAfterMissing()) event.preventDefault();
});

const client = makeClient();
/** So long the server is waited for before what this device knew is shown in its place, ms. */
const SERVER_WAIT_MS = 1_200;
const isThere = await request(HEALTH_PATH, { method: 'GET' }, SERVER_WAIT_MS).then(
  () => true,
  (error: unknown) => error instanceof ApiFailure && error.code !== 'offline',
);
if (!isThere) await bringBackKnown(client);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App client={client} />
  </StrictMode>,
);

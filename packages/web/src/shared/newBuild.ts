import { reachNow } from './reach';

const TRIED = 'steady-gleam.build-tried';
/** How long the new build may take to come onto this device, ms. */
const FETCH_MS = 15_000;

/** Waits until the worker that keeps the pages has the new ones. */
async function fetched(): Promise<void> {
  const registration = await navigator.serviceWorker?.getRegistration();
  if (!registration) return;
  await registration.update();
  const coming = registration.installing ?? registration.waiting;
  if (!coming || coming.state === 'activated') return;
  await new Promise<void>((done) => {
    coming.addEventListener('statechange', () => coming.state === 'activated' && done());
    setTimeout(done, FETCH_MS);
  });
}

/** Goes on with the build the server has. What is kept on this device stays. */
export async function takeNewBuild(): Promise<void> {
  try {
    await fetched();
  } finally {
    location.reload();
  }
}

const MISSED = 'steady-gleam.part-missed';
/** A part that is missing again so soon is not mended by another reload, ms. */
const AGAIN_MS = 60_000;

/** A part of the program is gone from the server: it was of the build before. @returns whether the page goes on with another */
export function takeAfterMissing(now = Date.now()): boolean {
  if (now - Number(sessionStorage.getItem(MISSED) ?? 0) < AGAIN_MS) return false;
  sessionStorage.setItem(MISSED, String(now));
  void takeNewBuild();
  return true;
}

/** Whether a new build may be taken by itself now: once, and not again when that did not help. */
export function mayTakeByItself(): boolean {
  const { newBuild } = reachNow();
  if (newBuild === null || sessionStorage.getItem(TRIED) === newBuild) return false;
  sessionStorage.setItem(TRIED, newBuild);
  return true;
}

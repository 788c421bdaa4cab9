import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import 'fake-indexeddb/auto';

import { ThemeProvider } from '../ui/ThemeProvider';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen, waitFor, within } from '@testing-library/react';
import axe from 'axe-core';
import userEvent from '@testing-library/user-event';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { ROUTES } from '../app/routes';
import { createSteadyTheme } from '../app/theme';
import { UnitsProvider } from '../shared/units';

/** A job of the demo with everything in it: read, picked, its card sprayed. */
export const DEMO_JOB = '1a47e000-0000-4000-8000-000000001388';

const SERVER = process.env['PAGE_SERVER']!;
const overNetwork = globalThis.fetch;

/** Lets the page ask the real server of the tests. */
export function askServer(): void {
  globalThis.fetch = async (input: RequestInfo | URL, init?: RequestInit) => {
    // The page's files are not those of the network that Node sends.
    const body = init?.body instanceof Blob ? await bytesOf(init.body) : init?.body;
    return overNetwork(new URL(input instanceof Request ? input.url : input, SERVER), {
      ...init,
      ...(body === null || body === undefined ? {} : { body }),
    });
  };
}

const bytesOf = (file: Blob): Promise<ArrayBuffer> =>
  new Promise((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as ArrayBuffer);
    reader.onerror = () => failed(reader.error!);
    reader.readAsArrayBuffer(file);
  });

/** Asks the server without a page. @throws where it refuses */
export async function tell<T>(method: string, path: string, body?: unknown): Promise<T> {
  const answer = await overNetwork(new URL(path, SERVER), {
    method,
    ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });
  const text = await answer.text();
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${text}`);
  return (text ? JSON.parse(text) : null) as T;
}

/** The whole program, opened at an address. */
export function openAt(path: string) {
  askServer();
  // Rules of pages that are gone would be gone through for each question asked of an element: every page begins with none.
  document.head.querySelectorAll('style').forEach((style) => style.remove());
  const styles = createCache({ key: 'css' });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, networkMode: 'always' } } });
  const router = createMemoryRouter(ROUTES, { initialEntries: [path] });
  const drawn = render(
    <CacheProvider value={styles}>
      <ThemeProvider theme={createSteadyTheme('bench')}>
        <QueryClientProvider client={client}>
          <UnitsProvider>
            <RouterProvider router={router} />
          </UnitsProvider>
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>,
  );
  return { ...drawn, client, router };
}

/** Hands that do not wait between two keys. */
export const hands = userEvent.setup({ delay: null, advanceTimers: () => undefined });

/** Presses a button, or follows a link, once it is there. */
export async function press(name: RegExp | string, role: 'button' | 'link' | 'checkbox' | 'menuitem' = 'button') {
  await hands.click(await screen.findByRole(role, { name }, { timeout: 45_000 }));
}

/** Types into a field what stands there from then on; nothing empties it. */
export async function type(label: RegExp | string, text: string) {
  const field = await screen.findByLabelText(label, {}, { timeout: 45_000 });
  await hands.clear(field);
  if (text) await hands.type(field, text);
}

/** A copy of a demo job, to write to. @returns its id */
export async function copyOf(piece: string): Promise<string> {
  const id = crypto.randomUUID();
  // Other tests' copies are called alike, and may fill pages of the list.
  for (let page = 0; ; page++) {
    const query = new URLSearchParams({ words: piece, page: String(page) });
    const { rows } = await tell<{ rows: { id: string; piece: string }[] }>('GET', `/api/jobs?${query.toString()}`);
    if (!rows.length) throw new Error(`The demo has no ${piece}.`);
    const of = rows.find((r) => r.piece === piece);
    if (!of) continue;
    await tell('POST', `/api/jobs/${of.id}/copy`, { id, piece: `${piece} ${id.slice(0, 8)}` });
    return id;
  }
}

/** The sentence a page leads with, once it is opened and has computed what it says. */
export const leads = (name: RegExp | string = /^(?!Opening|Looking|Loading)/, timeout = 45_000): Promise<HTMLElement> =>
  screen.findByRole('heading', { level: 1, name }, { timeout });

/** Until nothing is asked and nothing computed any more. */
export const atRest = (client: QueryClient): Promise<void> =>
  waitFor(
    () => {
      if (client.isFetching() || screen.queryByRole('progressbar')) throw new Error('The page is still at work.');
    },
    { interval: 50 },
  );

/** What axe finds wrong; colours are for a real browser. */
export async function faultsOf(container: HTMLElement): Promise<string[]> {
  const { violations } = await axe.run(container, {
    rules: { 'color-contrast': { enabled: false }, region: { enabled: false } },
  });
  return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`);
}

const words = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** Text as it stands there, its pieces apart. */
function shownIn(element: HTMLElement): string {
  const walk = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  const pieces: string[] = [];
  while (walk.nextNode())
    if (!walk.currentNode.parentElement?.closest('title')) pieces.push(walk.currentNode.nodeValue ?? '');
  return pieces.join(' ');
}

/** Controls whose name lacks a word that stands on them, or has them in another order: who speaks to the program says what they see. */
export function misnamed(container: HTMLElement): string[] {
  const controls = [...within(container).queryAllByRole('button'), ...within(container).queryAllByRole('link')];
  return controls.flatMap((control) => {
    const name = control.getAttribute('aria-label');
    if (name === null) return [];
    const said = words(name);
    let from = 0;
    for (const word of words(shownIn(control))) {
      const at = said.indexOf(word, from);
      if (at < 0) return [`“${shownIn(control)}” is called “${name}”`];
      from = at + 1;
    }
    return [];
  });
}

/** Types readings into the rows of a form that asks for them. */
export async function typeReadings(labs: readonly (readonly [number, number, number])[]) {
  for (const [row, lab] of labs.entries())
    for (const [k, name] of ['L*', 'a*', 'b*'].entries()) await type(`${name} at row ${row + 1}`, String(lab[k]));
}

import { ThemeProvider } from '../ui/ThemeProvider';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { createMemoryRouter, RouterProvider, useLocation } from 'react-router';
import { createSteadyTheme } from '../app/theme';
import { UnitsProvider } from '../shared/units';

/** What the server would answer, by method and path; a function is told the body. */
export type Answers = Readonly<Record<string, unknown>>;

/** Puts answers in the place of the server. @returns what was asked, in order */
export function answerWith(answers: Answers): { readonly path: string; readonly body: unknown }[] {
  const asked: { path: string; body: unknown }[] = [];
  globalThis.fetch = async (input: RequestInfo | URL, init?: RequestInit) => {
    const { pathname, search } = new URL(input instanceof Request ? input.url : input, 'http://localhost');
    const key = `${init?.method ?? 'GET'} ${pathname}`;
    const body: unknown = typeof init?.body === 'string' ? JSON.parse(init.body) : null;
    asked.push({ path: `${key}${search}`, body });
    const answer = answers[key];
    if (answer === undefined)
      return new Response(JSON.stringify({ code: 'notFound', message: `No ${key}.` }), { status: 404 });
    const told: unknown = typeof answer === 'function' ? (answer as (body: unknown) => unknown)(body) : answer;
    return told instanceof Response ? told : new Response(JSON.stringify(told), { status: 200 });
  };
  return asked;
}

function Where() {
  const { pathname, search } = useLocation();
  return <output data-testid="where">{pathname + search}</output>;
}

/** Draws something as a page of the program: theme, units, questions, and where one is. */
export function renderAt(path: string, page: ReactNode) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const router = createMemoryRouter(
    [
      {
        path: '*',
        element: (
          <>
            {page}
            <Where />
          </>
        ),
      },
    ],
    { initialEntries: [path] },
  );
  return render(
    <ThemeProvider theme={createSteadyTheme('bench')}>
      <UnitsProvider>
        <QueryClientProvider client={client}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </UnitsProvider>
    </ThemeProvider>,
  );
}

import { afterEach, describe, expect, it } from '@jest/globals';
import type { Pourable } from '@steady-gleam/core/formulate';
import { FAMILY_IDS } from '@steady-gleam/core/finishes';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { ApiFailure, call } from '../../shared/apiClient';
import { jobsApi } from '@steady-gleam/contracts';
import { isFound, sayFound, saySearch } from './findModel';
import { withFound } from './keepFound';

const library = REFERENCE_LIBRARY;
const family = FAMILY_IDS.find((f) => isFound(f, library))!;
const target = [{ incidence: 45, aspecular: 45, lab: [50, 20, 10] as const, tolerance: 1.5 }];
const mix: Pourable = {
  ...{ groundId: 'white', coats: 3, rounded: 0.1, forgiveness: 2, cans: 2 },
  parts: [{ kind: 'dye', id: library.dyes[0]!.id, parts: 4.2 }],
  pigments: [],
  dyes: [{ dyeId: library.dyes[0]!.id, depth: 0.3 }],
  labs: [[50, 20, 10]],
  ...{ rmsDe: 0.2, maxDe: 0.3, toleranceRatio: 0.2, window: [2.6, 3.4] },
};

const realFetch = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = realFetch;
});
/** A shop that keeps materials, and refuses any change of a job. */
function serve(): Map<string, unknown> {
  const shelf = new Map<string, unknown>();
  globalThis.fetch = ((url: string, { method, body }: RequestInit) => {
    const id = url.split('/').at(-1)!;
    const answer = (status: number, json: unknown) => Promise.resolve(new Response(JSON.stringify(json), { status }));
    if (!url.includes('/materials/')) return answer(400, { code: 'badRequest', message: 'It was sprayed already.' });
    if (method === 'DELETE') {
      shelf.delete(id);
      return answer(200, {});
    }
    const { material } = JSON.parse(body as string) as { material: unknown };
    shelf.set(id, material);
    return answer(200, { version: 1, material });
  }) as typeof fetch;
  return shelf;
}

describe('a mix that was found', () => {
  const piece = 'Gondola 4';
  it('stands on the shelf when it was used', async () => {
    const shelf = serve();
    const kept = await withFound({ family, mix, library, piece }, (k) => Promise.resolve(k));
    expect(kept.pick).toMatchObject({ groundId: 'white', coats: 3, strength: 1 });
    expect(shelf.get(kept.mixId)).toMatchObject({ name: 'Mix for Gondola 4', family, carrierParts: 100 });
  });
  it('is taken off the shelf again where its job is refused: nothing is stored by halves', async () => {
    const shelf = serve();
    const seen: number[] = [];
    const refused = withFound({ family, mix, library, piece }, async ({ mixId, pick }) => {
      seen.push(shelf.size);
      await call(jobsApi.change, { params: { id: 'a' }, body: { version: 1, mixId, pick } });
    });
    await expect(refused).rejects.toThrow(ApiFailure);
    expect(seen).toEqual([1]);
    expect(shelf.size).toBe(0);
  });
});

describe('what a search says', () => {
  it('while it runs, after it, and where nothing reaches', () => {
    const best = { ...mix, pigments: [], dyes: [] };
    expect(saySearch({ step: { done: 0.4, best }, found: null }, target, library)).toEqual({
      answer: 'Best so far 0.3 dE00 off at its worst angle.',
      why: '40 % of the shelf was looked at.',
    });
    expect(saySearch({ step: null, found: null }, target, library).answer).toBe('The search was stopped.');
    expect(sayFound(mix, target, library).answer).toBe(
      'Found: 3 coats over bright white, within 0.3 dE00 at every angle.',
    );
    const far = { ...mix, labs: [[60, 5, 30] as const], maxDe: 14.2, toleranceRatio: 9 };
    expect(sayFound(far, target, library).answer).toMatch(
      /^Nothing on this shelf reaches it; 3 coats over bright white come/,
    );
    expect(sayFound(far, target, library).why).toMatch(/^At 45° what is missing is .+\./);
    expect(sayFound(undefined, target, library).answer).toBe('Nothing on this shelf comes near.');
  });
});

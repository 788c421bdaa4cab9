import { describe, expect, it, jest } from '@jest/globals';
import type { Product } from '@steady-gleam/core/products';
import { STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { productsToCsv } from '@steady-gleam/core/formats';
import { ApiFailure } from '../../shared/apiClient';
import { takeProducts } from './productsFile';

/** The page's own files can't be read as text by name. */
const fileOf = (text: string, name = 'shelf.csv') =>
  Object.assign(new File([text], name, { type: 'text/csv' }), { text: async () => text });
/** Takes a file in. @returns what was said last, and what was stored */
async function take(file: File, add: (products: readonly Product[]) => Promise<unknown> = async () => undefined) {
  const stored = jest.fn(add);
  const said: (readonly string[])[] = [];
  await takeProducts(file, stored, (problems) => said.push(problems));
  return { last: said.at(-1)!, first: said[0]!, stored };
}

describe('products from a file', () => {
  it('are all taken in at once, as they were written out', async () => {
    const { last, first, stored } = await take(fileOf(productsToCsv(STARTING_PRODUCTS)));
    expect(first).toEqual(['Reading shelf.csv …']);
    expect(last).toEqual([]);
    const [taken] = stored.mock.calls[0]!;
    const own = STARTING_PRODUCTS.map((p, i) => ({ ...p, id: taken[i]!.id }));
    expect(taken).toEqual(own);
    expect(new Set(taken.map((p) => p.id)).size).toBe(STARTING_PRODUCTS.length);
  });

  it('with one line that can’t be are all left out, and the line is named', async () => {
    const text = productsToCsv(STARTING_PRODUCTS);
    const line = text.slice(0, text.indexOf('solvent')).split('\n').length;
    const { last, stored } = await take(fileOf(text.replace('solvent', 'syrup')));
    expect(stored).not.toHaveBeenCalled();
    expect(last[0]).toContain(`Line ${line}: `);
  });

  it('that are none, or too many, are said to be so', async () => {
    expect((await take(fileOf('\u0000\u0001'))).stored).not.toHaveBeenCalled();
    const { last, stored } = await take(fileOf('x'.repeat(1_000_001)));
    expect(last).toEqual(['This file is over 1 MB; a list of products is a few pages.']);
    expect(stored).not.toHaveBeenCalled();
  });

  it('that the server refuses are said in its words', async () => {
    const { last } = await take(fileOf(productsToCsv(STARTING_PRODUCTS)), () =>
      Promise.reject(new ApiFailure('offline', 'The server does not answer.')),
    );
    expect(last).toEqual(['The server does not answer.']);
  });
});

import type { Product } from '@steady-gleam/core/products';
import { productSchema } from '@steady-gleam/contracts';
import { type ProductsCsvResult } from '@steady-gleam/core/formats';
import { ApiFailure } from '../../shared/apiClient';
import { checkWith } from '../../shared/checkWith';
import { newId } from '../../shared/newId';
import { computeRemote } from '../../worker/useCompute';

/** Bytes; ours. */
const FILE_LIMIT = 1_000_000;

/**
 * Takes products in from a file: all of them or none.
 * @param add stores them @param say what is wrong, or what is being done; nothing once they are in
 */
export async function takeProducts(
  file: File,
  add: (products: readonly Product[]) => Promise<unknown>,
  say: (problems: readonly string[]) => void,
): Promise<void> {
  if (file.size > FILE_LIMIT) return say(['This file is over 1 MB; a list of products is a few pages.']);
  say([`Reading ${file.name} …`]);
  // In the worker; a file that breaks the reader is said to be unreadable.
  const readFile = async (): Promise<ProductsCsvResult | null> => {
    try {
      return await computeRemote(1).importProducts(await file.text());
    } catch {
      return null;
    }
  };
  const read = await readFile();
  if (!read) return say(['This file could not be read. Export the products as CSV and choose that file.']);
  if (!read.ok) return say(read.problems.map((p) => (p.line === null ? p.message : `Line ${p.line}: ${p.message}`)));
  const checked = read.products.map((c) => ({
    line: c.line,
    result: checkWith(productSchema, { ...c.product, id: newId() }),
  }));
  const wrong = checked.flatMap((c) =>
    c.result.ok ? [] : Object.values(c.result.faults).map((m) => `Line ${c.line}: ${m}`),
  );
  if (wrong.length) return say([...wrong.slice(0, 8), 'Nothing was taken in; mend these lines and choose it again.']);
  try {
    await add(checked.flatMap((c) => (c.result.ok ? [c.result.value] : [])));
    say([]);
  } catch (error) {
    say([error instanceof ApiFailure ? error.message : String(error)]);
  }
}

import { mkdirSync, rmSync } from 'node:fs';
import { FILLED, startServer } from './testServer';

/** Before all journeys: the first start of the program fills a data folder, which each of them then gets a copy of. */
export default async function fillData(): Promise<() => void> {
  const remove = () => rmSync(FILLED, { recursive: true, force: true });
  remove();
  mkdirSync(FILLED, { recursive: true });
  const server = await startServer(FILLED, 0);
  await server.stop();
  return remove;
}

import { test } from '@playwright/test';
import { makeFolder, removeFolder, startServer, type TestServer } from './testServer';

/**
 * A server of a file's own, on a copy of the demo's data, from its first journey to its last.
 * @param port the file's own: files run side by side
 */
export function journeyServer(port: number): { readonly address: string } {
  let folder: string;
  let server: TestServer | undefined;
  test.beforeAll(async () => {
    folder = makeFolder();
    server = await startServer(folder, port);
  });
  test.afterAll(async () => {
    await server?.stop();
    removeFolder(folder);
  });
  return {
    get address() {
      return server!.address;
    },
  };
}

/** A job of the demo by its number: 4 is the candy tub, 5 the dodgem shell. */
export const demoJob = (key: number): string =>
  `1a47e000-0000-4000-8000-${(key * 1000).toString(16).padStart(12, '0')}`;

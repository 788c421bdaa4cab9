import type { Page } from '@playwright/test';

/** What a page with a made-up serial port has on its window. */
export interface FakePort {
  /** Sends text as the device would; its time is kept under the text. */
  push(text: string): void;
  /** Pulls the cable. */
  pull(): void;
}

declare global {
  interface Window {
    fakePort: FakePort;
  }
}

/** Gives the browser a serial port with one device on it, granted already. */
export async function withSerialPort(page: Page): Promise<void> {
  // The runner of scripts marks functions by their names, with a helper that a page has not got.
  await page.addInitScript('globalThis.__name ??= (f) => f;');
  await page.addInitScript(() => {
    let out: ReadableStreamDefaultController<Uint8Array> | null = null;
    // A device sends on and on; what it says before somebody listens is said again here.
    let early: string[] = [];
    const say = (text: string) => out!.enqueue(new TextEncoder().encode(text));
    let readable: ReadableStream<Uint8Array> | null = null;
    const port = {
      get readable() {
        return readable;
      },
      async open() {
        readable = new ReadableStream({
          start(controller) {
            out = controller;
            early.forEach(say);
            early = [];
          },
        });
      },
      async close() {
        readable = null;
        out = null;
      },
    };
    const own: FakePort = {
      push: (text) => (out ? say(text) : void early.push(text)),
      pull: () => out?.error(new DOMException('The device has been lost.', 'NetworkError')),
    };
    Object.assign(window, { fakePort: own });
    Object.defineProperty(navigator, 'serial', {
      value: { getPorts: async () => [port], requestPort: async () => port },
    });
  });
}

/** Sends lines of the device, one every so many ms. */
export const sends = (page: Page, lines: readonly string[], everyMs = 30): Promise<void> =>
  page.evaluate(
    async ([all, ms]) => {
      const { fakePort } = window;
      for (const line of all) {
        fakePort.push(`${line}\r\n`);
        await new Promise((done) => setTimeout(done, ms));
      }
    },
    [lines, everyMs] as const,
  );

export const pullsCable = (page: Page): Promise<void> => page.evaluate(() => window.fakePort.pull());

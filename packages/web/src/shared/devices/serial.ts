import { lineCutter } from '@steady-gleam/core/devices';

/** What of the browser's serial port is used here (the Web Serial API, WICG draft; only some browsers have it). */
export interface SerialPortLike {
  readonly readable: ReadableStream<Uint8Array> | null;
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
}

interface SerialLike {
  requestPort(): Promise<SerialPortLike>;
  getPorts(): Promise<SerialPortLike[]>;
}

/** The browser's serial ports; null where it has none, or the page did not come securely. */
export const serialOf = (from: object = navigator): SerialLike | null =>
  (from as { serial?: SerialLike }).serial ?? null;

export const BAUDS: readonly number[] = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200];

/**
 * Reads lines of a port until it is left or its cable is pulled.
 * @param onLine every whole line, at the time it came (performance.now). @param onEnd why it ended: a sentence, or nothing
 * where it was left @returns leaves it
 */
export function readLines(
  port: SerialPortLike,
  baudRate: number,
  onLine: (line: string, at: number) => void,
  onEnd: (said: string) => void,
): () => void {
  const cut = lineCutter();
  const text = new TextDecoder();
  let left = false;
  let reader: ReadableStreamDefaultReader<Uint8Array> | null = null;
  const run = async () => {
    try {
      await port.open({ baudRate });
      reader = port.readable?.getReader() ?? null;
      while (reader && !left) {
        const { value, done } = await reader.read();
        if (done) break;
        const at = performance.now();
        for (const line of cut(text.decode(value, { stream: true }))) onLine(line, at);
      }
      if (!left) onEnd('The cable was pulled, or the device is off.');
    } catch (error) {
      if (!left) onEnd(sayPort(error));
    } finally {
      reader?.releaseLock();
      await port.close().catch(() => undefined);
    }
  };
  void run();
  return () => {
    left = true;
    void reader?.cancel().catch(() => undefined);
  };
}

/** What a port says, in words with what to do. */
export function sayPort(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NetworkError') return 'The cable was pulled, or the device is off.';
  if (name === 'InvalidStateError') return 'The port is in use, on this page or by another program. Close that first.';
  if (name === 'NotFoundError') return 'No port was chosen.';
  return `The port can’t be read: ${error instanceof Error ? error.message : String(error)}`;
}

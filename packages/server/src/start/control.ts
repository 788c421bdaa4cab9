import { randomBytes, timingSafeEqual } from 'node:crypto';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { writeCopy } from '../copies/copies';
import type { OpenDb } from '../db/open';

/** Where a running program is asked by commands of the same machine, and the word that lets them in; its owner alone reads it. */
const CONTROL = 'control.json';

interface Control {
  readonly port: number;
  readonly word: string;
}

/**
 * Lets commands on this machine have a copy of a shop whose data folder a running program holds.
 * @returns what ends it
 */
export async function openControl(
  data: string,
  open: OpenDb,
  migrations: string,
): Promise<{ readonly close: () => void }> {
  const word = randomBytes(24).toString('hex');
  const server = createServer((req, res) => {
    const said = Buffer.from(String(req.headers['x-word'] ?? ''));
    const isKnown = said.length === word.length && timingSafeEqual(said, Buffer.from(word));
    if (!isKnown || req.url !== '/copy') {
      res.writeHead(404).end();
      return;
    }
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-copy-'));
    const path = join(folder, 'copy.tar.gz');
    void writeCopy(open, migrations, path)
      .then(() => pipeline(createReadStream(path), res.writeHead(200)))
      .catch((error: unknown) => {
        if (!res.headersSent) res.writeHead(500).end(error instanceof Error ? error.message : '');
        else res.destroy();
      })
      .finally(() => rmSync(folder, { recursive: true, force: true }));
  });
  await new Promise<void>((ok) => server.listen(0, '127.0.0.1', ok));
  server.unref();
  const path = join(data, CONTROL);
  const own: Control = { port: (server.address() as AddressInfo).port, word };
  writeFileSync(path, JSON.stringify(own), { mode: 0o600 });
  return {
    close: () => {
      server.close();
      server.closeAllConnections();
      rmSync(path, { force: true });
    },
  };
}

/** Has the running program of a data folder write a copy to a file. @returns whether there was one that answered */
export async function copyFromRunning(data: string, to: string): Promise<boolean> {
  const path = join(data, CONTROL);
  if (!existsSync(path)) return false;
  const { port, word } = JSON.parse(readFileSync(path, 'utf8')) as Control;
  return new Promise((done, failed) => {
    const asked = request({ host: '127.0.0.1', port, path: '/copy', headers: { 'X-Word': word } }, (res) => {
      if (res.statusCode !== 200) {
        const parts: Buffer[] = [];
        res.on('data', (part: Buffer) => parts.push(part));
        res.on('end', () => failed(new Error(Buffer.concat(parts).toString('utf8') || 'The running program refused.')));
        return;
      }
      pipeline(res, createWriteStream(to, { mode: 0o600, flush: true })).then(() => done(true), failed);
    });
    // Left behind by a program that was killed.
    asked.on('error', (error: NodeJS.ErrnoException) => (error.code === 'ECONNREFUSED' ? done(false) : failed(error)));
    asked.end();
  });
}

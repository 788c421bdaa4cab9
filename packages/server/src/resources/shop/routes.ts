import { shopPlaceApi, type ShopCopy, type ShopPlace } from '@steady-gleam/contracts';
import type { Express, Request, Response } from 'express';
import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { toString as qrOf } from 'qrcode';
import { ArchiveError, checkArchive, fileSource } from '../../copies/archive';
import { BROUGHT, copiesFolder, nameFor, type Copies, type Copy } from '../../copies/copies';
import { ApiError } from '../../errors';
import { readBody } from '../../http/bodies';
import { sessionOf, type Door } from '../../http/door';
import type { Route } from '../../http/route';
import type { DoorRepo } from '../door/repo';

/** What the program knows of the machine it runs on. */
export interface Machine {
  readonly copies: Copies;
  readonly data: string;
  readonly database: ShopPlace['database'];
  readonly version: string;
  readonly build: string;
  /** What other devices open. */
  readonly addresses: () => readonly string[];
  /** Puts a copy in the place of everything. */
  readonly goBack: (path: string) => Promise<void>;
}

const told = ({ name, madeAt, bytes }: Copy): ShopCopy => ({ name, madeAt, bytes });

/** Bytes of everything in a folder; null where it can't be read. */
async function bytesIn(folder: string): Promise<number | null> {
  try {
    const all = await readdir(folder, { recursive: true, withFileTypes: true });
    const sizes = await Promise.all(
      all
        .filter((e) => e.isFile())
        .map((e) =>
          stat(join(e.parentPath, e.name)).then(
            (s) => s.size,
            () => 0,
          ),
        ),
    );
    return sizes.reduce((sum, n) => sum + n, 0);
  } catch {
    return null;
  }
}

/** @throws ApiError `badRequest` where a copy can't be used, with what is wrong in it */
async function checked<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof ArchiveError) throw new ApiError('badRequest', { copy: error.message });
    throw error;
  }
}

/** The shop's place: its address, its devices, its copies. */
export function routeShop(app: Express, route: Route, machine: Machine, door: Door, repo: DoorRepo): void {
  const { copies, data } = machine;
  const lacks = (): string =>
    door.isShop && !door.isSecure
      ? 'This shop is open without HTTPS: pages are not kept on a device while the server is away, and a screen may go dark.'
      : '';
  const place = async (res: Response): Promise<ShopPlace> => {
    const session = sessionOf(res);
    const addresses = machine.addresses();
    const [set, devices, disk, dataBytes] = await Promise.all([
      repo.codesSet(),
      door.isShop ? repo.devices() : [],
      statfs(data).catch(() => null),
      bytesIn(data),
    ]);
    return {
      isShop: door.isShop,
      addresses: [...addresses],
      qr: addresses[0] ? await qrOf(addresses[0], { type: 'svg', margin: 1 }) : '',
      lacks: lacks(),
      isSecure: door.isSecure,
      version: machine.version,
      build: machine.build,
      database: machine.database,
      folder: session?.lookOnly ? null : data,
      freeBytes: disk ? disk.bavail * disk.bsize : null,
      dataBytes,
      copies: copies.list().map(told),
      copyFault: copies.fault(),
      devices: devices.map(({ createdAt, seenAt, ...d }) => ({
        ...d,
        seenAt: seenAt.toISOString(),
        since: createdAt.toISOString(),
        isThis: d.id === session?.id,
      })),
      isPasscodeSet: set.passcode,
      isLookCodeSet: set.lookCode,
    };
  };
  const copyNamed = (name: string): Copy => {
    const copy = copies.list().find((c) => c.name === name);
    if (!copy) throw new ApiError('notFound');
    return copy;
  };
  app.get(shopPlaceApi.read.path, async (_req, res) => void res.json(await place(res)));
  app.put(shopPlaceApi.setCodes.path, async (req, res) => {
    const { passcode, lookCode } = await readBody(shopPlaceApi.setCodes.body, req.body);
    if (passcode !== undefined && passcode === lookCode)
      throw new ApiError('badRequest', { lookCode: 'Take another code than the passcode.' });
    if (typeof lookCode === 'string' && (await repo.opens(lookCode)) === 'all')
      throw new ApiError('badRequest', { lookCode: 'Take another code than the passcode.' });
    if (passcode !== undefined) {
      await repo.setCode('passcode', passcode);
      await repo.endOthers(sessionOf(res)?.id ?? null);
    }
    if (lookCode !== undefined) await repo.setCode('lookCode', lookCode);
    res.json(await place(res));
  });
  route(shopPlaceApi.endDevice, async (_, id) => {
    await repo.end(id);
    return {};
  });
  route(shopPlaceApi.endAll, async () => {
    await repo.end(null);
    return {};
  });
  route(shopPlaceApi.makeCopy, async () => told(await copies.make()), 201);
  app.get(shopPlaceApi.fetchCopy.path, (req: Request<{ name: string }>, res, next) => {
    const { path, name } = copyNamed(req.params.name);
    res.set({ 'Content-Type': 'application/gzip', 'Content-Disposition': `attachment; filename="${name}"` });
    res.sendFile(path, { cacheControl: false, dotfiles: 'allow' }, (error) => (error ? next(error) : undefined));
  });
  app.put(shopPlaceApi.bringCopy.path, async (req, res) => {
    const folder = copiesFolder(data);
    await mkdir(folder, { recursive: true, mode: 0o700 });
    const coming = join(folder, `coming-${randomUUID()}.making`);
    try {
      let bytes = 0;
      const bound = new Transform({
        transform: (part: Buffer, _encoding, done) => {
          bytes += part.length;
          if (bytes > shopPlaceApi.bringCopy.maxBytes)
            done(new ApiError('tooLarge', undefined, 'This file is larger than any copy of a shop.'));
          else done(null, part);
        },
      });
      await pipeline(req, bound, createWriteStream(coming, { mode: 0o600 }));
      const { manifest } = await checked(() => checkArchive(fileSource(coming)));
      const name = nameFor(new Date(manifest.madeAt), BROUGHT);
      await rename(coming, join(folder, name));
      res.status(201).json(told(copyNamed(name)));
    } finally {
      await rm(coming, { force: true });
    }
  });
  route(shopPlaceApi.goBack, async ({ name }) => {
    const from = copyNamed(name);
    const before = await copies.make('before-going-back');
    await checked(() => machine.goBack(from.path));
    return { from: told(from), before: told(before) };
  });
}

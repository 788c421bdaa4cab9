import { type FileEndpoint } from '@steady-gleam/contracts';
import type { UnitSystem } from '@steady-gleam/core/units';
import express, { type Request, type Response, type RequestHandler } from 'express';
import { zoneOf } from '../printing/clock';
import { isLoopback } from '../start/settings';

/** The kind of picture or page some bytes are, by their first ones; null for anything else. */
export function fileType(bytes: Uint8Array): string | null {
  const starts = (...head: number[]) => head.every((b, i) => bytes[i] === b);
  if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (starts(0x89, 0x50, 0x4e, 0x47)) return 'image/png';
  if (starts(0x52, 0x49, 0x46, 0x46) && Buffer.from(bytes.subarray(8, 12)).toString('latin1') === 'WEBP')
    return 'image/webp';
  if (starts(0x25, 0x50, 0x44, 0x46, 0x2d)) return 'application/pdf';
  return null;
}

/** Takes the body of a file endpoint as bytes. */
export const takesBytes = (e: FileEndpoint): RequestHandler =>
  express.raw({ type: [...e.types], ...(e.maxBytes === undefined ? {} : { limit: e.maxBytes }) });

/** The body as bytes; none where another kind was sent. */
export const bytesOf = (req: Request): Buffer => (Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0));

/** For whom a paper is made: their time zone and units; and the address of what it is about. */
export const paperFor = (
  req: Request,
  path: string,
): { readonly zone: string; readonly units: UnitSystem; readonly address: string } => ({
  zone: zoneOf(req.query['zone']),
  units: req.query['units'] === 'us' ? 'us' : 'metric',
  address: `${addressFor(req)}${path}`,
});

/** By what address a paper leads back: printed at the server itself, by the one other devices open. */
function addressFor(req: Request): string {
  const host = req.get('host') ?? 'localhost';
  const shop = String(req.app.locals['address'] ?? '');
  return shop && isLoopback(host.replace(/:\d+$/, '')) ? shop : `${req.protocol}://${host}`;
}

export function sendPdf(res: Response, pdf: Buffer, name: string): void {
  res.set({ 'Content-Type': 'application/pdf', 'Content-Disposition': `inline; filename="${name}"` });
  res.send(pdf);
}

import 'reflect-metadata';
import * as x509 from '@peculiar/x509';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';

x509.cryptoProvider.set(globalThis.crypto);

const DAY_MS = 86_400_000;
/** Days: of the shop's authority; of the certificate, as long as browsers take one (398 days at most); renewed so long before its end. */
const [AUTHORITY_DAYS, CERTIFICATE_DAYS, RENEW_DAYS] = [3650, 390, 40] as const;
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;

/** A certificate with its key, as PEM. */
export interface Certified {
  readonly cert: string;
  readonly key: string;
}

/** What a shop's machine shows, and the authority that vouches for it. */
export interface ShopCertificate extends Certified {
  readonly authority: string;
}

/** Names and addresses this machine is reached by. @param more that its owner gave it */
export function ownNames(more: readonly string[] = []): string[] {
  const name = hostname();
  const addresses = Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).map((a) => a.address.split('%')[0]!),
  );
  return [...new Set(['localhost', name, `${name.split('.')[0]}.local`, ...more, '127.0.0.1', '::1', ...addresses])];
}

/** Addresses of this machine in the shop's network, those that are used most first. */
export const networkAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => (all ?? []).filter((a) => !a.internal && a.family === 'IPv4'))
    .map((a) => a.address);

async function pemOf(key: CryptoKey): Promise<string> {
  return x509.PemConverter.encode(await crypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY');
}

async function keyFrom(pem: string): Promise<CryptoKey> {
  const [bytes] = x509.PemConverter.decode(pem);
  return crypto.subtle.importKey('pkcs8', bytes!, ALGORITHM, true, ['sign']);
}

const newKeys = (): Promise<CryptoKeyPair> => crypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);
/** Positive, of twenty bytes (RFC 5280, 4.1.2.2). */
const newSerial = (): string => `5a${randomBytes(19).toString('hex')}`;
const from = (now: number, days: number) => ({
  notBefore: new Date(now - DAY_MS),
  notAfter: new Date(now + days * DAY_MS),
});

/** A small authority of the shop's own. */
export async function makeAuthority(now: number): Promise<Certified> {
  const keys = await newKeys();
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: newSerial(),
    name: `CN=Steady Gleam authority of ${hostname().replace(/[^\w.-]/g, '')}`,
    ...from(now, AUTHORITY_DAYS),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { cert: cert.toString('pem'), key: await pemOf(keys.privateKey) };
}

/** A certificate for a machine, signed by the shop's authority. */
export async function certify(authority: Certified, names: readonly string[], now: number): Promise<Certified> {
  const by = new x509.X509Certificate(authority.cert);
  const keys = await newKeys();
  const cert = await x509.X509CertificateGenerator.create({
    serialNumber: newSerial(),
    subject: 'CN=Steady Gleam',
    issuer: by.subject,
    ...from(now, CERTIFICATE_DAYS),
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey,
    signingKey: await keyFrom(authority.key),
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map((n) => (isIP(n) ? { type: 'ip' as const, value: n } : { type: 'dns' as const, value: n })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(by.publicKey),
    ],
  });
  return { cert: cert.toString('pem'), key: await pemOf(keys.privateKey) };
}

/** Names a certificate is for. */
export const namesOf = (cert: string): string[] =>
  (new x509.X509Certificate(cert).getExtension(x509.SubjectAlternativeNameExtension)?.names.items ?? []).map(
    (n) => n.value,
  );

function readPair(folder: string, name: string): Certified | null {
  const [cert, key] = [join(folder, `${name}.crt`), join(folder, `${name}.key`)];
  return existsSync(cert) && existsSync(key)
    ? { cert: readFileSync(cert, 'utf8'), key: readFileSync(key, 'utf8') }
    : null;
}

/** The key first, readable by its owner only; each file whole or not at all. */
function keepPair(folder: string, name: string, { cert, key }: Certified): void {
  for (const [path, text] of [
    [join(folder, `${name}.key`), key],
    [join(folder, `${name}.crt`), cert],
  ] as const) {
    writeFileSync(`${path}.making`, text, { mode: 0o600 });
    renameSync(`${path}.making`, path);
  }
}

const lasts = (cert: string, now: number, days: number): boolean => {
  const { notBefore, notAfter } = new x509.X509Certificate(cert);
  return notBefore.getTime() <= now && notAfter.getTime() - now > days * DAY_MS;
};

/**
 * The certificate of this machine, made on first use and renewed in time or when it got another name or address. The authority
 * stays the same as long as it lasts, so that a device trusts it once.
 * @param folder for keys and certificates
 */
export async function shopCertificate(
  folder: string,
  names: readonly string[],
  now = Date.now(),
): Promise<ShopCertificate> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const known = readPair(folder, 'authority');
  let authority = known;
  if (!authority || !lasts(authority.cert, now, CERTIFICATE_DAYS)) {
    authority = await makeAuthority(now);
    keepPair(folder, 'authority', authority);
  }
  let own = authority === known ? readPair(folder, 'machine') : null;
  const isFor = own ? new Set(namesOf(own.cert)) : new Set<string>();
  if (!own || !lasts(own.cert, now, RENEW_DAYS) || !names.every((n) => isFor.has(n))) {
    own = await certify(authority, names, now);
    keepPair(folder, 'machine', own);
  }
  return { ...own, authority: authority.cert };
}

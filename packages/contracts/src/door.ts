import { array, boolean, number, object, string, type InferType } from 'yup';
import { endpoint, fileEndpoint, pathOf } from './endpoint';
import { moment, trimmed } from './figures';

/** Letters and signs of a code of the shop's door. */
export const CODE_LENGTH = { least: 6, most: 200 } as const;
const code = () =>
  string()
    .min(CODE_LENGTH.least, `A code has ${CODE_LENGTH.least} signs or more.`)
    .max(CODE_LENGTH.most, `Keep the code under ${CODE_LENGTH.most} signs.`);

/** Who this device is to the shop. */
const sessionSchema = object({
  /** Whether the program stands open to the shop's network, or is one machine's own. */
  isShop: boolean().required(),
  /** Whether this device may change anything, or look only. */
  can: string()
    .oneOf(['all', 'look'] as const)
    .required(),
  /** Whether the shop's own passcode is set; until then the code printed at the start opens it. */
  isPasscodeSet: boolean().required(),
}).noUnknown();

export const sessionApi = {
  read: endpoint({ method: 'GET', path: '/api/session', body: null, reply: sessionSchema }),
  /** Sets the device's cookie. */
  open: endpoint({
    method: 'POST',
    path: '/api/session',
    body: object({ passcode: string().required('Enter the passcode.').max(CODE_LENGTH.most) }).noUnknown(),
    reply: sessionSchema,
  }),
  close: endpoint({ method: 'DELETE', path: '/api/session', body: null, reply: object({}) }),
} as const;

const copySchema = object({
  name: string().required(),
  madeAt: moment().required(),
  bytes: number().required(),
}).noUnknown();
export type ShopCopy = InferType<typeof copySchema>;

const deviceSchema = object({
  id: string().uuid().required(),
  device: string().defined(),
  lookOnly: boolean().required(),
  seenAt: moment().required(),
  since: moment().required(),
  /** The one that asks. */
  isThis: boolean().required(),
}).noUnknown();
export type ShopDevice = InferType<typeof deviceSchema>;

/** How the shop stands: its address, who is in, what is kept. */
const shopPlaceSchema = object({
  isShop: boolean().required(),
  /** What another device opens; empty where the program is this machine's own. */
  addresses: array(string().required()).required(),
  /** QR code of the first of them, as SVG; empty where there is none. */
  qr: string().defined(),
  /** What does not work here, in a sentence; empty when all does. */
  lacks: string().defined(),
  isSecure: boolean().required(),
  version: string().required(),
  build: string().required(),
  database: string()
    .oneOf(['embedded', 'server'] as const)
    .required(),
  /** Where copies and the embedded data stand on the machine; null when this device may only look. */
  folder: string().nullable().defined(),
  freeBytes: number().nullable().defined(),
  dataBytes: number().nullable().defined(),
  copies: array(copySchema.required()).required(),
  copyFault: string().nullable().defined(),
  devices: array(deviceSchema.required()).required(),
  isPasscodeSet: boolean().required(),
  isLookCodeSet: boolean().required(),
}).noUnknown();
export type ShopPlace = InferType<typeof shopPlaceSchema>;

/** Largest archive taken from a browser, bytes. */
const MOST_ARCHIVE = 2_000_000_000;

export const shopPlaceApi = {
  read: endpoint({ method: 'GET', path: '/api/shop', body: null, reply: shopPlaceSchema }),
  /** What is left out stays; a look-only code of null is taken away. A new passcode ends every other device's session. */
  setCodes: endpoint({
    method: 'PUT',
    path: '/api/shop/codes',
    body: object({ passcode: code().optional(), lookCode: code().nullable().optional() }).noUnknown(),
    reply: shopPlaceSchema,
  }),
  endDevice: endpoint({ method: 'DELETE', path: '/api/shop/devices/:id', body: null, reply: object({}) }),
  /** This one too. */
  endAll: endpoint({ method: 'DELETE', path: '/api/shop/devices', body: null, reply: object({}) }),
  makeCopy: endpoint({ method: 'POST', path: '/api/shop/copies', body: null, reply: copySchema }),
  /** Puts a copy in the place of what the shop has; what it has is copied first. */
  goBack: endpoint({
    method: 'POST',
    path: '/api/shop/restore',
    body: object({ name: trimmed().required().max(120), isSure: boolean().oneOf([true]).required() }).noUnknown(),
    reply: object({ from: copySchema.required(), before: copySchema.required() }).noUnknown(),
  }),
  fetchCopy: fileEndpoint({ method: 'GET', path: '/api/shop/copies/:name', types: ['application/gzip'] }),
  /** A copy kept elsewhere is laid to the others; nothing else is done with it. */
  bringCopy: fileEndpoint({
    method: 'PUT',
    path: '/api/shop/copies',
    types: ['application/gzip', 'application/octet-stream'],
    maxBytes: MOST_ARCHIVE,
  }),
} as const;

export const copyPath = (name: string): string => pathOf(shopPlaceApi.fetchCopy.path, { name });

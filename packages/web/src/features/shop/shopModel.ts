import type { ShopCopy, ShopPlace } from '@steady-gleam/contracts';

const DAY_MS = 86_400_000;

/** Bytes as a person says them. */
export function sayBytes(bytes: number): string {
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;
}

/** What a copy was made for, by its name. */
export function sayWhy({ name }: Pick<ShopCopy, 'name'>): string {
  const why = /Z-(.+)\.tar\.gz$/.exec(name)?.[1] ?? '';
  if (why === 'brought') return 'brought from elsewhere';
  if (why === 'before-going-back') return 'before a copy was put in its place';
  return why.startsWith('before-') ? 'before a new version' : '';
}

/** Room on the disk that is too little, bytes. */
const LITTLE = 500e6;

/** The shop's standing in one sentence, the worst first. @param sayAt says a moment */
export function sayShop(place: ShopPlace, now: number, sayAt: (at: number) => string): string {
  const [last] = place.copies;
  if (place.copyFault) return `The last copy could not be made: ${place.copyFault}`;
  if (place.freeBytes !== null && place.freeBytes < LITTLE)
    return `Only ${sayBytes(place.freeBytes)} are left on the shop’s disk.`;
  if (place.isShop && !place.isPasscodeSet) return 'Set the shop’s own passcode: until then the printed code opens it.';
  if (!last) return 'No copy was made yet; the first one is made a while after the start.';
  const at = Date.parse(last.madeAt);
  const copied = `Last good copy ${sayAt(at)}, ${sayBytes(last.bytes)}.`;
  if (now - at > 2 * DAY_MS) return `${copied} It is more than two days old.`;
  return place.isShop
    ? `${place.devices.length === 1 ? 'One device is' : `${place.devices.length} devices are`} signed in. ${copied}`
    : `The program is this machine’s own. ${copied}`;
}

/** What this device keeps for the server, in a sentence. */
export function sayKept(waiting: number, setAside: number, isAway: boolean): string {
  const refused = setAside
    ? ` ${setAside === 1 ? 'One entry was' : `${setAside} entries were`} refused and ${setAside === 1 ? 'counts' : 'count'} for nothing.`
    : '';
  if (!waiting) return `Everything told on this device is with the server.${refused}`;
  const entries = waiting === 1 ? 'One entry waits' : `${waiting} entries wait`;
  return `${entries} here${isAway ? ' until the server is back' : ' and is being sent'}.${refused}`;
}

/** Debian's Chromium, with everything off that would look outside the machine. */
export const CHROMIUM = '/usr/bin/chromium';

export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-quic',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  '--disable-domain-reliability',
  '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost',
];

/** The same, with a name that stands for this machine: an address a browser does not trust as it trusts its own. */
export const flagsFor = (name: string): string[] => [
  ...CHROMIUM_FLAGS.filter((f) => !f.startsWith('--host-resolver-rules')),
  `--host-resolver-rules=MAP ${name} 127.0.0.1, MAP * ~NOTFOUND, EXCLUDE 127.0.0.1`,
];

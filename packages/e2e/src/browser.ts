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

import type { RequestListener } from 'node:http';

/** Where the authority's certificate is fetched. */
export const AUTHORITY_PATH = '/authority.crt';

const STYLE = `body{font:20px/1.45 sans-serif;background:#ababab;color:#161616;margin:0 auto;max-width:38rem;padding:2rem 1rem}
h1{font-size:28px;margin:0 0 .6rem}h2{font-size:20px;margin:1.4rem 0 .2rem}a.go{display:inline-block;background:#f0a818;color:#161616;
padding:.7rem 1.1rem;margin:.4rem .6rem .4rem 0;text-decoration:none;font-weight:700;min-height:26px}a.plain{background:none;border:1px solid #161616}
p,li{margin:.3rem 0}`;

export const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** How a device comes to trust the shop's certificate; it holds nothing else. @param address of the shop, https */
export const trustPage = (
  address: string,
  hasAuthority: boolean,
): string => `<!doctype html><html lang="en"><meta charset="utf-8">
<meta name="viewport" content="width=device-width,initial-scale=1"><title>Open the shop on this device</title><style>${STYLE}</style>
<h1>Open the shop on this device</h1>
${
  hasAuthority
    ? `<p>Do this once for each device, so that it trusts this shop’s own certificate.</p>
<p><a class="go plain" href="${AUTHORITY_PATH}" download>1. Fetch the certificate</a></p>
<h2>Tablet or phone with Android</h2><p>Settings, Security, More, Install a certificate, CA certificate: choose the fetched file.</p>
<h2>iPad or iPhone</h2><p>Settings, Profile downloaded, Install. Then General, About, Certificate trust: switch it on.</p>
<h2>Windows, Mac, Linux</h2><p>Open the fetched file and put it among the trusted authorities, or do it in the browser’s settings under certificates.</p>`
    : '<p>This shop shows a certificate its owner has put in.</p>'
}
<p><a class="go" href="${escaped(address)}">${hasAuthority ? '2. Open the shop' : 'Open the shop'}</a></p>
<p>If the browser warns of the certificate, it is not trusted on this device yet.</p></html>`;

/**
 * Answers what comes by plain HTTP: the page of trust at the root, the certificate, and the way to HTTPS for every other path.
 * Nothing of the shop is told. @param addressFor the shop's https address for who came by a name
 */
export function plainly(addressFor: (host: string | undefined) => string, authority: string | null): RequestListener {
  return (req, res) => {
    const path = (req.url ?? '/').split('?')[0]!;
    res.setHeader('Cache-Control', 'no-store');
    if (path === AUTHORITY_PATH && authority !== null) {
      res.writeHead(200, {
        'Content-Type': 'application/x-x509-ca-cert',
        'Content-Disposition': 'attachment; filename="steady-gleam-authority.crt"',
      });
      res.end(authority);
      return;
    }
    const address = addressFor(req.headers.host);
    if (path === '/' || path === '/trust') {
      res.writeHead(200, {
        'Content-Type': 'text/html; charset=utf-8',
        'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'",
      });
      res.end(trustPage(address, authority !== null));
      return;
    }
    if (path.startsWith('/api/')) {
      res.writeHead(426, { 'Content-Type': 'application/json', Upgrade: 'TLS/1.2, HTTP/1.1' });
      res.end(JSON.stringify({ code: 'foreign', message: `The shop is open by HTTPS: ${address}` }));
      return;
    }
    // The path is laid behind the shop's own address: it can't lead elsewhere.
    const asked = req.url ?? '/';
    res.writeHead(302, { Location: `${address}${asked.startsWith('/') ? asked : '/'}` });
    res.end();
  };
}

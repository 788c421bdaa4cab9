import { createServer as createHttp, type RequestListener, type Server as HttpServer } from 'node:http';
import { createServer as createHttps, type Server as HttpsServer } from 'node:https';
import { createServer, type Server, type Socket } from 'node:net';

/** First byte of a TLS handshake (RFC 8446, 5.1). */
const HANDSHAKE = 22;
/** A connection that says nothing is let go after so long, ms. */
const SILENT_MS = 30_000;

/** HTTPS and plain HTTP behind one port: whoever leaves the s out is told how to go on. */
export interface OnePort {
  readonly server: Server;
  readonly https: HttpsServer;
  readonly plain: HttpServer;
}

/** @param app for what comes by HTTPS. @param plainly for what does not */
export function onePort(
  certificate: { cert: string; key: string },
  app: RequestListener,
  plainly: RequestListener,
): OnePort {
  const https = createHttps(certificate, app);
  const plain = createHttp(plainly);
  const server = createServer((socket: Socket) => {
    socket.setTimeout(SILENT_MS, () => socket.destroy());
    socket.on('error', () => socket.destroy());
    socket.once('readable', () => {
      const first = socket.read(1) as Buffer | null;
      if (!first) {
        socket.destroy();
        return;
      }
      socket.unshift(first);
      socket.setTimeout(0);
      socket.removeAllListeners('timeout');
      (first[0] === HANDSHAKE ? https : plain).emit('connection', socket);
    });
  });
  return { server, https, plain };
}

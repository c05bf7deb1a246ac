import type { RequestListener, Server } from 'node:http';
import { createServer as createPlain } from 'node:http';
import { createServer as createSecure } from 'node:https';
import type { Server as NetServer, Socket } from 'node:net';
import { createServer as createNet } from 'node:net';
import type { Certificate } from './certificate';

/** A TLS connection begins with this byte; no request in plain HTTP does. */
const HANDSHAKE = 22;
const FIRST_BYTE_MS = 10_000;

/** What listens, and how it is closed: at once, whoever holds a line. */
export interface Listening {
  readonly server: NetServer | Server;
  closeAllConnections(): void;
}

/** Speaks HTTPS on its port, and sends whoever came by plain HTTP there; without a certificate it speaks HTTP. */
export function listenWith(app: RequestListener, certificate: Certificate | undefined): Listening {
  if (!certificate) {
    const server = createPlain(app);
    return { server, closeAllConnections: () => server.closeAllConnections() };
  }
  const secure = createSecure({ cert: certificate.cert, key: certificate.key }, app);
  const plain = createPlain((req, res) => {
    res.writeHead(308, {
      location: `https://${req.headers.host ?? 'localhost'}${req.url ?? '/'}`,
      connection: 'close',
    });
    res.end();
  });
  const open = new Set<Socket>();
  const server = createNet((socket) => {
    open.add(socket);
    socket.once('close', () => open.delete(socket));
    socket.on('error', () => socket.destroy());
    // Who connects and says nothing is let go of.
    const silent = setTimeout(() => socket.destroy(), FIRST_BYTE_MS);
    socket.once('close', () => clearTimeout(silent));
    socket.once('data', (first: Buffer) => {
      clearTimeout(silent);
      socket.pause();
      socket.unshift(first);
      (first[0] === HANDSHAKE ? secure : plain).emit('connection', socket);
      process.nextTick(() => socket.resume());
    });
  });
  return {
    server,
    closeAllConnections: () => {
      for (const socket of open) socket.destroy();
    },
  };
}

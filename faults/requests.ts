import { mkdtempSync, writeFileSync } from 'node:fs';
import { request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { createApp } from '../server/app';
import { tally, type Tally } from './tally';

const SECRET = 'what lies beside the build';
const pieces = [
  '..',
  '.',
  '%2e%2e',
  '%2e',
  '..%2f',
  '%2f',
  '%5c',
  '\\',
  '%00',
  '%',
  '%zz',
  '.env',
  '.git',
  'config',
  'etc',
  'passwd',
  'supplier',
  'packs',
  '_expo',
  'assets',
  'secret.txt',
  'index.html',
  'a'.repeat(300),
  '%C0%AE%C0%AE',
  ';',
  '?',
  '#',
  ' ',
];

/** Odd requests: nothing from outside the build, no traces, and a page only for what a screen could be called. */
export async function oddRequests(count: number, random: () => number, root: string): Promise<Tally> {
  const above = mkdtempSync(path.join(os.tmpdir(), 'dermatex-server-'));
  writeFileSync(path.join(above, 'secret.txt'), SECRET);
  const server: Server = createApp(path.join(root, 'dist'), path.join(root, 'demo/supplier')).listen(0);
  await new Promise((resolve) => server.once('listening', resolve));
  const { port } = server.address() as AddressInfo;
  const ask = (at: string, method: string, host: string) =>
    new Promise<{ status: number; body: string }>((resolve, reject) => {
      const asked = request({ port, path: at, method, headers: { host }, insecureHTTPParser: true }, (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body: Buffer.concat(parts).toString('latin1') }));
      });
      asked.on('error', reject);
      asked.setTimeout(5000, () => asked.destroy(new Error('no answer within 5 s')));
      asked.end();
    });
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const result = await tally(
    'odd requests to the server',
    Array.from({ length: count }, () => {
      const at = `/${Array.from({ length: 1 + Math.floor(random() * 5) }, () => pick(pieces)).join('/')}`.replace(/[ #]/g, '');
      const method = pick(['GET', 'GET', 'GET', 'POST', 'PUT', 'DELETE', 'HEAD', 'OPTIONS']);
      const host = pick(['localhost', 'localhost', '127.0.0.1', 'elsewhere.test']);
      return [
        `${method} ${at} (${host})`,
        async () => {
          const { status, body } = await ask(at, method, host);
          if (host === 'elsewhere.test' && status !== 421 && status !== 400) throw new Error(`answered ${status} to another host`);
          if (body.includes(SECRET) || /root:.*:0:0:/.test(body)) throw new Error('gave away a file from outside the build');
          const isPage = /<!doctype html>/i.test(body);
          if (!isPage && /node_modules|\bat \w+ \(|\.(ts|mjs):\d+/.test(body)) throw new Error(`gave away a trace: ${body.slice(0, 200)}`);
          if (status >= 500) throw new Error(`failed with ${status}`);
          // Files that begin with a dot have no page, however the address goes on, unless it goes back from there as one reads it: a browser counts "//" as a
          // step of its own, a file system does not.
          const read = [new URL(`http://localhost${at}`).pathname, path.posix.normalize(at.split('?')[0].replace(/%2e/gi, '.'))];
          if (status === 200 && isPage && read.every((one) => /\/\.(env|git)/.test(one))) throw new Error('answered with the page');
        },
      ];
    }),
  );
  server.close();
  return result;
}

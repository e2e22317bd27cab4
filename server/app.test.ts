import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { inspect } from '../src/core/files/inspect';
import { readPack } from '../src/core/files/pack';
import { createApp } from './app';

const dist = mkdtempSync(path.join(os.tmpdir(), 'dermatex-dist-'));
mkdirSync(path.join(dist, '_expo'));
mkdirSync(path.join(dist, 'assets'));
writeFileSync(path.join(dist, 'index.html'), '<title>Dermatex</title>');
writeFileSync(path.join(dist, 'kernels.wasm'), Buffer.from([0, 97, 115, 109]));
writeFileSync(path.join(dist, '_expo', 'entry-abc.js'), '1');
const script = 'const a = 1;\n'.repeat(400);
writeFileSync(path.join(dist, '_expo', 'packed-abc.js'), script);
writeFileSync(path.join(dist, '_expo', 'packed-abc.js.br'), brotliCompressSync(script));
writeFileSync(path.join(dist, '_expo', 'packed-abc.js.gz'), gzipSync(script));
writeFileSync(path.join(os.tmpdir(), 'beside-the-build.txt'), 'secret');

let server: Server;
let base = '';
beforeAll(async () => {
  server = createApp(dist, path.join(process.env.DERMATEX_ROOT ?? process.cwd(), 'demo/supplier'), { isTest: true }).listen(0);
  await new Promise((resolve) => server.once('listening', resolve));
  base = `http://localhost:${(server.address() as AddressInfo).port}`;
});
afterAll(() => void server.close());
const get = (at: string) => fetch(base + at);

it('isolates every answer, so that memory can be shared with workers', async () => {
  for (const at of ['/', '/kernels.wasm', '/_expo/entry-abc.js', '/health', '/nothing.png']) {
    const { headers } = await get(at);
    expect(headers.get('cross-origin-opener-policy')).toBe('same-origin');
    expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp');
    expect(headers.get('cross-origin-resource-policy')).toBe('same-origin');
  }
});

it('allows scripts, workers and connections of its own only, and no framing', async () => {
  const policy = (await get('/')).headers.get('content-security-policy') ?? '';
  const rules = Object.fromEntries(policy.split('; ').map((rule) => [rule.split(' ')[0], rule.split(' ').slice(1)]));
  expect(rules['default-src']).toEqual(["'self'"]);
  expect(rules['script-src']).toEqual(["'self'", "'wasm-unsafe-eval'"]);
  expect(rules['worker-src']).toEqual(["'self'"]);
  expect(rules['frame-ancestors']).toEqual(["'none'"]);
  expect(policy).not.toMatch(/https?:|\*/);
  expect((await get('/')).headers.get('x-powered-by')).toBeNull();
});

it('keeps hashed files for a year and asks again for the rest', async () => {
  expect((await get('/_expo/entry-abc.js')).headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
  expect((await get('/kernels.wasm')).headers.get('cache-control')).toBe('public, max-age=0');
  expect((await get('/kernels.wasm')).headers.get('content-type')).toBe('application/wasm');
});

it('answers every address of a screen with the page, and a missing file with 404', async () => {
  for (const at of ['/', '/piece/abc', '/materials']) expect(await (await get(at)).text()).toContain('Dermatex');
  for (const at of ['/lost.jpg', '/demo/none.json', '/_expo/old.js']) expect((await get(at)).status).toBe(404);
  expect(await (await get('/lost.jpg')).text()).toBe('There is no such file.');
});

it('serves nothing from outside the build', async () => {
  for (const at of ['/../beside-the-build.txt', '/..%2fbeside-the-build.txt', '/%2e%2e/beside-the-build.txt']) {
    const answer = await get(at);
    expect(await answer.text()).not.toContain('secret');
  }
});

it('says that it is well', async () => {
  expect(await (await get('/health')).json()).toEqual({ ok: true });
});

describe('the made-up supplier', () => {
  const behave = (answers: string) =>
    fetch(`${base}/supplier/behaviour`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ answers }) });
  afterEach(() => behave('well'));
  const catalogue = async () =>
    (await (await get('/supplier/catalogue.json')).json()) as { packs: { id: string; bytes: number; pictures: number }[] };

  it('has packs that are what its catalogue says: their size, and their pictures with a list', async () => {
    const { packs } = await catalogue();
    expect(packs.length).toBeGreaterThanOrEqual(3);
    for (const { id, bytes, pictures } of packs) {
      const zip = new Uint8Array(await (await get(`/supplier/packs/${id}.zip`)).arrayBuffer());
      expect(zip).toHaveLength(bytes);
      const { pack, pictures: files } = readPack(zip, id);
      expect(pack.materials).toHaveLength(pictures);
      for (const [name, file] of files) expect(inspect(file, name).width).toBeGreaterThan(1000);
      expect((await get(`/supplier/previews/${id}.jpg`)).headers.get('content-type')).toBe('image/jpeg');
    }
  });

  it('fails, and sends half, when told to; and refuses another word', async () => {
    const [{ id, bytes }] = (await catalogue()).packs;
    await behave('failing');
    expect((await get('/supplier/catalogue.json')).status).toBe(503);
    await behave('corrupt');
    expect((await (await get(`/supplier/packs/${id}.zip`)).arrayBuffer()).byteLength).toBe(Math.floor(bytes / 2));
    expect((await behave('asleep')).status).toBe(400);
  });

  it('never leaves its folder', async () => {
    expect((await get('/supplier/packs/..%2f..%2fpackage.zip')).status).toBe(404);
  });
});

it('answers for names of this machine only, so that no other page can make its name lead here', async () => {
  const { port } = server.address() as AddressInfo;
  const asked = (host: string) =>
    new Promise<number>((resolve, reject) => {
      request({ port, path: '/', headers: { host } }, (answer) => (answer.resume(), resolve(answer.statusCode ?? 0)))
        .on('error', reject)
        .end();
    });
  for (const host of ['localhost', `localhost:${port}`, `127.0.0.1:${port}`, `[::1]:${port}`]) expect(await asked(host)).toBe(200);
  for (const host of ['rebound.test', 'localhost.rebound.test', '192.168.0.7', 'localhost@rebound.test']) expect(await asked(host)).toBe(421);
});

it('has no page for files that begin with a dot, nor for what the supplier does not have', async () => {
  for (const at of ['/.env', '/.git/config', '/a/.env', '/supplier/nothing', '/supplier/', '/supplier/packs/none.zip'])
    expect((await get(at)).status).toBe(404);
});

it('says what failed without traces or paths', async () => {
  for (const at of ['/%', '/_expo/%E0%A4%A']) {
    const answer = await get(at);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(await answer.text()).not.toMatch(/ at |node_modules|\/work|\.ts|\.mjs/);
  }
});

it('has the switch of the supplier only when it is started for tests', async () => {
  const plain = createApp(dist, path.join(process.env.DERMATEX_ROOT ?? process.cwd(), 'demo/supplier')).listen(0);
  await new Promise((resolve) => plain.once('listening', resolve));
  const at = `http://localhost:${(plain.address() as AddressInfo).port}/supplier/behaviour`;
  const answer = await fetch(at, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{"answers":"failing"}' });
  expect(answer.status).toBe(404);
  plain.close();
});

it.each([
  ['br', 'gzip, br'],
  ['gzip', 'gzip'],
  [null, 'identity'],
])('sends what the build has compressed, as %s to a browser that takes %s', async (encoding, accepts) => {
  const answer = await fetch(`${base}/_expo/packed-abc.js`, { headers: { 'accept-encoding': accepts } });
  expect(answer.headers.get('content-encoding')).toBe(encoding);
  expect(answer.headers.get('cache-control')).toContain('immutable');
  expect(answer.headers.get('content-type')).toContain('javascript');
  expect(await answer.text()).toBe(script);
});

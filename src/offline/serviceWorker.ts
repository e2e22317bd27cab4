// Keeps every file of one version of Dermatex, so that it works without its server. A new version is fetched whole and checked before it takes over,
// and takes over once no page of the old one is open: no page ever gets files of two versions.
import { kept, withoutEncoding, type Fetched } from './keeping';

/** Written by the build: what the version is called, and the SHA-256 of each file by its path. */
declare const VERSION: string;
declare const FILES: Record<string, string>;

interface Extendable {
  waitUntil(work: Promise<unknown>): void;
}
interface Fetching extends Extendable {
  request: Request;
  respondWith(answer: Promise<Response>): void;
}
interface Scope {
  location: Location;
  clients: { claim(): Promise<void> };
  addEventListener(kind: 'install' | 'activate', listener: (event: Extendable) => void): void;
  addEventListener(kind: 'fetch', listener: (event: Fetching) => void): void;
}
const scope = self as unknown as Scope;

const PREFIX = 'dermatex-';
const CACHE = `${PREFIX}${VERSION}`;
/** Files that are fetched at once. */
const LANES = 4;

async function digest(bytes: ArrayBuffer): Promise<string> {
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return [...hash].map((b) => b.toString(16).padStart(2, '0')).join('');
}

async function take(cache: Cache, file: string): Promise<void> {
  const response = await fetch(file, { cache: 'no-cache' });
  const bytes = await response.arrayBuffer();
  // While a server is updated it may already give files of the next version.
  if (!response.ok || (await digest(bytes)) !== FILES[file]) throw new Error(`${file} is not of version ${VERSION}.`);
  const found: Fetched = { status: response.status, headers: response.headers };
  await cache.put(file, new Response(bytes, withoutEncoding(found)));
}

async function install(): Promise<void> {
  const cache = await caches.open(CACHE);
  const files = Object.keys(FILES).values();
  const lane = async () => {
    for (const file of files) await take(cache, file);
  };
  try {
    await Promise.all(Array.from({ length: LANES }, lane));
  } catch (error) {
    await caches.delete(CACHE);
    throw error;
  }
}

async function activate(): Promise<void> {
  for (const name of await caches.keys()) if (name.startsWith(PREFIX) && name !== CACHE) await caches.delete(name);
  await scope.clients.claim();
}

scope.addEventListener('install', (event) => event.waitUntil(install()));
scope.addEventListener('activate', (event) => event.waitUntil(activate()));
scope.addEventListener('fetch', (event) => {
  const { request } = event;
  const file = kept(request, scope.location.origin, FILES);
  if (file) event.respondWith(caches.match(file, { cacheName: CACHE }).then((there) => there ?? fetch(request)));
});

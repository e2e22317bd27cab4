/** What is known of an answer of the server. */
export interface Fetched {
  status: number;
  headers: Headers;
}

/** The page itself, which every screen's address leads to. */
const PAGE = '/index.html';

/** The kept file that answers a request; null where the server has to. */
export function kept(request: Pick<Request, 'method' | 'url' | 'mode'>, origin: string, files: Record<string, string>): string | null {
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== origin) return null;
  if (files[url.pathname]) return url.pathname;
  // A dot means a file, which is not one of ours; the supplier is another service.
  return request.mode === 'navigate' && !url.pathname.includes('.') && !url.pathname.startsWith('/supplier') ? PAGE : null;
}

/** Status and headers of an answer whose body has been unpacked. */
export function withoutEncoding({ status, headers }: Fetched): ResponseInit {
  const left = new Headers(headers);
  for (const name of ['content-encoding', 'content-length', 'vary']) left.delete(name);
  return { status, headers: left };
}

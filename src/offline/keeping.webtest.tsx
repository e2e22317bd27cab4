import { kept } from './keeping';

const origin = 'https://island.example';
const files = { '/index.html': 'a', '/engine.worker.js': 'b', '/_expo/static/js/entry.js': 'c' };
const ask = (path: string, more: Partial<Request> = {}) =>
  kept({ method: 'GET', mode: 'no-cors', url: new URL(path, origin).href, ...more }, origin, files);

it('a file of the version is answered from what is kept, whatever is asked behind its name', () => {
  expect(ask('/engine.worker.js')).toBe('/engine.worker.js');
  expect(ask('/_expo/static/js/entry.js?v=1')).toBe('/_expo/static/js/entry.js');
});

it('every screen is the page', () => {
  for (const screen of ['/', '/piece/4c1/export', '/batch?hints']) expect(ask(screen, { mode: 'navigate' })).toBe('/index.html');
});

it('the server answers what is not kept: the supplier, its health, files of nobody, other machines, and what is sent', () => {
  expect(ask('/supplier/catalogue.json')).toBeNull();
  expect(ask('/supplier', { mode: 'navigate' })).toBeNull();
  expect(ask('/health')).toBeNull();
  expect(ask('/nothing.js', { mode: 'navigate' })).toBeNull();
  expect(ask('https://elsewhere.example/engine.worker.js')).toBeNull();
  expect(ask('/engine.worker.js', { method: 'POST' })).toBeNull();
});

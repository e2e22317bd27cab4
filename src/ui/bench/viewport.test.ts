import { fitZoom, toPhoto, toView, useViewport, zoomOf } from './viewport';

const state = () => useViewport.getState();

beforeEach(() => {
  Object.assign(globalThis, { window: { devicePixelRatio: 2 } });
  state().set({ width: 400, height: 300 });
  state().fit({ width: 2000, height: 1000 });
});

it('fits the whole photo in with a margin, its middle in the middle', () => {
  expect(zoomOf(state())).toBeCloseTo((400 - 24) / 2000, 12);
  expect(toView(state(), zoomOf(state()), 1000, 500)).toEqual([200, 150]);
  expect(fitZoom({ width: 10, height: 10 }, { width: 1, height: 1 })).toBe(1e-4);
});

it('goes from the view to the photo and back', () => {
  state().set({ zoom: 0.7, x: 300, y: 800 });
  const [x, y] = toPhoto(state(), 0.7, 33, 44);
  const [px, py] = toView(state(), 0.7, x, y);
  expect(px).toBeCloseTo(33, 9);
  expect(py).toBeCloseTo(44, 9);
});

it('zooms about a point: what lies under it stays there', () => {
  const before = toPhoto(state(), zoomOf(state()), 120, 90);
  state().zoomAt(3, 120, 90);
  const after = toPhoto(state(), zoomOf(state()), 120, 90);
  expect(after[0]).toBeCloseTo(before[0], 6);
  expect(after[1]).toBeCloseTo(before[1], 6);
});

it('never zooms past 16 times or below what fits', () => {
  for (let i = 0; i < 40; i++) state().zoomAt(2, 200, 150);
  expect(zoomOf(state())).toBe(16);
  for (let i = 0; i < 80; i++) state().zoomAt(0.5, 200, 150);
  expect(zoomOf(state())).toBeCloseTo(0.05, 12);
});

it('shows one pixel of the photo on one of the screen', () => {
  state().actual();
  expect(zoomOf(state())).toBe(0.5);
});

it('pans with the pointer and keeps the photo in view', () => {
  state().set({ zoom: 1 });
  const { x } = state();
  state().pan(-50, 0);
  expect(state().x).toBe(x + 50);
  state().pan(1e6, 1e6);
  expect([state().x, state().y]).toEqual([0, 0]);
  state().pan(-1e7, -1e7);
  expect([state().x, state().y]).toEqual([2000, 1000]);
});

describe('another size of the place', () => {
  it('leaves the picture where it is when something opens over it, and is fitted again once that has closed', () => {
    const before = toView(state(), zoomOf(state()), 0, 0);
    const zoom = zoomOf(state());
    state().resize(400, 160, false);
    expect(zoomOf(state())).toBe(zoom);
    toView(state(), zoom, 0, 0).forEach((v, i) => expect(v).toBeCloseTo(before[i], 9));
    expect(state().zoom).not.toBeNull();
    state().resize(400, 300, false);
    expect(state().zoom).toBeNull();
    toView(state(), zoom, 0, 0).forEach((v, i) => expect(v).toBeCloseTo(before[i], 9));
  });

  it('fits it anew with the window', () => {
    state().resize(200, 300, true);
    expect(zoomOf(state())).toBeCloseTo((200 - 24) / 2000, 12);
  });

  it('keeps what was panned meanwhile', () => {
    state().resize(400, 160, false);
    state().pan(-30, 0);
    const { x } = state();
    state().resize(400, 300, false);
    expect(state().x).toBeCloseTo(x, 9);
    expect(state().zoom).not.toBeNull();
  });
});

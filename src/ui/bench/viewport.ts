import { create, type StoreApi, type UseBoundStore } from 'zustand';

export interface Viewport {
  /** CSS pixels of the place where the picture lies. */
  width: number;
  height: number;
  /** CSS pixels to one pixel of the photo; null fits the whole photo in. */
  zoom: number | null;
  /** Point of the photo, in its pixels, at the middle of the view. */
  x: number;
  y: number;
}

export interface ViewportState extends Viewport {
  photo: { width: number; height: number };
  set(change: Partial<Viewport>): void;
  /** Another size of the place: with the window's the picture is fitted anew, else it stays where it is on the screen, under what has opened over it. */
  resize(width: number, height: number, isWindow: boolean): void;
  fit(photo?: { width: number; height: number }): void;
  /** One pixel of the photo on one pixel of the screen. */
  actual(): void;
  /** Zooms about a point of the view, in CSS pixels from its left and top. */
  zoomAt(factor: number, px: number, py: number): void;
  pan(dx: number, dy: number): void;
}

const MARGIN = 12;

export const fitZoom = (v: Pick<Viewport, 'width' | 'height'>, photo: { width: number; height: number }): number =>
  Math.max(1e-4, Math.min((v.width - 2 * MARGIN) / photo.width, (v.height - 2 * MARGIN) / photo.height));

export const zoomOf = (v: Viewport & { photo: { width: number; height: number } }): number => v.zoom ?? fitZoom(v, v.photo);

export const toPhoto = (v: Viewport, zoom: number, px: number, py: number): [number, number] => [
  v.x + (px - v.width / 2) / zoom,
  v.y + (py - v.height / 2) / zoom,
];
export const toView = (v: Viewport, zoom: number, x: number, y: number): [number, number] => [
  (x - v.x) * zoom + v.width / 2,
  (y - v.y) * zoom + v.height / 2,
];

/** A view of its own, for a place that shows pictures. */
export const createViewport = (): UseBoundStore<StoreApi<ViewportState>> =>
  create<ViewportState>((set, get) => {
    const kept = (x: number, y: number) => {
      const { photo } = get();
      return { x: Math.min(photo.width, Math.max(0, x)), y: Math.min(photo.height, Math.max(0, y)) };
    };
    return {
      width: 0,
      height: 0,
      zoom: null,
      x: 0,
      y: 0,
      photo: { width: 1, height: 1 },
      set: (change) => set(change),
      resize(width, height, isWindow) {
        const v = get();
        if (isWindow || v.width === 0 || v.height === 0) return set({ width, height });
        const zoom = zoomOf(v);
        const [x, y] = [v.x + (width - v.width) / 2 / zoom, v.y + (height - v.height) / 2 / zoom];
        const { photo } = v;
        const near = (a: number, b: number) => Math.abs(a - b) * zoom < 0.5;
        const isFitted = Math.abs(fitZoom({ width, height }, photo) / zoom - 1) < 1e-6 && near(x, photo.width / 2) && near(y, photo.height / 2);
        set(isFitted ? { width, height, zoom: null, x: photo.width / 2, y: photo.height / 2 } : { width, height, zoom, x, y });
      },
      fit: (photo = get().photo) => set({ photo, zoom: null, x: photo.width / 2, y: photo.height / 2 }),
      actual: () => set({ zoom: 1 / (window.devicePixelRatio || 1) }),
      zoomAt(factor, px, py) {
        const v = get();
        const from = zoomOf(v);
        const least = Math.min(fitZoom(v, v.photo), 0.05);
        const to = Math.min(16, Math.max(least, from * factor));
        const [x, y] = toPhoto(v, from, px, py);
        set({ zoom: to, ...kept(x - (px - v.width / 2) / to, y - (py - v.height / 2) / to) });
      },
      pan(dx, dy) {
        const v = get();
        const zoom = zoomOf(v);
        set({ zoom, ...kept(v.x - dx / zoom, v.y - dy / zoom) });
      },
    };
  });

/** The bench's view. */
export const useViewport = createViewport();

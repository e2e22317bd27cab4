import { create } from 'zustand';

/** A drawing that has reached the canvas. */
export interface Frame {
  /** Drawn while something moves, at fewer pixels than the screen has. */
  quick: boolean;
  pixels: number;
}

/** The last frame on the canvas; a new object for each, so that subscribers are told of every one. */
export const useFrames = create<{ frame: Frame | null }>(() => ({ frame: null }));

// For the bench, which times drawings from outside the bundle.
(globalThis as { dermatexFrames?: typeof useFrames }).dermatexFrames = useFrames;

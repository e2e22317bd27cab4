import { create } from 'zustand';
import type { SourceInput } from '../core/piece/edits';
import type { Look } from './looks';

interface Trying {
  tried: SourceInput | null;
  look: Look | null;
  /** One of the ways of a contact sheet. */
  way: { name: string; keep(): void } | null;
}

/** The material, the look or the way that is tried on the photo and not kept yet. */
export const useTrying = create<Trying>(() => ({ tried: null, look: null, way: null }));

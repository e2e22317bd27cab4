import { create } from 'zustand';
import type { SourceInput } from '../core/piece/edits';

/** The material that is tried on the photo and not kept yet. */
export const useTrying = create<{ tried: SourceInput | null }>(() => ({ tried: null }));

import { create } from 'zustand';
import type { SourceInput } from '../core/piece/edits';
import type { Look } from './looks';

/** The material or the look that is tried on the photo and not kept yet. */
export const useTrying = create<{ tried: SourceInput | null; look: Look | null }>(() => ({ tried: null, look: null }));

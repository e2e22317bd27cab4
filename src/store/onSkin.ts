import type { OnSkin } from '../core/piece/onSkin';
import { Cancelled } from '../engine/stopping';
import { useBench } from './bench';
import { relievedOf, readLight } from './light';
import { newId } from './newId';
import { complain, say } from './notices';
import type { Edit } from '../core/piece/edits';
import { addCoat } from '../core/piece/stacking';
import { create } from 'zustand';
import { words } from './words';

/** What is being set up, and how far the search for faces is, 0..1. */
export const useSettingUp = create<{ id: OnSkin['id'] | null; share: number }>(() => ({ id: null, share: 0 }));

let stop: AbortController | null = null;
export const stopSettingUp = (): void => stop?.abort();

/** Sets something up on the skin of the faces, lit as they are. Without a face it says so and changes nothing. */
export async function setUpOnSkin({ id, label, coats }: OnSkin): Promise<void> {
  const { piece } = useBench.getState();
  if (!piece || stop) return;
  stop = new AbortController();
  useSettingUp.setState({ id, share: 0 });
  try {
    const light = await readLight(piece, { signal: stop.signal, onProgress: (share) => useSettingUp.setState({ share }) });
    if (useBench.getState().piece?.id !== piece.id) return;
    if (!light) return say(words.light.noSkin);
    const made = coats(newId, relievedOf(piece, light));
    const { change, choose, openFacet, chosen } = useBench.getState();
    const add: Edit = (before) => made.reduce((now, coat, i) => addCoat(coat, i === 0 ? chosen : made[i - 1].id)(now), before);
    change(words.bench.add(label), add);
    choose(made[0].id);
    openFacet('blend');
  } catch (error) {
    if (!(error instanceof Cancelled)) complain(error);
  } finally {
    stop = null;
    useSettingUp.setState({ id: null, share: 0 });
  }
}

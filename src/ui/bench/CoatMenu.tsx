import { Menu } from 'react-native-paper';
import { groupOf, levelOf } from '@/core/piece/groups';
import { ungroup } from '@/core/piece/stacking';
import type { Coat } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { setVisible } from '@/store/editing';
import { setLocked, useRail } from '@/store/several';
import { words } from '../words';

export interface MenuPlace {
  x: number;
  y: number;
}

/** What can be done to a coat as a whole, where its card or the picture was clicked with the right button. */
export function CoatMenu({ coat, at, onClose }: { coat: Coat; at: MenuPlace; onClose(): void }) {
  const { duplicate, remove, move, openFacet } = useBench.getState();
  const piece = useBench((s) => s.piece);
  const level = piece ? levelOf(piece.coats, coat.id) : null;
  const place = level?.at ?? 0;
  const top = (level?.coats.length ?? 1) - 1;
  const act = (run: () => void) => () => {
    onClose();
    run();
  };
  return (
    <Menu visible anchor={at} onDismiss={onClose} contentStyle={{ borderRadius: 3 }}>
      <Menu.Item dense title={coat.visible ? words.common.hide : words.coatMenu.show} onPress={act(() => setVisible(coat.id, !coat.visible))} />
      <Menu.Item dense title={words.common.duplicate} onPress={act(() => duplicate(coat.id))} />
      <Menu.Item dense title={coat.locked ? words.groups.unlock : words.groups.lock} onPress={act(() => setLocked(coat.id, !coat.locked))} />
      <Menu.Item dense title={words.groups.chooseSeveral} onPress={act(() => useRail.getState().begin())} />
      {groupOf(coat) ? (
        <Menu.Item dense title={words.groups.ungroup} onPress={act(() => useBench.getState().change(words.groups.ungroup, ungroup(coat.id)))} />
      ) : null}
      <Menu.Item dense title={words.common.rename} onPress={act(() => openFacet('more'))} />
      <Menu.Item dense title={words.common.forward} disabled={place === top} onPress={act(() => move(coat.id, place + 1))} />
      <Menu.Item dense title={words.common.backward} disabled={place === 0} onPress={act(() => move(coat.id, place - 1))} />
      <Menu.Item dense title={words.common.remove} onPress={act(() => remove(coat.id))} />
    </Menu>
  );
}

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useEffect, useRef, useState } from 'react';
import { modeById } from '@/core/blend';
import { groupOf, innerCoats, levelOf } from '@/core/piece/groups';
import { coatName, coatTitle } from '@/core/piece/naming';
import type { Coat, Piece } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { setVisible } from '@/store/editing';
import { useOwn } from '@/store/own';
import { useRail } from '@/store/several';
import { Card } from './Card';
import { CoatMenu, type MenuPlace } from './CoatMenu';
import { useThumb } from './useThumb';
import { words } from '../words';

/** Pixels of a card's picture. */
export const PICTURE = 144;
/** Sources that are the picture itself, treated: their cards show the piece up to them. */
const OF_PICTURE = ['below', 'photo', 'cutout', 'group'];

interface Props {
  piece: Piece;
  coat: Coat;
  /** Where it lies: "2", or "2.0" for the lowest in the group there. */
  place: string;
  /** Its place among those of its group. */
  index: number;
  on: boolean;
  /** Cards are being chosen together: it shows whether it is one of them. */
  marking: boolean;
  compact?: boolean;
  onPress(together: boolean): void;
}

const under = (coat: Coat): string => {
  if (!coat.visible) return words.rail.hidden;
  if (groupOf(coat) && coat.blend === 'normal') return words.rail.coats(innerCoats(coat).length);
  return modeById(coat.blend).label.toLowerCase();
};

/** The card of a coat or a group. It is dragged to its place, and moved by keys. */
export function CoatCard({ piece, coat, place, index, on, marking, compact, onPress }: Props) {
  const names = useOwn((s) => s.names);
  const unfolded = useRail((s) => s.open.includes(coat.id));
  const [menu, setMenu] = useState<MenuPlace | null>(null);
  const level = levelOf(piece.coats, coat.id);
  const outer = level?.groups[0] ?? coat;
  const upTo = piece.coats.slice(0, piece.coats.indexOf(outer) + 1);
  const ofPicture = OF_PICTURE.includes(String(coat.source.kind));
  const url = useThumb(
    piece,
    { kind: ofPicture ? 'upTo' : 'alone', coat: coat.id },
    ofPicture ? [piece.photo, piece.ready, piece.guards, ...upTo] : [piece.photo, piece.ready, coat.source, coat.lay, coat.treatments],
    PICTURE,
  );
  const masked = coat.mask.start === 'none' || coat.mask.parts.length > 0;
  const mask = useThumb(
    masked ? piece : null,
    { kind: 'mask', coat: coat.id },
    [piece.photo, piece.ready, piece.guards, ...upTo.slice(0, -1), coat.mask],
    48,
  );
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: coat.id });
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (on) box.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [on]);
  const { hold, choose } = useBench.getState();
  return (
    <div
      ref={(node) => {
        setNodeRef(node);
        box.current = node;
      }}
      style={{ transform: CSS.Translate.toString(transform), transition, opacity: isDragging ? 0.8 : 1, zIndex: isDragging ? 2 : 0, flexShrink: 0 }}
      {...listeners}
      onKeyDown={(e) => {
        const { move } = useBench.getState();
        if (!e.altKey) return listeners?.onKeyDown?.(e);
        if (e.key === 'ArrowLeft') move(coat.id, index - 1);
        else if (e.key === 'ArrowRight') move(coat.id, index + 1);
        else if (e.key === 'Home') move(coat.id, 0);
        else if (e.key === 'End') move(coat.id, Infinity);
        else return;
        e.preventDefault();
      }}
    >
      <Card
        on={on}
        marking={marking}
        url={url}
        title={coatTitle(coat, names)}
        name={coatName(coat, names)}
        under={under(coat)}
        strength={coat.strength}
        visible={coat.visible}
        locked={coat.locked}
        unfolded={groupOf(coat) ? unfolded : undefined}
        compact={compact}
        inset={masked ? mask : null}
        describedBy={attributes['aria-describedby']}
        testID={`card-${place}`}
        onPress={onPress}
        onHold={(held) => hold(held ? { kind: 'upTo', coat: coat.id } : null)}
        onFlip={() => setVisible(coat.id, !coat.visible)}
        onFold={groupOf(coat) ? () => useRail.getState().fold(coat.id) : undefined}
        onMenu={(at) => {
          choose(coat.id);
          setMenu(at);
        }}
      />
      {menu ? <CoatMenu coat={coat} at={menu} onClose={() => setMenu(null)} /> : null}
    </div>
  );
}

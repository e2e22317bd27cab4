import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragOverEvent,
} from '@dnd-kit/core';
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { router } from 'expo-router';
import { useEffect, useRef, useState, type CSSProperties } from 'react';
import { modeById } from '@/core/blend';
import { indexOf, moveCoat } from '@/core/piece/edits';
import { coatName, coatTitle } from '@/core/piece/naming';
import type { Coat, Piece } from '@/core/piece/schema';
import { shownPiece, useBench } from '@/store/bench';
import { setVisible } from '@/store/editing';
import { useOwn } from '@/store/own';
import { SANS, useColours } from '../theme';
import { Card, plainButton, square } from './Card';
import { CoatMenu, type MenuPlace } from './CoatMenu';
import { useThumb } from './useThumb';
import { words } from '../words';

/** Pixels of a card's picture. */
const PICTURE = 144;

/** The stack as a row of cards, left to right as the work was done; each shows what its coat is. `compact` leaves out the words, for short views. */
export function Rail({ compact }: { compact?: boolean }) {
  const piece = useBench(shownPiece);
  const kept = useBench((s) => s.piece);
  const chosen = useBench((s) => s.chosen);
  const { choose, openFacet, move, preview } = useBench.getState();
  const c = useColours();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (!piece || !kept) return null;
  // While a card is dragged the picture shows the new order before it is dropped.
  const over = ({ active, over: target }: DragOverEvent) => target && preview(moveCoat(String(active.id), indexOf(kept, String(target.id))));
  const end = ({ active, over: target }: DragEndEvent) => {
    if (target && target.id !== active.id) move(String(active.id), indexOf(kept, String(target.id)));
    else preview(null);
  };
  return (
    <div
      style={{ ...row, height: compact ? 58 : 106, background: c.chrome, borderTop: `1px solid ${c.line}` }}
      role="group"
      aria-label={words.rail.theCoatsBottomToTop}
    >
      <PhotoCard piece={piece} on={chosen === null} compact={compact} onPress={() => choose(null)} />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragOver={over} onDragEnd={end} onDragCancel={() => preview(null)}>
        <SortableContext items={kept.coats.map((k) => k.id)} strategy={horizontalListSortingStrategy}>
          {kept.coats.map((coat, i) => (
            <CoatCard
              key={coat.id}
              piece={piece}
              coat={piece.coats.find((k) => k.id === coat.id) ?? coat}
              index={i}
              on={chosen === coat.id}
              compact={compact}
              onPress={() => choose(coat.id)}
            />
          ))}
        </SortableContext>
      </DndContext>
      <Begin compact={compact} onPress={() => openFacet('add')}>
        {words.common.addAMaterial}
      </Begin>
      {kept.coats.length > 0 ? (
        <Begin compact={compact} onPress={() => openFacet('finish')}>
          {words.finish.title}
        </Begin>
      ) : null}
      {kept.coats.length > 0 ? (
        <Begin compact={compact} onPress={() => router.navigate(`/piece/${kept.id}/compare`)}>
          {words.compare.title}
        </Begin>
      ) : null}
      {kept.coats.length === 0 ? (
        <Begin compact={compact} onPress={() => openFacet('starts')}>
          {words.common.startFromALook}
        </Begin>
      ) : null}
    </div>
  );
}

/** A card that is not there yet. */
function Begin({ compact, onPress, children }: { compact?: boolean; onPress(): void; children: string }) {
  const c = useColours();
  return (
    <button
      type="button"
      onClick={onPress}
      style={{ ...plainButton, ...square, ...begin, ...(compact ? short : {}), border: `1.5px dashed ${c.quiet}`, color: c.ink }}
    >
      {children}
    </button>
  );
}

interface OneCard {
  piece: Piece;
  on: boolean;
  compact?: boolean;
  onPress(): void;
}

function PhotoCard({ piece, on, compact, onPress }: OneCard) {
  const url = useThumb(piece, { kind: 'photo' }, [piece.photo, piece.ready], PICTURE);
  return (
    <Card
      on={on}
      url={url}
      title={words.common.thePhoto}
      name={words.common.photo}
      compact={compact}
      strength={piece.strength}
      onPress={onPress}
      testID="card-photo"
    />
  );
}

/** Sources that are the picture itself, treated: their cards show the piece up to them. */
const OF_PICTURE = ['below', 'photo', 'cutout'];

function CoatCard({ piece, coat, index, on, compact, onPress }: OneCard & { coat: Coat; index: number }) {
  const names = useOwn((s) => s.names);
  const [menu, setMenu] = useState<MenuPlace | null>(null);
  const upTo = piece.coats.slice(0, indexOf(piece, coat.id) + 1);
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
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (on) place.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [on]);
  const { hold, choose } = useBench.getState();
  return (
    <div
      ref={(node) => {
        setNodeRef(node);
        place.current = node;
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
        url={url}
        title={coatTitle(coat, names)}
        name={coatName(coat, names)}
        under={coat.visible ? modeById(coat.blend).label.toLowerCase() : 'hidden'}
        strength={coat.strength}
        visible={coat.visible}
        compact={compact}
        inset={masked ? mask : null}
        describedBy={attributes['aria-describedby']}
        testID={`card-${index}`}
        onPress={onPress}
        onHold={(held) => hold(held ? { kind: 'upTo', coat: coat.id } : null)}
        onFlip={() => setVisible(coat.id, !coat.visible)}
        onMenu={(at) => {
          choose(coat.id);
          setMenu(at);
        }}
      />
      {menu ? <CoatMenu coat={coat} at={menu} onClose={() => setMenu(null)} /> : null}
    </div>
  );
}

const begin: CSSProperties = { marginTop: 8, textAlign: 'center', padding: 2, fontFamily: SANS, fontSize: 13, lineHeight: '15px', flexShrink: 0 };
const short: CSSProperties = { height: 44, marginTop: 6, fontSize: 12 };
const row: CSSProperties = {
  display: 'flex',
  flex: 1,
  gap: 10,
  padding: '0 12px',
  overflowX: 'auto',
  overflowY: 'hidden',
  boxSizing: 'border-box',
  alignItems: 'flex-start',
  touchAction: 'pan-x',
};

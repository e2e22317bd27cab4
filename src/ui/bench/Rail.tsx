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
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { router } from 'expo-router';
import { Fragment, type CSSProperties, type ReactNode } from 'react';
import { findCoat, groupOf, innerCoats } from '@/core/piece/groups';
import { moveToCoat } from '@/core/piece/stacking';
import type { Coat, Piece } from '@/core/piece/schema';
import { shownPiece, useBench } from '@/store/bench';
import { useRail } from '@/store/several';
import { SANS, useColours } from '../theme';
import { Card, plainButton, square } from './Card';
import { CoatCard, PICTURE } from './CoatCard';
import { useThumb } from './useThumb';
import { words } from '../words';

/** The stack as a row of cards, left to right as the work was done; each shows what its coat is. `compact` leaves out the words, for short views. */
export function Rail({ compact }: { compact?: boolean }) {
  const piece = useBench(shownPiece);
  const kept = useBench((s) => s.piece);
  const chosen = useBench((s) => s.chosen);
  const { several, open } = useRail();
  const { choose, openFacet, change, preview } = useBench.getState();
  const c = useColours();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (!piece || !kept) return null;
  // While a card is dragged the picture shows the new order before it is dropped.
  const over = ({ active, over: target }: DragOverEvent) => target && preview(moveToCoat(String(active.id), String(target.id)));
  const end = ({ active, over: target }: DragEndEvent) => {
    if (target && target.id !== active.id) change(words.rail.move, moveToCoat(String(active.id), String(target.id)));
    else preview(null);
  };
  /** Cards of coats and, behind the card of an unfolded group, of those in it. */
  const cards = (coats: readonly Coat[], path = ''): ReactNode[] =>
    coats.map((coat, i) => {
      const place = `${path}${i}`;
      const card = (
        <CoatCard
          piece={piece}
          coat={findCoat(piece, coat.id) ?? coat}
          place={place}
          index={i}
          on={several ? several.includes(coat.id) : chosen === coat.id}
          marking={several !== null}
          compact={compact}
          onPress={(together) => {
            if (together && !several) useRail.getState().begin();
            if (together || several) useRail.getState().toggle(coat.id);
            else choose(coat.id);
          }}
        />
      );
      if (!groupOf(coat)) return <Fragment key={coat.id}>{card}</Fragment>;
      return (
        <div key={coat.id} style={{ ...band, background: c.field, borderColor: c.line, height: compact ? 56 : 100 }}>
          {card}
          {open.includes(coat.id) ? cards(innerCoats(coat), `${place}.`) : null}
        </div>
      );
    });
  const listed = (coats: readonly Coat[]): string[] =>
    coats.flatMap((coat) => [coat.id, ...(open.includes(coat.id) ? listed(innerCoats(coat)) : [])]);
  return (
    <div
      style={{ ...row, height: compact ? 58 : 106, background: c.chrome, borderTop: `1px solid ${c.line}` }}
      role="group"
      aria-label={words.rail.theCoatsBottomToTop}
    >
      <PhotoCard piece={piece} on={chosen === null} compact={compact} onPress={() => choose(null)} />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragOver={over} onDragEnd={end} onDragCancel={() => preview(null)}>
        <SortableContext items={listed(kept.coats)} strategy={horizontalListSortingStrategy}>
          {cards(kept.coats)}
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

const begin: CSSProperties = { marginTop: 8, textAlign: 'center', padding: 2, fontFamily: SANS, fontSize: 13, lineHeight: '15px', flexShrink: 0 };
const short: CSSProperties = { height: 44, marginTop: 6, fontSize: 12 };
/** What holds a group's cards together. */
const band: CSSProperties = {
  display: 'flex',
  gap: 10,
  padding: '0 6px',
  margin: '2px 0',
  borderWidth: 1,
  borderStyle: 'solid',
  borderRadius: 2,
  boxSizing: 'border-box',
  flexShrink: 0,
};
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

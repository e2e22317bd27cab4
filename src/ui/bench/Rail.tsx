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
import { useEffect, useRef, type CSSProperties, type ReactNode } from 'react';
import { SANS, SANS_MEDIUM, useColours } from '../theme';
import { modeById } from '@/core/blend';
import { indexOf, moveCoat } from '@/core/piece/edits';
import { coatName, coatTitle } from '@/core/piece/naming';
import type { Coat, Piece } from '@/core/piece/schema';
import { shownPiece, useBench } from '@/store/bench';
import { useOwn } from '@/store/own';
import { useThumb } from './useThumb';

export const CARD = 72;

/** The stack as a row of sample cards, left to right as the work was done; each shows the piece up to and with that coat. */
export function Rail() {
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
    <div style={{ ...row, background: c.chrome, borderTop: `1px solid ${c.line}` }} role="group" aria-label="The coats, bottom to top">
      <PhotoCard piece={piece} on={chosen === null} onPress={() => choose(null)} />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragOver={over} onDragEnd={end} onDragCancel={() => preview(null)}>
        <SortableContext items={kept.coats.map((k) => k.id)} strategy={horizontalListSortingStrategy}>
          {kept.coats.map((coat, i) => (
            <CoatCard
              key={coat.id}
              piece={piece}
              coat={piece.coats.find((k) => k.id === coat.id) ?? coat}
              index={i}
              on={chosen === coat.id}
              onPress={() => choose(coat.id)}
            />
          ))}
        </SortableContext>
      </DndContext>
      <Begin onPress={() => openFacet('add')}>Add a material</Begin>
      {kept.coats.length === 0 ? <Begin onPress={() => openFacet('starts')}>Start from a look</Begin> : null}
    </div>
  );
}

/** A card that is not there yet. */
function Begin({ onPress, children }: { onPress(): void; children: string }) {
  const c = useColours();
  return (
    <button type="button" onClick={onPress} style={{ ...plain, ...square, ...begin, border: `1.5px dashed ${c.quiet}`, color: c.ink }}>
      {children}
    </button>
  );
}

const begin: CSSProperties = { marginTop: 8, fontFamily: SANS, fontSize: 14, lineHeight: '17px', flexShrink: 0 };

function PhotoCard({ piece, on, onPress }: { piece: Piece; on: boolean; onPress(): void }) {
  const url = useThumb(piece, { kind: 'photo' }, [piece.photo, piece.ready], CARD * 2);
  return <Card on={on} url={url} title="The photo" below="Photo" strength={piece.strength} onPress={onPress} testID="card-photo" />;
}

function CoatCard({ piece, coat, index, on, onPress }: { piece: Piece; coat: Coat; index: number; on: boolean; onPress(): void }) {
  const names = useOwn((s) => s.names);
  const place = indexOf(piece, coat.id);
  const upTo = piece.coats.slice(0, place + 1);
  const url = useThumb(piece, { kind: 'upTo', coat: coat.id }, [piece.photo, piece.ready, piece.guards, ...upTo], CARD * 2);
  const masked = coat.mask.start === 'none' || coat.mask.parts.length > 0;
  const mask = useThumb(
    masked ? piece : null,
    { kind: 'mask', coat: coat.id },
    [piece.photo, piece.ready, piece.guards, ...upTo.slice(0, -1), coat.mask],
    48,
  );
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: coat.id });
  const button = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (on) button.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [on]);
  return (
    <div
      ref={(node) => {
        setNodeRef(node);
        button.current = node;
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
        below={coatName(coat, names)}
        under={coat.visible ? modeById(coat.blend).label.toLowerCase() : 'hidden'}
        strength={coat.strength}
        hidden={!coat.visible}
        inset={masked ? mask : null}
        onPress={onPress}
        describedBy={attributes['aria-describedby']}
        testID={`card-${index}`}
      />
    </div>
  );
}

interface CardProps {
  on: boolean;
  url: string | null;
  title: string;
  /** Its name, and what stands under it. */
  below: ReactNode;
  under?: string;
  strength: number;
  hidden?: boolean;
  inset?: string | null;
  describedBy?: string;
  testID: string;
  onPress(): void;
}

function Card({ on, url, title, below, under, strength, hidden, inset, describedBy, testID, onPress }: CardProps) {
  const c = useColours();
  // The arc round the upper right corner is as long as the coat is strong.
  const arc = 2 * Math.PI * 13 * 0.75;
  return (
    <button
      type="button"
      aria-pressed={on}
      aria-label={`${title}, ${Math.round(strength * 100)} %${hidden ? ', hidden' : ''}`}
      aria-describedby={describedBy}
      title={title}
      data-testid={testID}
      onClick={onPress}
      style={{ ...plain, paddingTop: 8, width: CARD, flexShrink: 0 }}
    >
      <span
        style={{
          ...square,
          outline: on ? `2.5px solid ${c.accent}` : `1px solid ${c.line}`,
          outlineOffset: on ? 1 : 0,
          background: c.card,
          opacity: hidden ? 0.4 : 1,
        }}
      >
        {url ? <img src={url} alt="" draggable={false} style={picture} /> : null}
        {inset ? <img src={inset} alt="" draggable={false} style={{ ...insetStyle, border: `1px solid ${c.raised}` }} /> : null}
        <svg width={34} height={34} viewBox="-17 -17 34 34" style={arcStyle} aria-hidden>
          <circle r={13} fill="none" stroke="#000" strokeOpacity={0.35} strokeWidth={4} strokeDasharray={`${arc} 200`} transform="rotate(180)" />
          <circle r={13} fill="none" stroke="#fff" strokeWidth={2.2} strokeDasharray={`${arc * strength} 200`} transform="rotate(180)" />
        </svg>
      </span>
      <span style={{ ...word, color: on ? c.accent : c.ink, fontFamily: on ? SANS_MEDIUM : SANS }}>{below}</span>
      {under ? <span style={{ ...word, paddingTop: 0, lineHeight: '15px', color: c.quiet, fontFamily: SANS }}>{under}</span> : null}
    </button>
  );
}

const row: CSSProperties = {
  display: 'flex',
  gap: 10,
  padding: '0 12px 4px',
  overflowX: 'auto',
  overflowY: 'hidden',
  height: 116,
  boxSizing: 'border-box',
  alignItems: 'flex-start',
  touchAction: 'pan-x',
};
const plain: CSSProperties = {
  border: 'none',
  background: 'none',
  padding: 0,
  cursor: 'pointer',
  display: 'block',
  textAlign: 'center',
  borderRadius: 2,
};
const square: CSSProperties = {
  display: 'block',
  position: 'relative',
  width: CARD,
  height: CARD,
  borderRadius: 2,
  overflow: 'hidden',
  boxSizing: 'border-box',
};
const picture: CSSProperties = { width: '100%', height: '100%', objectFit: 'cover', display: 'block' };
const insetStyle: CSSProperties = { position: 'absolute', left: 4, bottom: 4, width: 22, height: 22, objectFit: 'cover' };
const arcStyle: CSSProperties = { position: 'absolute', right: -2, top: -2 };
const word: CSSProperties = {
  display: 'block',
  fontSize: 13,
  lineHeight: '16px',
  paddingTop: 3,
  whiteSpace: 'nowrap',
  overflow: 'hidden',
  textOverflow: 'ellipsis',
};

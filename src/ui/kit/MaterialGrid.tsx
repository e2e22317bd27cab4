import { useDeferredValue, useEffect, useMemo, useState, type CSSProperties, type ReactNode } from 'react';
import { View } from 'react-native';
import { Text, TextInput } from 'react-native-paper';
import { families, materials, type Material } from '@/core/materials';
import type { SourceInput } from '@/core/piece/edits';
import { complain } from '@/store/notices';
import { labelOf, sourceOf, useOwn } from '@/store/own';
import { shelfId, useShelf } from '@/store/shelf';
import type { OwnMaterial } from '@/store/storage';
import { SANS, SERIF, useColours } from '../theme';
import { MaterialThumb } from './MaterialThumb';
import { OwnThumb } from './OwnThumb';

interface Props {
  /** Width of a card in CSS pixels. */
  size: number;
  /** The material in use, marked. */
  current?: SourceInput;
  onChoose(source: SourceInput): void;
}

interface Entry {
  id: string;
  label: string;
  family: string;
  /** What it is found by. */
  words: string;
  source: SourceInput;
  own?: OwnMaterial;
}

const familyLabel = new Map<string, string>(families.map((f) => [f.id, f.label]));

const made: Entry[] = materials.map((m: Material) => ({
  id: m.id,
  label: m.label,
  family: m.family,
  words: `${m.label} ${m.help} ${familyLabel.get(m.family)}`.toLowerCase(),
  source: { kind: 'material', id: m.id, seed: 1, params: {} },
}));

const ownEntry = (own: OwnMaterial, label: string): Entry => ({
  id: own.key,
  label,
  family: own.family ?? 'own',
  words: `${label} ${own.maker ?? ''} ${familyLabel.get(own.family ?? '') ?? ''} your own`.toLowerCase(),
  source: sourceOf(own),
  own,
});

interface Group {
  id: string;
  label: string;
  entries: Entry[];
  /** Said after a card's name, where the same card stands in its family too. */
  also?: string;
}

/** The shelf in groups: favourites and what was used last, own pictures, then the families; or what a word finds. */
function useGroups(find: string, recent: string[]): Group[] {
  const own = useOwn((s) => s.list);
  const favourites = useShelf((s) => s.favourites);
  return useMemo(() => {
    const all = [...own.map((o) => ownEntry(o, labelOf(o))), ...made];
    const words = find.trim().toLowerCase().split(/\s+/).filter(Boolean);
    const found = all.filter((e) => words.every((w) => e.words.includes(w)));
    const byId = new Map(all.map((e) => [e.id, e]));
    const pick = (ids: string[]) => ids.flatMap((id) => byId.get(id) ?? []);
    const groups: Group[] =
      words.length > 0
        ? []
        : [
            { id: 'favourites', label: 'Favourites', entries: pick(favourites), also: 'favourite' },
            { id: 'recent', label: 'Used lately', entries: pick(recent), also: 'used lately' },
          ];
    groups.push({ id: 'own', label: 'Your own', entries: found.filter((e) => e.family === 'own') });
    for (const f of families) groups.push({ id: f.id, label: f.label, entries: found.filter((e) => e.family === f.id) });
    return groups.filter((g) => g.entries.length > 0);
  }, [own, favourites, recent, find]);
}

/** The shelf as cards that are found by a word and stand in families. */
export function MaterialGrid({ size, current, onChoose }: Props) {
  const c = useColours();
  const [find, setFind] = useState('');
  // As it was when the shelf was opened: cards do not move while one after another is tried.
  const [recent, setRecent] = useState<string[]>([]);
  const groups = useGroups(useDeferredValue(find), recent);
  const favourites = useShelf((s) => s.favourites);
  useEffect(() => {
    const { refresh } = useShelf.getState();
    void refresh().then(() => setRecent(useShelf.getState().recent), complain);
  }, []);
  // As many pixels as a card has, a little more than its least width.
  const side = Math.min(256, Math.ceil((size * 1.2 * (globalThis.devicePixelRatio || 1)) / 16) * 16);
  const used = current ? shelfId(current) : null;
  const grid: CSSProperties = { display: 'grid', gridTemplateColumns: `repeat(auto-fill, minmax(${size}px, 1fr))`, gap: 10 };
  // Large cards stand on a screen of their own: families side by side where there is room.
  const shelf: CSSProperties =
    size > 120 ? { display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(340px, 1fr))', gap: '16px 28px' } : { display: 'grid', gap: 8 };
  return (
    <View style={{ gap: 8 }}>
      <TextInput
        mode="outlined"
        dense
        label="Find a material"
        aria-label="Find a material"
        value={find}
        onChangeText={setFind}
        style={{ maxWidth: 420 }}
      />
      {groups.length === 0 ? <Text style={{ color: c.ink }}>{`Nothing on the shelf is called “${find.trim()}”; try another word.`}</Text> : null}
      <div style={shelf}>
        {groups.map((g) => (
          <Family key={g.id} label={g.label}>
            <div style={grid}>
              {g.entries.map((e) => (
                <Card
                  key={e.id}
                  size={size}
                  label={e.label}
                  says={g.also ? `${e.label}, ${g.also}` : e.label}
                  on={used === e.id}
                  favourite={favourites.includes(e.id)}
                  onPress={() => onChoose(e.source)}
                >
                  {e.own ? <OwnThumb own={e.own} label="" /> : <MaterialThumb id={e.id} label="" side={side} />}
                </Card>
              ))}
            </div>
          </Family>
        ))}
      </div>
    </View>
  );
}

function Family({ label, children }: { label: string; children: ReactNode }) {
  const c = useColours();
  return (
    <View>
      <Text role="heading" aria-level={3} style={{ fontFamily: SERIF, fontSize: 16, color: c.ink, paddingVertical: 4 }}>
        {label}
      </Text>
      {children}
    </View>
  );
}

interface CardProps {
  size: number;
  label: string;
  says: string;
  on: boolean;
  favourite: boolean;
  onPress(): void;
  children: ReactNode;
}

function Card({ size, label, says, on, favourite, onPress, children }: CardProps) {
  const c = useColours();
  return (
    <button type="button" aria-pressed={on} aria-label={says} onClick={onPress} style={plain}>
      <span
        style={{
          display: 'block',
          position: 'relative',
          aspectRatio: '1',
          overflow: 'hidden',
          borderRadius: 2,
          background: c.card,
          outline: on ? `2.5px solid ${c.accent}` : `1px solid ${c.line}`,
          outlineOffset: on ? 1 : 0,
        }}
      >
        {children}
        {favourite ? <span aria-hidden style={{ ...ribbon, background: c.accent }} /> : null}
      </span>
      <span
        style={{
          display: 'block',
          paddingTop: 4,
          fontFamily: SANS,
          fontSize: 14,
          lineHeight: '17px',
          color: on ? c.accent : c.ink,
          minHeight: size > 100 ? 20 : 34,
          overflowWrap: 'anywhere',
        }}
      >
        {label}
      </span>
    </button>
  );
}

const plain: CSSProperties = {
  border: 'none',
  background: 'none',
  padding: 0,
  cursor: 'pointer',
  textAlign: 'left',
  display: 'block',
  alignSelf: 'start',
};
/** A strip of paper that sticks out: a favourite. */
const ribbon: CSSProperties = { position: 'absolute', top: 0, right: 8, width: 8, height: 18, boxShadow: '0 0 0 1px #fff' };

import { useDeferredValue, useEffect, useState, type CSSProperties, type ReactNode } from 'react';
import { View } from 'react-native';
import { Text, TextInput } from 'react-native-paper';
import type { SourceInput } from '@/core/piece/edits';
import { complain } from '@/store/notices';
import { shelfId, useShelf } from '@/store/shelf';
import { SERIF, useColours } from '../theme';
import { MaterialCard } from './MaterialCard';
import { MaterialThumb } from './MaterialThumb';
import { OwnThumb } from './OwnThumb';
import { useGroups } from './shelfEntries';

interface Props {
  /** Width of a card in CSS pixels. */
  size: number;
  /** The material in use, marked. */
  current?: SourceInput;
  onChoose(source: SourceInput): void;
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
                <MaterialCard
                  key={e.id}
                  size={size}
                  label={e.label}
                  says={g.also ? `${e.label}, ${g.also}` : e.label}
                  on={used === e.id}
                  favourite={favourites.includes(e.id)}
                  onPress={() => onChoose(e.source)}
                >
                  {e.own ? <OwnThumb own={e.own} label="" /> : <MaterialThumb id={e.id} label="" side={side} />}
                </MaterialCard>
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

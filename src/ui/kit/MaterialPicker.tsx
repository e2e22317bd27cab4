import { useDeferredValue, useEffect, useMemo, useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { IconButton, Text, TextInput } from 'react-native-paper';
import type { SourceInput } from '@/core/piece/edits';
import { complain } from '@/store/notices';
import { shelfId, useShelf } from '@/store/shelf';
import { useColours } from '../theme';
import { Chips } from './Chips';
import { MaterialCard } from './MaterialCard';
import { MaterialThumb } from './MaterialThumb';
import { OwnThumb } from './OwnThumb';
import { useGroups, type Entry } from './shelfEntries';

interface PickerProps {
  /** The material that is tried or in use, marked. */
  current?: SourceInput;
  onChoose(source: SourceInput): void;
  /** More that a word finds, above the materials. */
  found?(word: string): ReactNode;
}

const SIZE = 96;
const LATELY = ['favourites', 'recent'];

/** Materials by family, three in a row on a phone: what was used lately first, or what a word finds. */
export function MaterialPicker({ current, onChoose, found }: PickerProps) {
  const c = useColours();
  const [find, setFind] = useState<string | null>(null);
  // As it was when the picker was opened: cards do not move while one after another is tried.
  const [recent, setRecent] = useState<string[]>([]);
  const word = useDeferredValue(find ?? '').trim();
  const groups = useGroups(word, recent);
  const favourites = useShelf((s) => s.favourites);
  const [family, setFamily] = useState('all');
  useEffect(() => {
    const { refresh } = useShelf.getState();
    void refresh().then(() => setRecent(useShelf.getState().recent), complain);
  }, []);
  const lately = groups.filter((g) => LATELY.includes(g.id));
  const families = groups.filter((g) => !LATELY.includes(g.id));
  const shown = useMemo(() => {
    const once = new Map<string, Entry>();
    const from = word !== '' || family === 'all' ? [...lately, ...families] : family === 'lately' ? lately : families.filter((g) => g.id === family);
    for (const g of from) for (const e of g.entries) once.set(e.id, e);
    return [...once.values()];
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [groups, family, word]);
  const side = Math.min(256, Math.ceil((SIZE * 1.2 * (globalThis.devicePixelRatio || 1)) / 16) * 16);
  const used = current ? shelfId(current) : null;
  const options = [
    { value: 'all', label: 'All' },
    ...(lately.length > 0 ? [{ value: 'lately', label: 'Lately' }] : []),
    ...families.map((g) => ({ value: g.id, label: g.label })),
  ];
  return (
    <View style={{ gap: 8 }}>
      {find === null ? (
        <View style={{ flexDirection: 'row', alignItems: 'center' }}>
          <IconButton
            icon="magnify"
            aria-label="Search materials"
            iconColor={c.ink}
            size={22}
            style={{ margin: 0, width: 44, height: 44 }}
            onPress={() => setFind('')}
          />
          <View style={{ flex: 1, minWidth: 0 }}>
            <Chips label="Family" options={options} value={family} onChange={setFamily} />
          </View>
        </View>
      ) : (
        <TextInput
          mode="outlined"
          dense
          autoFocus
          label="Find a material"
          aria-label="Find a material"
          value={find}
          onChangeText={setFind}
          right={<TextInput.Icon icon="close" aria-label="Close the search" onPress={() => setFind(null)} />}
        />
      )}
      {word !== '' ? found?.(word) : null}
      {shown.length === 0 ? <Text style={{ color: c.ink }}>{`No material is called “${word}”; try another word.`}</Text> : null}
      <div style={{ display: 'grid', gridTemplateColumns: `repeat(auto-fill, minmax(${SIZE}px, 1fr))`, gap: 8 }}>
        {shown.map((e) => (
          <MaterialCard
            key={e.id}
            size={SIZE}
            label={e.label}
            says={e.label}
            on={used === e.id}
            favourite={favourites.includes(e.id)}
            onPress={() => onChoose(e.source)}
          >
            {e.own ? <OwnThumb own={e.own} label="" /> : <MaterialThumb id={e.id} label="" side={side} />}
          </MaterialCard>
        ))}
      </div>
    </View>
  );
}

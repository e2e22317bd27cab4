import { useDeferredValue, useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { IconButton, Text, TextInput } from 'react-native-paper';
import type { SourceInput } from '@/core/piece/edits';
import { useColours } from '../theme';
import { Choice } from './Choice';
import { MaterialCards } from './MaterialCards';
import { useGroups } from './shelfEntries';
import { words } from '../words';

interface PickerProps {
  /** The material that is tried or in use, marked. */
  current?: SourceInput;
  onChoose(source: SourceInput): void;
  /** More that a word finds, above the materials. */
  found?(word: string): ReactNode;
  /** More that belongs to a family, above its materials. */
  above?(family: string): ReactNode;
}

const LATELY = ['favourites', 'recent'];

/** Materials by family, three in a row on a phone: what was used lately first, or what a word finds. */
export function MaterialPicker({ current, onChoose, found, above }: PickerProps) {
  const c = useColours();
  const [find, setFind] = useState<string | null>(null);
  const [family, setFamily] = useState('all');
  const word = useDeferredValue(find ?? '').trim();
  const groups = useGroups(word);
  const hasLately = groups.some((g) => LATELY.includes(g.id));
  const families = groups.filter((g) => !LATELY.includes(g.id));
  const isIn = (id: string) => word !== '' || family === 'all' || id === family || (family === 'lately' && LATELY.includes(id));
  // A material stands in its family and may stand among those used lately: it is shown once.
  const entries = [...new Map(groups.filter((g) => isIn(g.id)).flatMap((g) => g.entries.map((e) => [e.id, e] as const))).values()];
  const options = [
    { value: 'all', label: words.common.all },
    ...(hasLately ? [{ value: 'lately', label: words.materialPicker.lately }] : []),
    ...families.map((g) => ({ value: g.id, label: g.label })),
  ];
  return (
    <View style={{ gap: 8 }}>
      {find === null ? (
        <View style={{ flexDirection: 'row', alignItems: 'center' }}>
          <IconButton
            icon="magnify"
            aria-label={words.materialPicker.searchMaterials}
            iconColor={c.ink}
            size={22}
            style={{ margin: 0, width: 44, height: 44 }}
            onPress={() => setFind('')}
          />
          <View style={{ flex: 1, minWidth: 0 }}>
            <Choice label={words.common.family} bare scrolls options={options} value={family} onChange={setFamily} />
          </View>
        </View>
      ) : (
        <TextInput
          mode="outlined"
          dense
          autoFocus
          label={words.common.findAMaterial}
          aria-label={words.common.findAMaterial}
          value={find}
          onChangeText={setFind}
          right={<TextInput.Icon icon="close" aria-label={words.materialPicker.closeTheSearch} onPress={() => setFind(null)} />}
        />
      )}
      {word !== '' ? found?.(word) : above?.(family)}
      {entries.length === 0 ? <Text style={{ color: c.ink }}>{words.materialPicker.nothingFound(word)}</Text> : null}
      <MaterialCards entries={entries} size={96} current={current} onChoose={onChoose} />
    </View>
  );
}

import { useDeferredValue, useState, type CSSProperties, type ReactNode } from 'react';
import { View } from 'react-native';
import { Text, TextInput } from 'react-native-paper';
import type { SourceInput } from '@/core/piece/edits';
import { SERIF, useColours } from '../theme';
import { MaterialCards } from './MaterialCards';
import { useGroups } from './shelfEntries';
import { words } from '../words';

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
  const groups = useGroups(useDeferredValue(find));
  // Large cards stand on a screen of their own: families side by side where there is room.
  const shelf: CSSProperties =
    size > 120 ? { display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(340px, 1fr))', gap: '16px 28px' } : { display: 'grid', gap: 8 };
  return (
    <View style={{ gap: 8 }}>
      <TextInput
        mode="outlined"
        dense
        label={words.common.findAMaterial}
        aria-label={words.common.findAMaterial}
        value={find}
        onChangeText={setFind}
        style={{ maxWidth: 420 }}
      />
      {groups.length === 0 ? <Text style={{ color: c.ink }}>{words.materialGrid.nothingFound(find.trim())}</Text> : null}
      <div style={shelf}>
        {groups.map((g) => (
          <Family key={g.id} label={g.label}>
            <MaterialCards entries={g.entries} size={size} current={current} also={g.also} onChoose={onChoose} />
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

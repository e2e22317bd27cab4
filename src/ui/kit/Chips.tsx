import { Pressable, ScrollView, StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { SANS_MEDIUM, useColours } from '../theme';

interface ChipsProps {
  label: string;
  options: readonly { value: string; label: string }[];
  value: string;
  onChange(value: string): void;
}

/** One of many in a row that is pushed along. */
export function Chips({ label, options, value, onChange }: ChipsProps) {
  const c = useColours();
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      style={styles.bar}
      contentContainerStyle={styles.row}
      role="radiogroup"
      aria-label={label}
    >
      {options.map((o) => {
        const on = o.value === value;
        return (
          <Pressable
            key={o.value}
            role="radio"
            aria-checked={on}
            onPress={() => onChange(o.value)}
            style={[styles.chip, { backgroundColor: on ? c.raised : 'transparent', borderColor: on ? c.accent : c.line, borderWidth: on ? 2 : 1 }]}
          >
            <Text numberOfLines={1} style={{ color: c.ink, fontFamily: on ? SANS_MEDIUM : undefined }}>
              {o.label}
            </Text>
          </Pressable>
        );
      })}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  bar: { flexGrow: 0 },
  row: { gap: 6 },
  chip: { minHeight: 40, minWidth: 44, paddingHorizontal: 10, alignItems: 'center', justifyContent: 'center', borderRadius: 2 },
});

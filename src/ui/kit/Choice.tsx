import type { KeyboardEvent } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { SANS_MEDIUM, useColours } from '../theme';

export interface ChoiceProps<T extends string> {
  label: string;
  options: readonly { value: T; label: string }[];
  value: T;
  onChange(value: T): void;
  /** Hide the label; it still names the group. */
  bare?: boolean;
  /** In one row that is pushed along, for many. */
  scrolls?: boolean;
}

/** One of a few, side by side as cut cards. */
export function Choice<T extends string>({ label, options, value, onChange, bare, scrolls }: ChoiceProps<T>) {
  const c = useColours();
  const chosen = Math.max(
    0,
    options.findIndex((o) => o.value === value),
  );
  // One Tab stop for the group; arrows go along it and choose.
  const onKeyDown = (e: KeyboardEvent<HTMLElement>) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
    if (!step) return;
    e.preventDefault();
    e.stopPropagation();
    const to = (chosen + step + options.length) % options.length;
    (e.currentTarget.parentElement?.children[to] as HTMLElement | undefined)?.focus();
    onChange(options[to].value);
  };
  const cards = options.map((o, i) => {
    const on = o.value === value;
    return (
      <Pressable
        key={o.value}
        role="radio"
        aria-checked={on}
        tabIndex={i === chosen ? 0 : -1}
        {...({ onKeyDown } as object)}
        onPress={() => onChange(o.value)}
        style={[styles.card, { backgroundColor: on ? c.raised : 'transparent', borderColor: on ? c.accent : c.quiet }]}
      >
        <Text numberOfLines={scrolls ? 1 : undefined} style={{ color: c.ink, fontFamily: on ? SANS_MEDIUM : undefined }}>
          {o.label}
        </Text>
      </Pressable>
    );
  });
  return (
    <View style={styles.all}>
      {bare ? null : <Text style={[styles.label, { color: c.ink }]}>{label}</Text>}
      {scrolls ? (
        <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={{ gap: 6 }} role="radiogroup" aria-label={label}>
          {cards}
        </ScrollView>
      ) : (
        <View style={styles.row} role="radiogroup" aria-label={label}>
          {cards}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { paddingVertical: 6, gap: 4 },
  label: { fontSize: 15 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
  card: { minHeight: 44, minWidth: 44, paddingHorizontal: 12, alignItems: 'center', justifyContent: 'center', borderWidth: 1, borderRadius: 2 },
});

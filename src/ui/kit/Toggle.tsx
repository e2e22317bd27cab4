import { StyleSheet, View } from 'react-native';
import { Switch, Text } from 'react-native-paper';
import { useColours } from '../theme';

interface ToggleProps {
  label: string;
  value: boolean;
  onChange(value: boolean): void;
  help?: string;
}

export function Toggle({ label, value, onChange, help }: ToggleProps) {
  const c = useColours();
  return (
    <View style={styles.row}>
      <View style={styles.words}>
        <Text style={{ color: c.ink, fontSize: 15 }}>{label}</Text>
        {help ? <Text style={{ color: c.quiet, fontSize: 13 }}>{help}</Text> : null}
      </View>
      <Switch value={value} onValueChange={onChange} aria-label={label} color={c.accent} />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', minHeight: 44, gap: 12 },
  words: { flexShrink: 1 },
});

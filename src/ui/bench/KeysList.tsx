import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { SANS_MEDIUM, useColours } from '../theme';
import { benchKeys } from './useBenchKeys';

/** The keys of the bench and what each does. */
export function KeysList() {
  const c = useColours();
  return benchKeys.map(([key, says]) => (
    <View key={key} style={{ flexDirection: 'row', paddingVertical: 5, gap: 16 }}>
      <Text style={{ width: 130, fontFamily: SANS_MEDIUM, color: c.ink }}>{key}</Text>
      <Text style={{ flex: 1, color: c.ink }}>{says}</Text>
    </View>
  ));
}

import { useIsFocused } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Snackbar, Text } from 'react-native-paper';
import { useNotices } from '@/store/notices';
import { useColours } from '../theme';
import { words } from '../words';

/**
 * Messages; errors stay until they are put away. They cover no control: on a page they take their room under what scrolls, on the bench they lie over the
 * upper edge of the picture.
 */
export function Notices({ over }: { over?: 'picture' }) {
  const { list, put } = useNotices();
  const c = useColours();
  // Screens that lie under the present one stay mounted.
  const isSeen = useIsFocused();
  if (!isSeen || list.length === 0) return null;
  return (
    <View style={over ? styles.over : styles.under} pointerEvents="box-none">
      {list.map((n) => (
        <Notice key={n.id} c={c} notice={n} put={put} />
      ))}
    </View>
  );
}

type Props = { notice: ReturnType<typeof useNotices.getState>['list'][number]; put(id: number): void; c: ReturnType<typeof useColours> };

function Notice({ notice: { id, text, action, lasting }, put, c }: Props) {
  return (
    <Snackbar
      visible
      role={lasting ? 'alert' : 'status'}
      duration={lasting ? Infinity : action ? 12000 : 4000}
      onDismiss={() => put(id)}
      action={action ? { label: action.label, onPress: action.run, textColor: c.chrome } : undefined}
      icon="close"
      iconAccessibilityLabel={words.notices.dismiss}
      onIconPress={lasting ? () => put(id) : undefined}
      // It stands where Notices puts it, not over the lower edge of the screen.
      wrapperStyle={styles.wrapper}
      style={[styles.notice, { backgroundColor: c.ink }]}
    >
      <Text style={{ color: c.chrome }}>{text}</Text>
    </Snackbar>
  );
}

const styles = StyleSheet.create({
  over: { position: 'absolute', left: 12, right: 12, top: 12, alignItems: 'center', gap: 8 },
  under: { alignItems: 'center', gap: 8, padding: 8 },
  wrapper: { position: 'relative', bottom: 'auto', width: 'auto', maxWidth: 640 },
  notice: { margin: 0, borderRadius: 3 },
});

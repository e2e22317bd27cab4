import { useIsFocused } from 'expo-router';
import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, Text } from 'react-native-paper';
import { useNotices } from '@/store/notices';
import { useColours } from '../theme';

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

function Notice({ notice, put, c }: Props) {
  useEffect(() => {
    if (notice.lasting) return;
    const timer = setTimeout(() => put(notice.id), notice.action ? 12000 : 4000);
    return () => clearTimeout(timer);
  }, [notice, put]);
  return (
    <View role={notice.lasting ? 'alert' : 'status'} style={[styles.notice, { backgroundColor: c.ink }]}>
      <Text style={[styles.text, { color: c.chrome }]}>{notice.text}</Text>
      {notice.action ? (
        <Button compact textColor={c.chrome} onPress={() => (notice.action?.run(), put(notice.id))}>
          {notice.action.label}
        </Button>
      ) : null}
      {notice.lasting ? (
        <Button compact textColor={c.chrome} onPress={() => put(notice.id)}>
          Dismiss
        </Button>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  over: { position: 'absolute', left: 12, right: 12, top: 12, alignItems: 'center', gap: 8 },
  under: { alignItems: 'center', gap: 8, padding: 8 },
  notice: {
    // Words that would be squeezed by what can be done stand above it.
    flexDirection: 'row',
    flexWrap: 'wrap',
    justifyContent: 'flex-end',
    alignItems: 'center',
    maxWidth: 640,
    paddingLeft: 16,
    paddingRight: 8,
    paddingVertical: 8,
    borderRadius: 3,
    gap: 8,
  },
  text: { flexGrow: 1, flexShrink: 1, flexBasis: 200 },
});

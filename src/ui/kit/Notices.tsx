import { useEffect } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Button, Text } from 'react-native-paper';
import { useNotices } from '@/store/notices';
import { useColours } from '../theme';

/** Messages at the lower edge, above everything; errors stay until they are put away. */
export function Notices() {
  const { list, put } = useNotices();
  const c = useColours();
  // On a narrow screen the facets' names lie along the lower edge: they stay free.
  const bottom = useWindowDimensions().width < 1024 ? 64 : 16;
  return (
    <View style={[styles.place, { bottom }]} pointerEvents="box-none">
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
  place: { position: 'absolute', left: 16, right: 16, alignItems: 'center', gap: 8 },
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

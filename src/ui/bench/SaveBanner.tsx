import { useState } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { useBench } from '@/store/bench';
import { complain } from '@/store/notices';
import { retrySaving } from '@/store/saving';
import { workHere } from '@/store/session';
import { Act } from '../kit/Act';
import { useColours } from '../theme';
import { RoomDialog } from '../pieces/RoomDialog';
import { words } from '../words';

/** Under the top bar while the piece is open in another tab, or while it cannot be saved; with what can be done about it. */
export function SaveBanner() {
  const follows = useBench((s) => s.follows);
  const failed = useBench((s) => s.saved === 'failed');
  const trouble = useBench((s) => s.trouble);
  const [making, setMaking] = useState(false);
  if (follows)
    return (
      <Banner text={words.saveBanner.openInAnotherTabWhat}>
        <Act onPress={() => void workHere().catch(complain)}>{words.saveBanner.workHere}</Act>
      </Banner>
    );
  if (!failed && !making) return null;
  return (
    <>
      {failed && trouble ? (
        <Banner text={words.saveBanner.yourWorkStaysHereAnd(trouble.text)}>
          {trouble.isFull ? <Act onPress={() => setMaking(true)}>{words.common.makeRoom}</Act> : null}
          <Act plain onPress={retrySaving}>
            {words.common.tryAgain}
          </Act>
        </Banner>
      ) : null}
      <RoomDialog open={making} onClose={() => setMaking(false)} />
    </>
  );
}

function Banner({ text, children }: { text: string; children: React.ReactNode }) {
  const c = useColours();
  return (
    <View
      role="status"
      testID="save-banner"
      style={{
        flexDirection: 'row',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 8,
        paddingHorizontal: 12,
        paddingVertical: 6,
        backgroundColor: c.raised,
        borderBottomWidth: 2,
        borderBottomColor: c.accent,
      }}
    >
      <Text style={{ color: c.ink, flexGrow: 1, flexShrink: 1, flexBasis: 300 }}>{text}</Text>
      {children}
    </View>
  );
}

import type { ErrorBoundaryProps } from 'expo-router';
import { Pressable, Text, useColorScheme, View } from 'react-native';
import { darkTheme, lightTheme, SANS, SERIF } from './theme';
import { words } from './words';

/** What stands in for a screen that failed: never a blank page. It uses nothing that may have failed with it. */
export function FailedScreen({ error, retry }: ErrorBoundaryProps) {
  const c = (useColorScheme() === 'dark' ? darkTheme : lightTheme).dx;
  const act = (label: string, run: () => void) => (
    <Pressable
      role="button"
      onPress={run}
      style={{ minHeight: 44, paddingHorizontal: 18, justifyContent: 'center', borderWidth: 1, borderColor: c.line, borderRadius: 2 }}
    >
      <Text style={{ color: c.ink, fontFamily: SANS, fontSize: 15 }}>{label}</Text>
    </Pressable>
  );
  return (
    <View role="alert" style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 16, padding: 24, backgroundColor: c.chrome }}>
      <Text style={{ color: c.ink, fontFamily: SERIF, fontSize: 22 }}>{words.failed.thisScreenFailed}</Text>
      <Text style={{ color: c.ink, fontFamily: SANS, fontSize: 15, maxWidth: 480, textAlign: 'center' }}>{words.failed.yourPiecesAreKeptIn}</Text>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        {act(words.common.tryAgain, () => void retry())}
        {act(words.common.backToThePieces, () => window.location.assign('/'))}
      </View>
      <Text style={{ color: c.quiet, fontFamily: SANS, fontSize: 13, maxWidth: 480, textAlign: 'center' }}>{error.message}</Text>
    </View>
  );
}

import { router } from 'expo-router';
import { useState } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { Button, Dialog, IconButton, Text, TextInput } from 'react-native-paper';
import { useShallow } from 'zustand/react/shallow';
import { useBench } from '@/store/bench';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { SERIF, useColours } from '../theme';
import { KeysDialog } from './KeysDialog';
import { useViewport, zoomOf } from './viewport';
import { words } from '../words';

const savedWords = { saved: words.topBar.saved, waiting: words.topBar.saving, failed: words.topBar.notSaved };

export function TopBar() {
  const c = useColours();
  const { width } = useWindowDimensions();
  const { piece, past, future, saved } = useBench(useShallow(({ piece, past, future, saved }) => ({ piece, past, future, saved })));
  const [renaming, setRenaming] = useState<string | null>(null);
  const zoom = useViewport(zoomOf);
  const fitted = useViewport((s) => s.zoom === null);
  const density = window.devicePixelRatio || 1;
  const percent = Math.round(zoom * density * 100);
  const roomy = width >= 700;
  if (!piece) return null;
  const { undo, redo, change } = useBench.getState();
  const rename = () => {
    const name = renaming?.trim();
    if (name && name !== piece.name) change(words.topBar.renameThePiece, (p) => ({ ...p, name }));
    setRenaming(null);
  };
  const button = { size: 22, iconColor: c.ink, style: { margin: 0, width: 44, height: 44 } };
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        height: roomy ? 44 : 52,
        paddingHorizontal: 4,
        backgroundColor: c.chrome,
        borderBottomWidth: 1,
        borderBottomColor: c.line,
      }}
    >
      <IconButton {...button} icon="arrow-left" aria-label={words.common.backToThePieces} onPress={() => router.dismissTo('/')} />
      <View role="heading" aria-level={1} style={{ flexShrink: 1, maxWidth: roomy ? undefined : width - 282 }}>
        <Button
          compact
          onPress={() => setRenaming(piece.name)}
          textColor={c.ink}
          labelStyle={{ fontFamily: SERIF, fontSize: 18, letterSpacing: 0, marginHorizontal: 6 }}
          accessibilityLabel={words.topBar.rename(piece.name)}
        >
          {piece.name}
        </Button>
      </View>
      {roomy ? <Text style={{ color: saved === 'failed' ? c.accent : c.quiet, paddingHorizontal: 8 }}>{savedWords[saved]}</Text> : null}
      <View style={{ flex: 1 }} />
      {roomy ? (
        <>
          <Act plain onPress={() => useViewport.getState().fit()}>
            {words.topBar.fit}
          </Act>
          <Act plain onPress={() => useViewport.getState().actual()}>
            100 %
          </Act>
          <Text style={{ color: c.quiet, width: 56, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{percent} %</Text>
          <IconButton {...button} icon="help" aria-label={words.common.help} onPress={() => router.navigate('/help')} />
        </>
      ) : (
        <Act plain labelStyle={{ marginHorizontal: 8 }} onPress={() => (fitted ? useViewport.getState().actual() : useViewport.getState().fit())}>
          {fitted ? '100 %' : words.topBar.fit}
        </Act>
      )}
      <IconButton
        {...button}
        icon="undo"
        disabled={past.length === 0}
        aria-label={past.length > 0 ? words.topBar.undo(past[past.length - 1].name) : words.topBar.nothingToUndo}
        onPress={() => undo()}
      />
      <IconButton
        {...button}
        icon="redo"
        disabled={future.length === 0}
        aria-label={future.length > 0 ? words.topBar.redo(future[0].name) : words.topBar.nothingToRedo}
        onPress={() => redo()}
      />
      <Act onPress={() => router.navigate(`/piece/${piece.id}/export`)} labelStyle={{ marginHorizontal: 10 }}>
        {words.common.exportIt}
      </Act>
      <PopUp label={words.topBar.nameOfThePiece} visible={renaming !== null} onClose={() => setRenaming(null)}>
        <Dialog.Content>
          <TextInput
            label={words.topBar.nameOfThePiece}
            aria-label={words.topBar.nameOfThePiece}
            mode="outlined"
            value={renaming ?? ''}
            onChangeText={setRenaming}
            onSubmitEditing={rename}
            autoFocus
            selectTextOnFocus
            maxLength={200}
          />
        </Dialog.Content>
        <Dialog.Actions>
          <Act plain onPress={() => setRenaming(null)}>
            {words.common.cancel}
          </Act>
          <Act main onPress={rename}>
            {words.common.rename}
          </Act>
        </Dialog.Actions>
      </PopUp>
      <KeysDialog />
    </View>
  );
}

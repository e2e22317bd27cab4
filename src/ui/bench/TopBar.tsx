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

const words = { saved: 'Saved', waiting: 'Saving…', failed: 'Not saved' };

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
    if (name && name !== piece.name) change('Rename the piece', (p) => ({ ...p, name }));
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
      <IconButton {...button} icon="arrow-left" aria-label="Back to the pieces" onPress={() => router.dismissTo('/')} />
      <Button
        compact
        onPress={() => setRenaming(piece.name)}
        textColor={c.ink}
        style={{ flexShrink: 1, maxWidth: roomy ? undefined : width - 282 }}
        labelStyle={{ fontFamily: SERIF, fontSize: 18, letterSpacing: 0, marginHorizontal: 6 }}
        accessibilityLabel={`${piece.name}, rename`}
      >
        {piece.name}
      </Button>
      {roomy ? <Text style={{ color: saved === 'failed' ? c.accent : c.quiet, paddingHorizontal: 8 }}>{words[saved]}</Text> : null}
      <View style={{ flex: 1 }} />
      {roomy ? (
        <>
          <Act plain onPress={() => useViewport.getState().fit()}>
            Fit
          </Act>
          <Act plain onPress={() => useViewport.getState().actual()}>
            100 %
          </Act>
          <Text style={{ color: c.quiet, width: 56, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{percent} %</Text>
          <IconButton {...button} icon="help" aria-label="Help" onPress={() => router.navigate('/help')} />
        </>
      ) : (
        <Act plain labelStyle={{ marginHorizontal: 8 }} onPress={() => (fitted ? useViewport.getState().actual() : useViewport.getState().fit())}>
          {fitted ? '100 %' : 'Fit'}
        </Act>
      )}
      <IconButton
        {...button}
        icon="undo"
        disabled={past.length === 0}
        aria-label={past.length > 0 ? `Undo: ${past[past.length - 1].name}` : 'Nothing to undo'}
        onPress={() => undo()}
      />
      <IconButton
        {...button}
        icon="redo"
        disabled={future.length === 0}
        aria-label={future.length > 0 ? `Redo: ${future[0].name}` : 'Nothing to redo'}
        onPress={() => redo()}
      />
      <Act onPress={() => router.navigate(`/piece/${piece.id}/export`)} labelStyle={{ marginHorizontal: 10 }}>
        Export
      </Act>
      <PopUp label="Name of the piece" visible={renaming !== null} onClose={() => setRenaming(null)}>
        <Dialog.Content>
          <TextInput
            label="Name of the piece"
            aria-label="Name of the piece"
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
            Cancel
          </Act>
          <Act main onPress={rename}>
            Rename
          </Act>
        </Dialog.Actions>
      </PopUp>
      <KeysDialog />
    </View>
  );
}

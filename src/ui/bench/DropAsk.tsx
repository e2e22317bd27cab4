import { router } from 'expo-router';
import { useCallback, useState } from 'react';
import { Dialog, Text } from 'react-native-paper';
import { useBench } from '@/store/bench';
import { complain } from '@/store/notices';
import { bringIn, sourceOf } from '@/store/own';
import { usePieces } from '@/store/pieces';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { useDrop } from '../kit/useDrop';
import { useColours } from '../theme';
import { words } from '../words';

/** A picture that was dropped or pasted on the open piece: a material on it, or a piece of its own. */
export function DropAsk() {
  const c = useColours();
  const [files, setFiles] = useState<File[] | null>(null);
  useDrop(useCallback((list: File[]) => setFiles(list), []));
  if (!files) return null;
  const close = () => setFiles(null);
  const [first] = files;
  const name = files.length === 1 ? `“${first.name || words.dropAsk.pastedPicture}”` : words.dropAsk.pictures(files.length);
  const asMaterial = async () => {
    close();
    for (const own of await bringIn(files)) useBench.getState().addCoat(sourceOf(own));
    useBench.getState().openFacet('blend');
  };
  const asPiece = async () => {
    close();
    const id = await usePieces.getState().create(first, first.name || words.common.pastedPicturePng);
    router.navigate(`/piece/${id}`);
  };
  return (
    <PopUp label={words.common.useNamed(name)} onClose={close}>
      <Dialog.Title>{words.common.useNamed(name)}</Dialog.Title>
      <Dialog.Content>
        <Text style={{ color: c.ink }}>{words.dropAsk.layItOverThisPhoto}</Text>
      </Dialog.Content>
      <Dialog.Actions style={{ flexWrap: 'wrap', gap: 8 }}>
        <Act plain onPress={close}>
          {words.common.cancel}
        </Act>
        <Act onPress={() => void asPiece().catch(complain)}>{words.dropAsk.newPiece}</Act>
        <Act main onPress={() => void asMaterial().catch(complain)}>
          {words.dropAsk.addAsAMaterial}
        </Act>
      </Dialog.Actions>
    </PopUp>
  );
}

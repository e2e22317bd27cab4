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

/** A picture that was dropped or pasted on the open piece: a material on it, or a piece of its own. */
export function DropAsk() {
  const c = useColours();
  const [files, setFiles] = useState<File[] | null>(null);
  useDrop(useCallback((list: File[]) => setFiles(list), []));
  if (!files) return null;
  const close = () => setFiles(null);
  const [first] = files;
  const name = files.length === 1 ? `“${first.name || 'Pasted picture'}”` : `${files.length} pictures`;
  const asMaterial = async () => {
    close();
    for (const own of await bringIn(files)) useBench.getState().addCoat(sourceOf(own));
    useBench.getState().openFacet('blend');
  };
  const asPiece = async () => {
    close();
    const id = await usePieces.getState().create(first, first.name || 'Pasted picture.png');
    router.navigate(`/piece/${id}`);
  };
  return (
    <PopUp label={`Use ${name}`} onClose={close}>
      <Dialog.Title>{`Use ${name}`}</Dialog.Title>
      <Dialog.Content>
        <Text style={{ color: c.ink }}>Lay it over this photo as a material, or open it as a photo of its own?</Text>
      </Dialog.Content>
      <Dialog.Actions style={{ flexWrap: 'wrap', gap: 8 }}>
        <Act plain onPress={close}>
          Cancel
        </Act>
        <Act onPress={() => void asPiece().catch(complain)}>New piece</Act>
        <Act main onPress={() => void asMaterial().catch(complain)}>
          Add as a material
        </Act>
      </Dialog.Actions>
    </PopUp>
  );
}

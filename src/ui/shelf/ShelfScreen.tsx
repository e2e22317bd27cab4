import { router } from 'expo-router';
import { useCallback, useEffect, useState, type CSSProperties } from 'react';
import { useWindowDimensions } from 'react-native';
import { Dialog, Portal, Text } from 'react-native-paper';
import { modeById } from '@/core/blend';
import { families, materialById } from '@/core/materials';
import type { SourceInput } from '@/core/piece/edits';
import { useBench } from '@/store/bench';
import { PICTURES, pickFiles } from '@/store/files';
import { complain, say } from '@/store/notices';
import { useOwn } from '@/store/own';
import { Act } from '../kit/Act';
import { MaterialGrid } from '../kit/MaterialGrid';
import { MaterialThumb } from '../kit/MaterialThumb';
import { OwnThumb } from '../kit/OwnThumb';
import { Page } from '../kit/Page';
import { useDrop } from '../kit/useDrop';
import { SERIF, useColours } from '../theme';

/** The library of materials, in families, with live pictures; a material can be looked at closely and laid on the open piece. */
export function ShelfScreen() {
  const { width } = useWindowDimensions();
  const [looking, setLooking] = useState<SourceInput | null>(null);
  const { refresh, add } = useOwn();
  useEffect(() => void refresh().catch(complain), [refresh]);
  const take = useCallback(
    async (files: File[]) => {
      for (const file of files) {
        try {
          const own = await add(file, file.name || 'Pasted picture.png');
          say(`“${own.name}” lies on the shelf.`);
        } catch (error) {
          complain(error);
        }
      }
    },
    [add],
  );
  useDrop(useCallback((files: File[]) => void take(files), [take]));
  const back = () => (router.canGoBack() ? router.back() : router.replace('/'));
  return (
    <Page
      title="The shelf"
      back={{ label: 'Back', go: back }}
      aside={
        <Act icon="image-plus" onPress={() => void pickFiles(PICTURES, true).then(take)}>
          Bring in pictures
        </Act>
      }
    >
      <MaterialGrid size={width < 700 ? 104 : 156} onChoose={setLooking} />
      <Closer source={looking} onClose={() => setLooking(null)} />
    </Page>
  );
}

function Closer({ source, onClose }: { source: SourceInput | null; onClose(): void }) {
  const c = useColours();
  const piece = useBench((s) => s.piece);
  const { names, remove } = useOwn();
  if (!source) return null;
  const material = source.kind === 'material' ? materialById(String(source.id)) : null;
  const title = material?.label ?? names[String(source.file)] ?? 'Own material';
  const family = families.find((f) => f.id === material?.family)?.label ?? 'Your own';
  const lay = () => {
    useBench.getState().addCoat(source);
    useBench.getState().openFacet('blend');
    onClose();
    router.dismissTo(`/piece/${piece?.id}`);
  };
  return (
    <Portal>
      <Dialog visible onDismiss={onClose} style={{ borderRadius: 3, maxWidth: 520, width: '92%', alignSelf: 'center' }}>
        <Dialog.Content style={{ gap: 10 }}>
          <Text style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink }}>{title}</Text>
          <div style={{ ...picture, background: c.card }}>
            {material ? <MaterialThumb id={material.id} label={title} side={512} /> : <OwnThumb picture={String(source.file)} label={title} />}
          </div>
          <Text style={{ color: c.ink }}>{material?.help ?? 'A picture that you brought in.'}</Text>
          <Text style={{ color: c.quiet }}>
            {material
              ? `${family}. Begins in ${modeById(material.suggest.blend).label.toLowerCase()} at ${Math.round(material.suggest.strength * 100)} %.`
              : family}
            {material?.seamless ? ' Tiles without a seam.' : ''}
          </Text>
        </Dialog.Content>
        <Dialog.Actions style={{ flexWrap: 'wrap', gap: 8 }}>
          {material ? null : (
            <Act plain onPress={() => void remove(String(source.file)).then(onClose, complain)}>
              Take off the shelf
            </Act>
          )}
          <Act plain onPress={onClose}>
            Close
          </Act>
          {piece ? (
            <Act main onPress={lay}>
              {`Lay on ${piece.name}`}
            </Act>
          ) : null}
        </Dialog.Actions>
      </Dialog>
    </Portal>
  );
}

const picture: CSSProperties = { width: '100%', aspectRatio: '1', maxHeight: 420, overflow: 'hidden', borderRadius: 2 };

import type { Piece } from '@/core/piece/schema';
import { pieceSize } from '@/core/ready/geometry';
import { router } from 'expo-router';
import { useEffect, useState } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { ProgressBar, Text, TextInput } from 'react-native-paper';
import { useBench } from '@/store/bench';
import { canShare, copyPicture, detailSeconds, encodingOf, savePictureFile, sharePicture, sizeFor, useExport } from '@/store/export';
import { complain, say } from '@/store/notices';
import { useSettings, type ExportChoice } from '@/store/settings';
import { flush } from '@/store/saving';
import { saveLayers } from '@/store/openRaster';
import { openPiece } from '@/store/session';
import { drawWhole } from '../bench/useThumb';
import { Act } from '../kit/Act';
import { Page } from '../kit/Page';
import { useColours } from '../theme';
import { words } from '../words';
import { FormatPanel } from './FormatPanel';

const longOf = (piece: Piece): number => Math.max(pieceSize(piece).width, pieceSize(piece).height);

/** The long side that is wanted, in pixels. */
const wantedOf = (piece: Piece, { share, long }: ExportChoice): number =>
  share === 'own' ? Math.min(longOf(piece), long) : longOf(piece) * Number(share);

/** The flat picture, full size or smaller. */
export function ExportScreen({ id }: { id: string }) {
  const c = useColours();
  const piece = useBench((s) => s.piece);
  const { progress, stop } = useExport();
  const chosen = useSettings((s) => s.exportAs);
  const [name, setName] = useState<string | null>(null);
  // Format, size and the button stay in view on a phone.
  const tall = useWindowDimensions().width < 700 ? 210 : 460;
  const [picture, setPicture] = useState<string | null>(null);
  const [detail, setDetail] = useState(0);

  useEffect(() => {
    if (useBench.getState().piece?.id !== id) void openPiece(id).catch(complain);
  }, [id]);
  useEffect(() => {
    if (piece?.id === id) void drawWhole(piece, { kind: 'piece' }, 640).then(setPicture, complain);
  }, [piece, id]);

  const wanted = piece?.id === id ? wantedOf(piece, chosen) : 0;
  useEffect(() => {
    if (piece?.id === id) void detailSeconds(piece, wanted).then(setDetail, complain);
  }, [piece, id, wanted]);

  const back = { label: words.export.backToTheBench, go: () => router.dismissTo(`/piece/${id}`) };
  if (piece?.id !== id)
    return (
      <Page title={words.common.exportIt} back={back}>
        {null}
      </Page>
    );
  const long = longOf(piece);
  const size = sizeFor(piece, wanted);
  const busy = progress !== null;
  const named = name?.trim() || piece.name;
  const run = (work: () => Promise<boolean>, done: string) => async () => {
    try {
      await flush();
      say((await work()) ? done : words.export.stoppedNothingWasWritten);
    } catch (error) {
      complain(error);
    }
  };
  const encoding = encodingOf(chosen);
  return (
    <Page title={words.export.exportIt(piece.name)} back={back}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 16 }}>
        <View
          style={{
            flexGrow: 1,
            flexBasis: 320,
            backgroundColor: c.card,
            padding: 12,
            borderRadius: 2,
            alignItems: 'center',
            justifyContent: 'center',
            minHeight: 200,
          }}
        >
          {/* The picture has its place before it comes, so that nothing below moves under a finger. */}
          <div style={{ width: `min(100%, ${(tall * size.width) / size.height}px)`, aspectRatio: size.width / size.height }}>
            {picture ? (
              <img
                src={picture}
                alt={piece.name}
                style={{ display: 'block', width: '100%', height: '100%', boxShadow: '0 1px 6px rgba(0,0,0,0.35)' }}
              />
            ) : null}
          </div>
        </View>
        <View style={{ flexGrow: 1, flexBasis: 320, gap: 4 }}>
          <TextInput
            mode="outlined"
            dense
            label={words.export.fileName}
            aria-label={words.export.fileName}
            value={name ?? piece.name}
            onChangeText={setName}
            selectTextOnFocus
            maxLength={120}
          />
          <FormatPanel longest={long} detail={detail} />
          <Text style={{ color: c.quiet, fontVariant: ['tabular-nums'] }} testID="export-size">
            {words.common.pixels(size.width, size.height)}
          </Text>
          {busy ? (
            <View style={{ gap: 8, paddingVertical: 12 }}>
              <View style={{ height: 8 }}>
                <ProgressBar
                  progress={progress}
                  color={c.accent}
                  aria-label={words.export.progressOfTheExport}
                  style={{ height: 8, borderRadius: 2 }}
                />
              </View>
              <Act onPress={stop}>{words.common.stop}</Act>
            </View>
          ) : (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 12 }}>
              <Act
                main
                icon="download"
                onPress={() => void run(() => savePictureFile(piece, wanted, encoding, named), words.export.thePictureIsInYour)()}
              >
                {words.export.saveThePicture}
              </Act>
              <Act icon="layers-plus" onPress={() => void run(() => saveLayers(piece, named), words.export.theLayersAreInYour)()}>
                {words.export.saveLayers}
              </Act>
              {canShare() ? (
                <Act icon="share-variant-outline" onPress={() => void run(() => sharePicture(piece, wanted, encoding, named), words.export.shared)()}>
                  {words.export.share}
                </Act>
              ) : null}
              <Act icon="content-copy" onPress={() => void run(() => copyPicture(piece, wanted), words.export.thePictureIsOnThe)()}>
                {words.export.copy}
              </Act>
            </View>
          )}
          <Text style={{ color: c.quiet }}>{words.export.layersHelp}</Text>
        </View>
      </View>
    </Page>
  );
}

import { useState } from 'react';
import { View } from 'react-native';
import { Text, TextInput } from 'react-native-paper';
import type { Piece } from '@/core/piece/schema';
import { largestFrame, ratios, withFlip, withQuarter, withTurn } from '@/core/ready/frame';
import { pieceSize, quarteredSize } from '@/core/ready/geometry';
import { uprightCorners, withCorners } from '@/core/ready/perspective';
import { cropSchema, neutralReady, type Ready } from '@/core/ready/schema';
import { shownPiece, useBench } from '@/store/bench';
import { panelEdit } from '@/store/editing';
import { complain, say } from '@/store/notices';
import { changeReady, levelOf, readyOf, uprightsOf, useReady } from '@/store/ready';
import { Act } from '../../kit/Act';
import { Choice } from '../../kit/Choice';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { useColours } from '../../theme';
import { LensPanel } from './LensPanel';
import { words } from '../../words';

/** Width by height that the frame keeps; null when it is free. */
export function ratioOf(shape: string, own: [number, number], piece: Piece): number | null {
  if (shape === 'own') return own[0] / own[1];
  if (shape === 'photo') {
    const { width, height } = quarteredSize(piece.photo, readyOf(piece));
    return width / height;
  }
  return ratios.find((r) => r.id === shape)?.ratio ?? null;
}

/** Crop, level, quarter turns and mirroring of the photo. Coats stay where they lie on it. */
export function FrameFacet() {
  const c = useColours();
  const piece = useBench(shownPiece);
  const { shape, own, tool, set } = useReady();
  const { change } = useBench.getState();
  const [looking, setLooking] = useState(false);
  if (!piece) return null;
  const ready = readyOf(piece);
  const size = pieceSize(piece);
  const turn = (degrees: number) => changeReady((r) => withTurn(piece.photo, r, degrees));
  const shaped = (id: string, values: [number, number]) => {
    set({ shape: id, own: values });
    const ratio = ratioOf(id, values, piece);
    if (ratio !== null)
      change(
        words.frame.shapeOfTheFrame,
        changeReady((r) => ({ ...r, crop: largestFrame(piece.photo, r, ratio, r.crop.turn) })),
      );
  };
  const level = async () => {
    setLooking(true);
    try {
      const found = await levelOf(piece);
      if (!found) say(words.frame.noLevelFound);
      else {
        change(words.frame.autoStraighten, turn(found.turn));
        say(words.frame.straightenedBy(found.turn.toFixed(1)));
      }
    } catch (error) {
      complain(error);
    } finally {
      setLooking(false);
    }
  };
  const uprights = async () => {
    setLooking(true);
    try {
      const lines = await uprightsOf(piece);
      if (!lines) say(words.frame.noUprightsFound);
      else {
        const corners = uprightCorners(...lines);
        change(
          words.frame.autoPerspective,
          changeReady((r) => withCorners(piece.photo, r, corners)),
        );
      }
    } catch (error) {
      complain(error);
    } finally {
      setLooking(false);
    }
  };
  const plain = (r: Ready): Ready => ({ ...r, quarter: 0, flip: false, perspective: undefined, crop: neutralReady.crop });
  return (
    <View style={{ gap: 8 }}>
      <Text style={{ color: c.quiet }} testID="frame-size">
        {words.frame.size(size.width, size.height, piece.photo.width, piece.photo.height)}
      </Text>
      <Panel
        schema={cropSchema}
        values={ready.crop}
        only={['turn']}
        {...panelEdit(
          (_key, v) => turn(v as number),
          () => words.frame.straighten,
          'frame',
        )}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act loading={looking} disabled={looking} onPress={() => void level()}>
          {words.frame.autoStraighten}
        </Act>
        <Act onPress={() => set({ tool: tool === 'line' ? 'frame' : 'line' })}>
          {tool === 'line' ? words.frame.backToTheFrame : words.frame.drawALevelLine}
        </Act>
      </View>
      <Choice
        label={words.frame.shape}
        options={[...ratios.map((r) => ({ value: r.id, label: r.label })), { value: 'own', label: words.frame.own }]}
        value={shape}
        onChange={(id) => shaped(id, own)}
      />
      {shape === 'own' ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          {[0, 1].map((i) => (
            <TextInput
              key={i}
              mode="outlined"
              dense
              label={i === 0 ? words.frame.width : words.frame.height}
              defaultValue={String(own[i])}
              inputMode="decimal"
              style={{ width: 96 }}
              onEndEditing={(e) => {
                const n = Number((e.nativeEvent as unknown as { text: string }).text.replace(',', '.'));
                if (n > 0.01 && n < 1000) shaped('own', i === 0 ? [n, own[1]] : [own[0], n]);
              }}
            />
          ))}
        </View>
      ) : null}
      <Text style={{ fontSize: 15 }}>{words.frame.perspective}</Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act disabled={looking} onPress={() => void uprights()}>
          {words.frame.autoPerspective}
        </Act>
        <Act onPress={() => set({ tool: tool === 'uprights' ? 'frame' : 'uprights', first: null })}>
          {tool === 'uprights' ? words.frame.backToTheFrame : words.frame.drawTwoUprights}
        </Act>
        <Act onPress={() => set({ tool: tool === 'corners' ? 'frame' : 'corners' })}>
          {tool === 'corners' ? words.frame.backToTheFrame : words.common.fourCorners}
        </Act>
        {ready.perspective ? (
          <Act
            plain
            onPress={() =>
              change(
                words.frame.noPerspective,
                changeReady((r) => withCorners(piece.photo, r, null)),
              )
            }
          >
            {words.frame.resetPerspective}
          </Act>
        ) : null}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act
          onPress={() =>
            change(
              words.common.quarterTurn,
              changeReady((r) => withQuarter(r, -1)),
            )
          }
        >
          {words.common.rotateLeft}
        </Act>
        <Act
          onPress={() =>
            change(
              words.common.quarterTurn,
              changeReady((r) => withQuarter(r, 1)),
            )
          }
        >
          {words.common.rotateRight}
        </Act>
        <Act onPress={() => change(words.frame.flipHorizontal, changeReady(withFlip))}>{words.frame.flipHorizontal}</Act>
        <Act plain onPress={() => change(words.frame.resetCrop, changeReady(plain))}>
          {words.frame.resetCrop}
        </Act>
      </View>
      <Fold title={words.frame.lens} changed={ready.lens !== undefined || ready.fringe !== undefined}>
        <LensPanel />
      </Fold>
    </View>
  );
}

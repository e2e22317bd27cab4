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
        'Shape of the frame',
        changeReady((r) => ({ ...r, crop: largestFrame(piece.photo, r, ratio, r.crop.turn) })),
      );
  };
  const level = async () => {
    setLooking(true);
    try {
      const found = await levelOf(piece);
      if (!found) say('No long level or upright lines were found, so nothing was turned; draw one, or use the slider.');
      else {
        change('Auto straighten', turn(found.turn));
        say(`Levelled by ${found.turn.toFixed(1)}°.`);
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
      if (!lines) say('No two upright edges were found, so nothing was changed; draw two lines along them.');
      else {
        const corners = uprightCorners(...lines);
        change(
          'Auto perspective',
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
        {size.width} × {size.height} of {piece.photo.width} × {piece.photo.height} pixels. The photo itself is never changed.
      </Text>
      <Panel
        schema={cropSchema}
        values={ready.crop}
        only={['turn']}
        {...panelEdit(
          (_key, v) => turn(v as number),
          () => 'Straighten',
          'frame',
        )}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act loading={looking} disabled={looking} onPress={() => void level()}>
          Auto straighten
        </Act>
        <Act onPress={() => set({ tool: tool === 'line' ? 'frame' : 'line' })}>{tool === 'line' ? 'Back to the frame' : 'Draw a level line'}</Act>
      </View>
      <Choice
        label="Shape"
        options={[...ratios.map((r) => ({ value: r.id, label: r.label })), { value: 'own', label: 'Own' }]}
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
              label={i === 0 ? 'Width' : 'Height'}
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
      <Text style={{ fontSize: 15 }}>Perspective</Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act disabled={looking} onPress={() => void uprights()}>
          Auto perspective
        </Act>
        <Act onPress={() => set({ tool: tool === 'uprights' ? 'frame' : 'uprights', first: null })}>
          {tool === 'uprights' ? 'Back to the frame' : 'Draw two uprights'}
        </Act>
        <Act onPress={() => set({ tool: tool === 'corners' ? 'frame' : 'corners' })}>{tool === 'corners' ? 'Back to the frame' : 'Four corners'}</Act>
        {ready.perspective ? (
          <Act
            plain
            onPress={() =>
              change(
                'No perspective',
                changeReady((r) => withCorners(piece.photo, r, null)),
              )
            }
          >
            As it was taken
          </Act>
        ) : null}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act
          onPress={() =>
            change(
              'Quarter turn',
              changeReady((r) => withQuarter(r, -1)),
            )
          }
        >
          Rotate left 90°
        </Act>
        <Act
          onPress={() =>
            change(
              'Quarter turn',
              changeReady((r) => withQuarter(r, 1)),
            )
          }
        >
          Rotate right 90°
        </Act>
        <Act onPress={() => change('Flip horizontal', changeReady(withFlip))}>Flip horizontal</Act>
        <Act plain onPress={() => change('Reset crop', changeReady(plain))}>
          Reset crop
        </Act>
      </View>
      <Fold title="Lens" changed={ready.lens !== undefined || ready.fringe !== undefined}>
        <LensPanel />
      </Fold>
    </View>
  );
}

import { View } from 'react-native';
import * as z from 'zod';
import { curvesFields } from '@/core/treatments/curves';
import { localToneStarts } from '@/core/treatments/local-tone';
import type { Piece } from '@/core/piece/schema';
import { shownPiece, useBench } from '@/store/bench';
import { changeReady, readyOf } from '@/store/ready';
import { Fold } from '../../kit/Fold';
import { PictureCards } from '../../kit/PictureCards';
import { Scope, ScopePlot } from '../Scope';
import { useThumb } from '../useThumb';
import { CurvesPanel } from './CurvesPanel';
import { ReadyStep } from './ReadyStep';
import { words } from '../../words';

/** Light of the photo, under every coat. */
export function LightFacet() {
  const piece = useBench(shownPiece);
  if (!piece) return null;
  return (
    <View>
      <ScopePlot kind="histogram" strip />
      <ReadyStep field="tone" />
      <ReadyStep field="even" />
      <ReadyStep field="localTone" fold>
        <ToneStarts piece={piece} />
      </ReadyStep>
      <ReadyStep field="levels" fold />
      <Scope />
      <Curves piece={piece} />
    </View>
  );
}

const curvesSchema = z.object(curvesFields);

/** The photo's curves, under a parade of it. */
function Curves({ piece }: { piece: Piece }) {
  const own = readyOf(piece).curves;
  const neutral = curvesSchema.parse({});
  const values = { ...neutral, ...own };
  return (
    <Fold title={words.light.curves} begin changed={own !== undefined && JSON.stringify(values) !== JSON.stringify(neutral)}>
      <ScopePlot kind="parade" />
      <CurvesPanel
        values={values}
        set={(key, v) => changeReady((r) => ({ ...r, curves: { ...values, [key]: v } }))}
        straight={changeReady((r) => ({ ...r, curves: undefined }))}
        run="ready.curves"
      />
    </Fold>
  );
}

/** Named places to begin strong tone mapping from, each seen on the photo itself. */
function ToneStarts({ piece }: { piece: Piece }) {
  const { change } = useBench.getState();
  const ready = readyOf(piece);
  const now = JSON.stringify(ready.localTone);
  return (
    <PictureCards
      label={words.light.startFrom}
      cards={localToneStarts.map(({ name, values }) => ({
        name,
        on: JSON.stringify(values) === now,
        picture: <StartPicture piece={piece} values={values} />,
        press: () =>
          change(
            name,
            changeReady((r) => ({ ...r, localTone: values })),
          ),
      }))}
    />
  );
}

function StartPicture({ piece, values }: { piece: Piece; values: (typeof localToneStarts)[number]['values'] }) {
  const ready = readyOf(piece);
  // The state without local tone is what the pictures depend on, whichever of them is taken.
  const base = JSON.stringify({ ...ready, localTone: undefined });
  const url = useThumb({ ...piece, coats: [], ready: { ...ready, localTone: values } }, { kind: 'piece' }, [piece.photo.key, base, values], 132);
  return url ? <img src={url} alt="" style={{ width: '100%', height: '100%', objectFit: 'cover', display: 'block' }} /> : null;
}

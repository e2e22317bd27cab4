import * as z from 'zod';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { marksOf, recolourMarks, setMarks } from '@/core/piece/marks';
import { exchangeSource, type SourceInput } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { shapeFields } from '@/core/sources/shape';
import { unitOf } from '@/core/image/unit';
import { pieceSize } from '@/core/ready/geometry';
import { useBench } from '@/store/bench';
import { brushFor, DARK, LIGHT, useMarking } from '@/store/brush';
import { useArming } from '@/store/arming';
import { controlEdit, panelEdit, stepOf } from '@/store/editing';
import { usePalette } from '@/store/palette';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Choice } from '../../kit/Choice';
import { Colour } from '../../kit/Colour';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';
import { words } from '../../words';
import { BrushStroke } from './BrushPanel';
import { BrushSize } from './BrushSize';
import { PaintSwitch } from './PaintSwitch';

const shapeSchema = z.object(shapeFields);

/** Painted marks: the brush and its colour, and what holds for all marks of the coat. */
export function MarksPanel({ coat }: { coat: Coat }) {
  const c = useColours();
  const isArmed = useArming((s) => s.isArmed);
  const onGround = useMarking((s) => s.onGround);
  const colours = usePalette();
  const { change } = useBench.getState();
  const pixels = useBench((s) => (s.piece ? unitOf(pieceSize(s.piece)) : 1));
  const source = marksOf(coat);
  const store = brushFor(source);
  const brush = store();
  if (!source) return null;
  const isLight = source.use === 'light';
  const set = (key: string, value: unknown) => exchangeSource(coat.id, { ...source, [key]: value } as unknown as SourceInput);
  const { strokes } = source;
  return (
    <View>
      <PaintSwitch />
      {isLight ? (
        <Choice
          label={words.brush.aStrokeWill}
          bare
          value={brush.does === 'take' ? 'take' : brush.colour}
          options={[
            { value: LIGHT, label: words.marks.lighten },
            { value: DARK, label: words.marks.darken },
            { value: 'take', label: words.common.erase },
          ]}
          onChange={(v) => brush.set(v === 'take' ? { does: 'take' } : { does: 'put', colour: v })}
        />
      ) : (
        <Choice
          label={words.brush.aStrokeWill}
          bare
          value={brush.does === 'take' ? 'take' : 'put'}
          options={
            [
              { value: 'put', label: words.marks.add },
              { value: 'take', label: words.common.erase },
            ] as const
          }
          onChange={(does) => brush.set({ does })}
        />
      )}
      <BrushSize store={store} />
      {isLight ? null : isArmed || strokes.length === 0 ? (
        <Colour label={words.marks.colour} value={brush.colour} offered={colours} onCommit={(colour) => brush.set({ colour })} />
      ) : (
        <Colour
          label={words.marks.colourOfAll}
          value={source.colour}
          offered={colours}
          {...controlEdit((colour: string) => recolourMarks(coat.id, colour), words.marks.colourOfAll, `${coat.id}.source.colour`)}
        />
      )}
      <BrushStroke store={store} />
      {isLight ? null : (
        <>
          <Toggle
            label={words.marks.plainGround}
            help={words.marks.plainGroundHelp}
            value={onGround}
            onChange={(v) => useMarking.setState({ onGround: v })}
          />
          <Fold title={words.marks.reliefAndGlow} changed={source.relief !== 0 || source.glow !== 0}>
            <Panel
              schema={shapeSchema}
              values={source}
              colours={colours}
              lengths={pixels}
              {...panelEdit(set, stepOf(words.marks.tab), `${coat.id}.source`)}
            />
          </Fold>
        </>
      )}
      <Text style={{ color: c.quiet, fontSize: 13, paddingTop: 8 }}>{words.marks.count(strokes.length)}</Text>
      {strokes.length > 0 ? (
        <Acts>
          <Act
            onPress={() =>
              change(
                words.marks.removeTheLastMark,
                setMarks(coat.id, (marks) => marks.slice(0, -1)),
              )
            }
          >
            {words.marks.removeTheLast}
          </Act>
          <Act
            plain
            onPress={() =>
              change(
                words.marks.removeAll,
                setMarks(coat.id, () => []),
              )
            }
          >
            {words.marks.removeAll}
          </Act>
        </Acts>
      ) : null}
    </View>
  );
}

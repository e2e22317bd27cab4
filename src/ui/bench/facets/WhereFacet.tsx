import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { maskPartByKind } from '@/core/mask';
import { ellipseSchema } from '@/core/mask/parts/ellipse';
import { pieceSize } from '@/core/ready/geometry';
import { addPart, changeCoat, changePart } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { useBrush } from '@/store/brush';
import { useSettings } from '@/store/settings';
import { Act } from '../../kit/Act';
import { Choice } from '../../kit/Choice';
import { Panel } from '../../kit/Panel';
import { Slider } from '../../kit/Slider';
import { Toggle } from '../../kit/Toggle';
import { maskColours, SERIF, useColours } from '../../theme';

/** Where the coat applies: the brush in hand, what the mask starts from, its parts, and how it is seen. */
export function WhereFacet({ coat }: { coat: Coat }) {
  const { change, showMask } = useBench.getState();
  const maskView = useBench((s) => s.maskView);
  const { maskColour, set } = useSettings();
  const startFrom = (start: Coat['mask']['start']) =>
    change(
      start === 'all' ? 'Start from everywhere' : 'Start from nowhere',
      changeCoat(coat.id, (k) => ({ mask: { ...k.mask, start } })),
    );
  return (
    <View style={{ gap: 4 }}>
      <BrushControls />
      <Choice
        label="See"
        value={maskView}
        options={
          [
            { value: 'none', label: 'The piece' },
            { value: 'over', label: 'Mask in colour' },
            { value: 'alone', label: 'Mask alone' },
          ] as const
        }
        onChange={showMask}
      />
      {maskView === 'over' ? (
        <Choice
          label="Colour over what is kept clear"
          value={maskColour}
          options={maskColours.map((m) => ({ value: m.id, label: m.label }))}
          onChange={(v) => set({ maskColour: v })}
        />
      ) : null}
      <Choice
        label="Start from"
        value={coat.mask.start}
        options={
          [
            { value: 'all', label: 'Everywhere' },
            { value: 'none', label: 'Nowhere' },
          ] as const
        }
        onChange={startFrom}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 4 }}>
        <Act
          onPress={() =>
            change('Add an ellipse', addPart(coat.id, ellipseSchema.parse({ kind: 'ellipse', op: coat.mask.start === 'all' ? 'subtract' : 'add' })))
          }
        >
          Add an ellipse
        </Act>
        {coat.mask.parts.length > 0 ? (
          <Act
            plain
            onPress={() =>
              change(
                'Clear the mask',
                changeCoat(coat.id, (k) => ({ mask: { ...k.mask, parts: [] } })),
              )
            }
          >
            Clear the mask
          </Act>
        ) : null}
      </View>
      <Parts coat={coat} />
    </View>
  );
}

function BrushControls() {
  const brush = useBrush();
  // Lengths are kept in u and shown in pixels of the photo.
  const pixels = useBench((s) => (s.piece ? Math.max(...Object.values(pieceSize(s.piece))) / 2000 : 1));
  const { penPressure, set } = useSettings();
  const percent = { min: 0, max: 1, step: 0.01, unit: '%', factor: 100 };
  return (
    <View>
      <Choice
        label="A stroke will"
        bare
        value={brush.does}
        options={
          [
            { value: 'take', label: 'Take away' },
            { value: 'put', label: 'Put back' },
            { value: 'level', label: 'Set to a level' },
          ] as const
        }
        onChange={(does) => brush.set({ does })}
      />
      {brush.does === 'level' ? (
        <Slider label="Level" value={brush.level} neutral={0.5} {...percent} onCommit={(level) => brush.set({ level })} />
      ) : null}
      <Slider
        label="Brush size"
        value={brush.size}
        neutral={180}
        min={4}
        max={1000}
        step={2}
        unit="px"
        factor={pixels}
        onPreview={(size) => brush.set({ size })}
        onCommit={(size) => brush.set({ size })}
      />
      <Slider
        label="Brush strength"
        value={brush.strength}
        neutral={0.3}
        {...percent}
        help="A part strength that is built up looks real."
        onCommit={(strength) => brush.set({ strength })}
      />
      <Slider label="Hardness" value={brush.hardness} neutral={0} {...percent} onCommit={(hardness) => brush.set({ hardness })} />
      <Slider label="Flow" value={brush.flow} neutral={0.5} {...percent} onCommit={(flow) => brush.set({ flow })} />
      <Toggle
        label="Lines from tap to tap"
        help="Or hold Shift; they may start outside the picture."
        value={brush.straight}
        onChange={(straight) => brush.set({ straight })}
      />
      <Toggle label="Pen pressure" value={penPressure} onChange={(v) => set({ penPressure: v })} />
    </View>
  );
}

function Parts({ coat }: { coat: Coat }) {
  const c = useColours();
  const { change, preview } = useBench.getState();
  return coat.mask.parts.map((part, i) => {
    const kind = part.kind as string;
    const entry = maskPartByKind(kind);
    const strokes = kind === 'strokes' ? ((part as unknown as { strokes: unknown[] }).strokes.length as number) : 0;
    return (
      <View key={i} style={{ borderTopWidth: 1, borderTopColor: c.line, paddingTop: 8 }}>
        <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
          <Text style={{ fontFamily: SERIF, fontSize: 16, color: c.ink }}>{strokes ? `${entry.label}, ${strokes}` : entry.label}</Text>
          <Act plain onPress={() => change(`Remove ${entry.label.toLowerCase()}`, changePart(coat.id, i, null))}>
            Remove
          </Act>
        </View>
        <Panel
          schema={entry.schema}
          values={part}
          onPreview={(key, v) => preview(changePart(coat.id, i, { [key]: v }))}
          onCommit={(key, v, label) =>
            change(`${entry.label}: ${label.toLowerCase()}`, changePart(coat.id, i, { [key]: v }), `${coat.id}.${i}.${key}`)
          }
        />
      </View>
    );
  });
}

import { View } from 'react-native';
import { Text } from 'react-native-paper';
import type { Stroke } from '@/core/strokes/schema';
import { sourceName } from '@/core/piece/naming';
import { grainOf, marksOfSource, sourceOfGrain } from '@/core/piece/grain';
import { marksOptions } from '@/core/materials/material';
import { useBrush } from '@/store/brush';
import { useOwn } from '@/store/own';
import { useSettings } from '@/store/settings';
import { Choice } from '../../kit/Choice';
import { Fold } from '../../kit/Fold';
import { MaterialGrid } from '../../kit/MaterialGrid';
import { Pick } from '../../kit/Pick';
import { percent, Slider } from '../../kit/Slider';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';
import { PaintSwitch } from './PaintSwitch';
import { BrushSize } from './BrushSize';

/** The brush in hand: what a stroke does, how large and how strongly, and what its tip is like. */
export function BrushPanel() {
  const brush = useBrush();
  return (
    <View>
      <PaintSwitch />
      <Choice
        label="A stroke will"
        bare
        value={brush.does}
        options={
          [
            { value: 'take', label: 'Erase' },
            { value: 'put', label: 'Restore' },
            { value: 'level', label: 'Set to %' },
          ] as const
        }
        onChange={(does) => brush.set({ does })}
      />
      {brush.does === 'level' ? (
        <Slider label="Level" value={brush.level} neutral={0.5} {...percent} onCommit={(level) => brush.set({ level })} />
      ) : null}
      <BrushSize />
      <Slider
        label="Brush strength"
        value={brush.strength}
        neutral={0.3}
        {...percent}
        help="Low strength, several strokes, looks natural."
        onCommit={(strength) => brush.set({ strength })}
      />
      <Slider label="Hardness" value={brush.hardness} neutral={0} {...percent} onCommit={(hardness) => brush.set({ hardness })} />
      <Slider label="Flow" value={brush.flow} neutral={0.5} {...percent} help="Paint per dab." onCommit={(flow) => brush.set({ flow })} />
      <Fold title="Brush settings">
        <TipPanel />
      </Fold>
    </View>
  );
}

function TipPanel() {
  const c = useColours();
  const brush = useBrush();
  const { penPressure, set } = useSettings();
  const names = useOwn((s) => s.names);
  const grain = sourceOfGrain(brush.material);
  return (
    <View>
      <Choice
        label="Tip"
        value={brush.tip}
        options={
          [
            { value: 'round', label: 'Round' },
            { value: 'flat', label: 'Flat' },
            { value: 'cut', label: 'Cut from a material' },
          ] as const
        }
        onChange={(tip) => brush.set({ tip, material: brush.material ?? grainOf({ kind: 'material', id: 'brush.dry' }) })}
      />
      {brush.tip === 'cut' ? (
        <View>
          <Text style={{ color: c.quiet, fontSize: 13 }}>{`Cut from ${sourceName(grain, names)}.`}</Text>
          <Choice label="What of it paints" value={brush.marks} options={marksOptions} onChange={(marks) => brush.set({ marks })} />
          <MaterialGrid size={64} current={grain} onChoose={(source) => brush.set({ material: grainOf(source), marks: marksOfSource(source) })} />
        </View>
      ) : null}
      {brush.tip !== 'round' ? (
        <>
          <Toggle label="Turn with the stroke" value={brush.follow} onChange={(follow) => brush.set({ follow })} />
          <Slider label="Angle" value={brush.angle} neutral={0} min={-180} max={180} step={5} unit="°" onCommit={(angle) => brush.set({ angle })} />
        </>
      ) : null}
      <Toggle
        label="Soft outer ring"
        help="One gesture: the whole strength in the middle, half of it in a ring twice as wide."
        value={brush.ring}
        onChange={(ring) => brush.set({ ring })}
      />
      <Slider
        label="Spacing"
        value={brush.spacing}
        neutral={0.1}
        {...percent}
        min={0.02}
        max={1}
        help="From dab to dab, in parts of the size."
        onCommit={(spacing) => brush.set({ spacing })}
      />
      <Slider label="Jitter" value={brush.jitter} neutral={0} {...percent} help="How far dabs stray." onCommit={(jitter) => brush.set({ jitter })} />
      <Slider
        label="Smooth the stroke"
        value={brush.smooth}
        neutral={0}
        {...percent}
        help="The tip lags behind and draws a calmer line."
        onCommit={(smooth) => brush.set({ smooth })}
      />
      <Toggle
        label="Lines from tap to tap"
        help="Or hold Shift; they may start outside the picture."
        value={brush.straight}
        onChange={(straight) => brush.set({ straight })}
      />
      <Toggle label="Pen pressure" value={penPressure} onChange={(v) => set({ penPressure: v })} />
      {penPressure ? (
        <Pick
          label="Pressure changes"
          value={brush.presses}
          options={[
            { value: 'both', label: 'size and flow' },
            { value: 'size', label: 'size' },
            { value: 'flow', label: 'flow' },
          ]}
          onPick={(v) => brush.set({ presses: v as Stroke['presses'] })}
        />
      ) : null}
    </View>
  );
}

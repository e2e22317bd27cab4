import { View } from 'react-native';
import { Text } from 'react-native-paper';
import type { Stroke } from '@/core/strokes/schema';
import { sourceName } from '@/core/piece/naming';
import { grainOf, marksOfSource, sourceOfGrain } from '@/core/piece/grain';
import { marksOptions } from '@/core/materials/material';
import { useBrush, useMarking } from '@/store/brush';
import { say } from '@/store/notices';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
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
import { words } from '../../words';

/** The brush in hand: what a stroke does, how large and how strongly, and what its tip is like. */
export function BrushPanel() {
  const brush = useBrush();
  return (
    <View>
      <PaintSwitch />
      <Choice
        label={words.brush.aStrokeWill}
        bare
        value={brush.does}
        options={
          [
            { value: 'take', label: words.common.erase },
            { value: 'put', label: words.common.restore },
            { value: 'level', label: words.brush.setToPercent },
          ] as const
        }
        onChange={(does) => brush.set({ does })}
      />
      {brush.does === 'level' ? (
        <Slider label={words.brush.level} value={brush.level} neutral={0.5} {...percent} onCommit={(level) => brush.set({ level })} />
      ) : null}
      <BrushSize />
      <BrushStroke store={useBrush} />
    </View>
  );
}

/** How strongly a brush paints, and what its tip is like. */
export function BrushStroke({ store }: { store: typeof useBrush }) {
  const brush = store();
  const first = store.getInitialState();
  return (
    <View>
      <Slider
        label={words.brush.brushStrength}
        value={brush.strength}
        neutral={first.strength}
        {...percent}
        help={words.brush.lowStrengthSeveralStrokesLooks}
        onCommit={(strength) => brush.set({ strength })}
      />
      <Slider
        label={words.brush.hardness}
        value={brush.hardness}
        neutral={first.hardness}
        {...percent}
        onCommit={(hardness) => brush.set({ hardness })}
      />
      <Slider
        label={words.brush.flow}
        value={brush.flow}
        neutral={first.flow}
        {...percent}
        help={words.brush.paintPerDab}
        onCommit={(flow) => brush.set({ flow })}
      />
      <Fold title={words.brush.brushSettings}>
        <TipPanel store={store} />
      </Fold>
    </View>
  );
}

function TipPanel({ store }: { store: typeof useBrush }) {
  const c = useColours();
  const brush = store();
  const lineFrom = useMarking((s) => s.lineFrom);
  const { penPressure, set } = useSettings();
  const names = useOwn((s) => s.names);
  const grain = sourceOfGrain(brush.material);
  return (
    <View>
      <Choice
        label={words.brush.tip}
        value={brush.tip}
        options={
          [
            { value: 'round', label: words.brush.round },
            { value: 'flat', label: words.brush.flat },
            { value: 'cut', label: words.brush.cutFromAMaterial },
          ] as const
        }
        onChange={(tip) => brush.set({ tip, material: brush.material ?? grainOf({ kind: 'material', id: 'brush.dry' }) })}
      />
      {brush.tip === 'cut' ? (
        <View>
          <Text style={{ color: c.quiet, fontSize: 13 }}>{words.brush.cutFrom(sourceName(grain, names))}</Text>
          <Choice label={words.brush.paintsWith} value={brush.marks} options={marksOptions} onChange={(marks) => brush.set({ marks })} />
          <MaterialGrid size={64} current={grain} onChoose={(source) => brush.set({ material: grainOf(source), marks: marksOfSource(source) })} />
        </View>
      ) : null}
      {brush.tip !== 'round' ? (
        <>
          <Toggle label={words.brush.turnWithTheStroke} value={brush.follow} onChange={(follow) => brush.set({ follow })} />
          <Slider
            label={words.brush.angle}
            value={brush.angle}
            neutral={0}
            min={-180}
            max={180}
            step={5}
            unit="°"
            onCommit={(angle) => brush.set({ angle })}
          />
        </>
      ) : null}
      <Toggle label={words.brush.softOuterRing} help={words.brush.ringHelp} value={brush.ring} onChange={(ring) => brush.set({ ring })} />
      <Slider
        label={words.brush.spacing}
        value={brush.spacing}
        neutral={0.1}
        {...percent}
        min={0.02}
        max={1}
        help={words.brush.spacingHelp}
        onCommit={(spacing) => brush.set({ spacing })}
      />
      <Slider
        label={words.brush.jitter}
        value={brush.jitter}
        neutral={0}
        {...percent}
        help={words.brush.howFarDabsStray}
        onCommit={(jitter) => brush.set({ jitter })}
      />
      {(
        [
          ['varySize', words.brush.varySize],
          ['varyTurn', words.brush.varyTurn],
          ['varyAmount', words.brush.varyAmount],
        ] as const
      ).map(([key, label]) => (
        <Slider
          key={key}
          label={label}
          value={brush[key]}
          neutral={0}
          {...percent}
          help={words.brush.varyHelp}
          onCommit={(v) => brush.set({ [key]: v })}
        />
      ))}
      <Slider
        label={words.brush.smoothTheStroke}
        value={brush.smooth}
        neutral={0}
        {...percent}
        help={words.brush.smoothHelp}
        onCommit={(smooth) => brush.set({ smooth })}
      />
      <Toggle
        label={words.brush.linesFromTapToTap}
        help={words.brush.orHoldShiftTheyMay}
        value={brush.straight}
        onChange={(straight) => brush.set({ straight })}
      />
      {brush.straight && lineFrom ? (
        <Acts>
          <Act
            onPress={() => {
              useMarking.setState({ lineFrom: null });
              say(words.brush.lineEnded);
            }}
          >
            {words.brush.endTheLine}
          </Act>
        </Acts>
      ) : null}
      <Toggle label={words.brush.penPressure} value={penPressure} onChange={(v) => set({ penPressure: v })} />
      {penPressure ? (
        <Pick
          label={words.brush.pressureChanges}
          value={brush.presses}
          options={[
            { value: 'both', label: words.brush.sizeAndFlow },
            { value: 'size', label: words.brush.size },
            { value: 'flow', label: words.brush.flowOnly },
          ]}
          onPick={(v) => brush.set({ presses: v as Stroke['presses'] })}
        />
      ) : null}
    </View>
  );
}

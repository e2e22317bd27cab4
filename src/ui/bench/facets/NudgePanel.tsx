import { View } from 'react-native';
import { nudges } from '@/core/nudge/schema';
import { dropNudges } from '@/core/piece/nudges';
import { useBench } from '@/store/bench';
import { useNudgeBrush } from '@/store/brush';
import { useNudging } from '@/store/nudging';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Choice } from '../../kit/Choice';
import { percent, Slider } from '../../kit/Slider';
import { Toggle } from '../../kit/Toggle';
import { BrushSize } from './BrushSize';
import { PaintSwitch } from './PaintSwitch';
import { words } from '../../words';

/** The brush that moves a texture, on a step that does. */
export function NudgePanel({ coat, index, strokes }: { coat: string; index: number; strokes: number }) {
  const { change } = useBench.getState();
  const { does, through, isReversed, set } = useNudging();
  const brush = useNudgeBrush();
  return (
    <View>
      <PaintSwitch label={words.nudge.moveByHand} help={words.nudge.moveByHandHelp} />
      <Choice label={words.brush.aStrokeWill} bare scrolls value={does} options={nudges} onChange={(next) => set({ does: next })} />
      {does === 'turn' ? <Toggle label={words.nudge.against} value={isReversed} onChange={(on) => set({ isReversed: on })} /> : null}
      <BrushSize store={useNudgeBrush} />
      <Slider label={words.brush.brushStrength} value={brush.strength} neutral={0.7} {...percent} onCommit={(strength) => brush.set({ strength })} />
      <Slider
        label={words.nudge.showsThrough}
        value={1 - through}
        neutral={0.4}
        {...percent}
        max={0.9}
        help={words.nudge.showsThroughHelp}
        onCommit={(v) => set({ through: 1 - v })}
      />
      {strokes > 0 ? (
        <Acts>
          <Act plain onPress={() => change(words.nudge.removeLast, dropNudges(coat, index, false))}>
            {words.nudge.removeLast}
          </Act>
          <Act plain onPress={() => change(words.nudge.removeAll, dropNudges(coat, index, true))}>
            {words.nudge.removeAll}
          </Act>
        </Acts>
      ) : null}
    </View>
  );
}

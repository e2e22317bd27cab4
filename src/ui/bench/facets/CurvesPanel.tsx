import { useState } from 'react';
import { View } from 'react-native';
import * as z from 'zod';
import type { Edit } from '@/core/piece/edits';
import { curvesFields } from '@/core/treatments/curves';
import { useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { Act } from '../../kit/Act';
import { Choice } from '../../kit/Choice';
import { Panel } from '../../kit/Panel';
import { words } from '../../words';

const channels = [
  { value: 'all', label: words.common.all },
  { value: 'red', label: words.light.red },
  { value: 'green', label: words.light.green },
  { value: 'blue', label: words.light.blue },
] as const;

const schema = z.object(curvesFields);

interface CurvesPanelProps {
  values: z.output<typeof schema>;
  set(key: string, value: unknown): Edit;
  /** Puts all of them back. */
  straight: Edit;
  /** What tells these curves' steps from others (`panelEdit`). */
  run: string;
}

/** Curves, one channel at a time. */
export function CurvesPanel({ values, set, straight, run }: CurvesPanelProps) {
  const [channel, setChannel] = useState<string>('all');
  return (
    <View>
      <Choice label={words.light.curveOf} options={channels} value={channel} onChange={setChannel} />
      <Panel schema={schema} values={values} only={[channel]} {...panelEdit(set, stepOf(words.light.curve), run)} />
      <Act plain onPress={() => useBench.getState().change(words.light.straightCurves, straight)}>
        {words.light.resetCurves}
      </Act>
    </View>
  );
}

import { View } from 'react-native';
import { firstControl, firstOf, withFirst, type FirstValue } from '@/core/first';
import { materialById } from '@/core/materials';
import type { FirstSpec } from '@/core/materials/first';
import { changeCoat } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { controlEdit } from '@/store/editing';
import { knownLamp } from '@/store/light';
import { usePalette } from '@/store/palette';
import { Panel } from '../../kit/Panel';
import { percent, Slider } from '../../kit/Slider';
import { Swatches } from '../../kit/Swatches';
import { Toggle } from '../../kit/Toggle';
import { words } from '../../words';

/** The few controls that a coat's material leads with, each doing something at the first tap. */
export function FirstControls({ coat }: { coat: Coat }) {
  return (
    <View>
      {firstOf(coat).map((spec) => (
        <FirstRow key={spec.control === 'parameter' ? spec.key : spec.control} coat={coat} spec={spec} />
      ))}
    </View>
  );
}

const SIZE = { ...percent, min: 1, max: 3 };

/** A relief that a first control has added is lit as the photo's face is, where that is known. */
function litAsKnown(before: Coat, after: Coat): Coat {
  const isNew = !before.treatments.some(({ kind }) => kind === 'relief');
  if (!isNew) return after;
  return { ...after, treatments: after.treatments.map((step) => (step.kind === 'relief' ? { ...step, ...knownLamp('relief') } : step)) };
}

function FirstRow({ coat, spec }: { coat: Coat; spec: FirstSpec }) {
  const colours = usePalette();
  const control = firstControl(spec);
  const { shape, help, begins, min = 0 } = control;
  const label = control.label(spec);
  const value = control.read(coat, spec);
  const name = `${label}${shape === 'switch' ? (value ? ' off' : ' on') : ''}`;
  const set = (v: FirstValue) => changeCoat(coat.id, (now) => litAsKnown(now, withFirst(now, spec, v)));
  const { onPreview, onCommit } = controlEdit(set, name, `${coat.id}.first.${spec.control}`);
  switch (shape) {
    case 'amount':
      return (
        <Slider
          {...percent}
          min={min}
          label={label}
          help={help}
          value={Number(value)}
          neutral={0}
          toggle={{
            on: value !== 0,
            flip: () => useBench.getState().change(value === 0 ? label : words.common.isOff(label), set(value === 0 ? begins : 0)),
          }}
          onPreview={onPreview}
          onCommit={onCommit}
        />
      );
    case 'slider':
      return <Slider {...percent} label={label} help={help} value={Number(value)} neutral={begins} onPreview={onPreview} onCommit={onCommit} />;
    case 'size':
      return <Slider {...SIZE} label={label} help={help} value={Number(value)} neutral={begins} onPreview={onPreview} onCommit={onCommit} />;
    case 'switch':
      return <Toggle label={label} help={help} value={value === 1} onChange={(on) => onCommit(on ? 1 : 0)} />;
    case 'colour':
      return (
        <Swatches label={label} help={help} value={value as string | null} photo={colours.slice(0, 3)} onPreview={onPreview} onCommit={onCommit} />
      );
    case 'parameter': {
      if (spec.control !== 'parameter') return null;
      const { params } = materialById((coat.source as unknown as { id: string }).id);
      // A material is made anew for each value: it is shown when the slider is let go.
      return <Panel schema={params} only={[spec.key]} values={{ [spec.key]: value }} onCommit={(_key, v) => onCommit(v as FirstValue)} />;
    }
  }
}

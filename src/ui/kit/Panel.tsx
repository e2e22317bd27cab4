import { useMemo } from 'react';
import { View } from 'react-native';
import type * as z from 'zod';
import { unitOf } from '@/core/image/unit';
import { pieceSize } from '@/core/ready/geometry';
import { controlsOf } from '@/core/schema';
import type { CurvePoint } from '@/core/treatments/curves';
import { useBench } from '@/store/bench';
import { Choice } from './Choice';
import { Colour } from './Colour';
import { Curve } from './Curve';
import { Dial } from './Dial';
import { Limits, type LimitValues } from './Limits';
import { Slider } from './Slider';
import { Toggle } from './Toggle';

interface PanelProps {
  schema: z.ZodObject;
  values: Record<string, unknown>;
  /** Draws only these fields. */
  only?: string[];
  /** Colours that fit here, to take at a tap. */
  colours?: readonly string[];
  /** Counts of levels of what is worked on, by curve. */
  counts?: Record<string, ArrayLike<number>>;
  /** Pixels to one u, for lengths that do not belong to the piece's own frame. */
  lengths?: number;
  onPreview?(key: string, value: unknown): void;
  onCommit(key: string, value: unknown, label: string): void;
}

/** The controls of a schema, drawn from the words it carries: no form is made by hand. */
export function Panel({ schema, values, only, colours, counts, lengths: given, onPreview, onCommit }: PanelProps) {
  // Lengths are shown in pixels of the photo.
  const own = useBench((s) => (s.piece ? unitOf(pieceSize(s.piece)) : undefined));
  const lengths = given ?? own;
  const controls = useMemo(() => controlsOf(schema), [schema]);
  return (
    <View>
      {controls
        .filter(({ key, meta }) => (!only || only.includes(key)) && !meta.absent?.(values))
        .map(({ key, meta, neutral }) => {
          const value = values[key] ?? neutral;
          const commit = (v: unknown) => onCommit(key, v, meta.label);
          if (meta.control === 'slider' && meta.dial) {
            return (
              <Dial
                key={key}
                label={meta.label}
                value={value as number}
                neutral={neutral as number}
                help={meta.help}
                onPreview={(v) => onPreview?.(key, v)}
                onCommit={commit}
              />
            );
          }
          if (meta.control === 'slider') {
            return (
              <Slider
                key={key}
                label={meta.label}
                value={value as number}
                neutral={neutral as number}
                min={meta.min as number}
                max={meta.max as number}
                step={meta.step as number}
                unit={meta.unit === 'u' && lengths ? 'px' : meta.unit}
                factor={meta.unit === 'u' && lengths ? lengths : meta.factor}
                help={meta.help}
                idle={meta.idle?.(values)}
                onPreview={(v) => onPreview?.(key, v)}
                onCommit={commit}
              />
            );
          }
          if (meta.control === 'toggle')
            return <Toggle key={key} label={meta.label} value={value as boolean} help={meta.idle?.(values) ?? meta.help} onChange={commit} />;
          if (meta.control === 'choice')
            return <Choice key={key} label={meta.label} options={meta.choices ?? []} value={value as string} onChange={commit} />;
          if (meta.control === 'colour')
            return (
              <Colour
                key={key}
                label={meta.label}
                value={value as string}
                help={meta.help}
                offered={colours}
                onPreview={(v) => onPreview?.(key, v)}
                onCommit={commit}
              />
            );
          if (meta.control === 'limits')
            return (
              <Limits
                key={key}
                label={meta.label}
                value={value as LimitValues}
                counts={counts?.[key] ?? []}
                onPreview={(v) => onPreview?.(key, v)}
                onCommit={commit}
              />
            );
          if (meta.control === 'curve')
            return (
              <Curve
                key={key}
                label={meta.label}
                points={value as CurvePoint[]}
                counts={counts?.[key]}
                onPreview={(v) => onPreview?.(key, v)}
                onCommit={commit}
              />
            );
          return null;
        })}
    </View>
  );
}

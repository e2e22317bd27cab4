import * as z from 'zod';
import { slider } from '@/core/schema';
import { encodingOf } from '@/store/export';
import { useSettings, type ExportChoice } from '@/store/settings';
import { Choice } from '../kit/Choice';
import { Panel } from '../kit/Panel';
import { Toggle } from '../kit/Toggle';
import { words } from '../words';

const qualitySchema = z.object({ quality: slider(words.export.quality, 0.3, 1, 0.92, { unit: '%', factor: 100, step: 0.01 }) });

interface FormatPanelProps {
  /** The longest side that it can have, in pixels. */
  longest: number;
  /** About how many seconds full detail takes; null where nobody can say. Without any, it is not offered. */
  detail: number | null;
}

/** How a picture is exported: its format and its size. What was chosen last stays. */
export function FormatPanel({ longest: long, detail }: FormatPanelProps) {
  const { exportAs: chosen, set } = useSettings();
  const choose = (change: Partial<ExportChoice>) => set({ exportAs: { ...chosen, ...change } });
  const { type, bits, quality, share, long: own } = chosen;
  return (
    <>
      <Choice
        label={words.export.format}
        value={type}
        options={
          [
            { value: 'image/jpeg', label: words.export.jpeg },
            { value: 'image/png', label: words.export.png },
            { value: 'image/webp', label: words.export.webp },
            { value: 'image/tiff', label: words.export.tiff },
          ] as const
        }
        onChange={(v) => choose({ type: v })}
      />
      {'quality' in encodingOf(chosen) ? (
        <Panel schema={qualitySchema} values={{ quality }} onCommit={(_key, v) => choose({ quality: v as number })} />
      ) : (
        <Choice
          label={words.export.bits}
          value={bits}
          options={
            [
              { value: '8', label: words.export.eightBits },
              { value: '16', label: words.export.sixteenBits },
            ] as const
          }
          onChange={(v) => choose({ bits: v })}
        />
      )}
      <Choice
        label={words.common.size}
        value={share}
        options={
          [
            { value: '1', label: words.export.full },
            { value: '0.5', label: words.export.half },
            { value: '0.25', label: words.export.quarter },
            { value: 'own', label: words.export.longSide },
          ] as const
        }
        onChange={(v) => choose({ share: v })}
      />
      {share === 'own' ? (
        <Panel
          schema={z.object({ long: slider(words.export.longSide, 64, Math.max(65, long), Math.min(2000, long), { unit: 'px', step: 1 }) })}
          values={{ long: Math.min(own, long) }}
          onCommit={(_key, v) => choose({ long: v as number })}
        />
      ) : null}
      {detail === 0 ? null : (
        <Toggle
          label={words.export.detail}
          help={detail === null ? words.export.detailHelp : words.export.detailSeconds(Math.max(1, Math.round(detail)))}
          value={chosen.detail}
          onChange={(value) => choose({ detail: value })}
        />
      )}
      <Toggle label={words.export.capture} help={words.export.captureHelp} value={chosen.capture} onChange={(capture) => choose({ capture })} />
    </>
  );
}

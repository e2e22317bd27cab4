import type { CSSProperties, ReactNode } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { families, materials } from '@/core/materials';
import type { SourceInput } from '@/core/piece/edits';
import { useOwn } from '@/store/own';
import { SANS, SERIF, useColours } from '../theme';
import { MaterialThumb } from './MaterialThumb';
import { OwnThumb } from './OwnThumb';

interface Props {
  /** Width of a card in CSS pixels. */
  size: number;
  /** The material in use, marked. */
  current?: SourceInput;
  onChoose(source: SourceInput): void;
}

/** The shelf as cards, in families; own pictures first when there are any. */
export function MaterialGrid({ size, current, onChoose }: Props) {
  const own = useOwn((s) => s.list);
  const names = useOwn((s) => s.names);
  const grid: CSSProperties = { display: 'grid', gridTemplateColumns: `repeat(auto-fill, minmax(${size}px, 1fr))`, gap: 10 };
  // Large cards stand on a screen of their own: families side by side where there is room.
  const shelf: CSSProperties =
    size > 120 ? { display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(340px, 1fr))', gap: '16px 28px' } : { display: 'grid', gap: 8 };
  return (
    <div style={shelf}>
      {own.length > 0 ? (
        <Family label="Your own">
          <div style={grid}>
            {own.map((o) => (
              <Card
                key={o.key}
                size={size}
                label={names[o.key] ?? o.name}
                on={current?.file === o.key}
                onPress={() => onChoose({ kind: 'picture', file: o.key, width: o.width, height: o.height })}
              >
                <OwnThumb picture={o.key} label="" />
              </Card>
            ))}
          </div>
        </Family>
      ) : null}
      {families.map((f) => {
        const list = materials.filter((m) => m.family === f.id);
        return list.length === 0 ? null : (
          <Family key={f.id} label={f.label}>
            <div style={grid}>
              {list.map((m) => (
                <Card
                  key={m.id}
                  size={size}
                  label={m.label}
                  on={current?.id === m.id}
                  onPress={() => onChoose({ kind: 'material', id: m.id, seed: 1, params: {} })}
                >
                  <MaterialThumb id={m.id} label="" />
                </Card>
              ))}
            </div>
          </Family>
        );
      })}
    </div>
  );
}

function Family({ label, children }: { label: string; children: ReactNode }) {
  const c = useColours();
  return (
    <View>
      <Text role="heading" aria-level={3} style={{ fontFamily: SERIF, fontSize: 16, color: c.ink, paddingVertical: 4 }}>
        {label}
      </Text>
      {children}
    </View>
  );
}

function Card({ size, label, on, onPress, children }: { size: number; label: string; on: boolean; onPress(): void; children: ReactNode }) {
  const c = useColours();
  return (
    <button type="button" aria-pressed={on} aria-label={label} onClick={onPress} style={plain}>
      <span
        style={{
          display: 'block',
          aspectRatio: '1',
          overflow: 'hidden',
          borderRadius: 2,
          background: c.card,
          outline: on ? `2.5px solid ${c.accent}` : `1px solid ${c.line}`,
          outlineOffset: on ? 1 : 0,
        }}
      >
        {children}
      </span>
      <span
        style={{
          display: 'block',
          paddingTop: 4,
          fontFamily: SANS,
          fontSize: 14,
          lineHeight: '17px',
          color: on ? c.accent : c.ink,
          minHeight: size > 100 ? 20 : 34,
        }}
      >
        {label}
      </span>
    </button>
  );
}

const plain: CSSProperties = { border: 'none', background: 'none', padding: 0, cursor: 'pointer', textAlign: 'left', display: 'block' };

import { useState, type CSSProperties } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { modeById, modeGroups, modes, type Mode } from '@/core/blend';
import { changeCoat } from '@/core/piece/edits';
import { strengthField, type Coat } from '@/core/piece/schema';
import * as z from 'zod';
import { useLumaBelow } from '@/store/lumaBelow';
import { useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { Act } from '../../kit/Act';
import { Fold } from '../../kit/Fold';
import { Limits, type LimitValues } from '../../kit/Limits';
import { Panel } from '../../kit/Panel';
import { SANS, SANS_MEDIUM, useColours } from '../../theme';

const strengthSchema = z.object({ strength: strengthField });

/** Strength, then the modes: those tried first for textures in a quick row, all of them in groups; each shows while pointed at. */
export function BlendFacet({ coat }: { coat: Coat }) {
  const c = useColours();
  const [tried, setTried] = useState<Mode | null>(null);
  const { change, preview, openFacet } = useBench.getState();
  const kept = useBench((s) => s.piece?.coats.find((k) => k.id === coat.id)) ?? coat;
  const blend = (mode: Mode) => changeCoat(coat.id, () => ({ blend: mode.id as Coat['blend'] }));
  const strength = (_key: string, v: unknown) => changeCoat(coat.id, () => ({ strength: v as number }));
  const card = (mode: Mode) => {
    const on = kept.blend === mode.id;
    return (
      <button
        key={mode.id}
        type="button"
        aria-pressed={on}
        onPointerMove={(e) => {
          // A button that merely appears under a resting pointer is not pointed at.
          const moved = e.movementX !== 0 || e.movementY !== 0;
          if (e.pointerType !== 'mouse' || !moved || tried === mode) return;
          setTried(mode);
          preview(blend(mode));
        }}
        onPointerLeave={(e) => e.pointerType === 'mouse' && (setTried(null), preview(null))}
        onFocus={(e) => e.currentTarget.matches(':focus-visible') && (setTried(mode), preview(blend(mode)))}
        onBlur={() => (setTried(null), preview(null))}
        onClick={() => change(`Blend: ${mode.label.toLowerCase()}`, blend(mode))}
        style={{
          ...button,
          background: on ? c.raised : 'transparent',
          border: `1px solid ${on ? c.accent : c.line}`,
          color: c.ink,
          fontFamily: on ? SANS_MEDIUM : SANS,
        }}
      >
        {mode.label}
      </button>
    );
  };
  return (
    <View style={{ gap: 8 }}>
      <Panel schema={strengthSchema} values={{ strength: coat.strength }} {...panelEdit(strength, () => 'Strength', coat.id)} />
      <div style={rowStyle} role="group" aria-label="Suggested">
        {suggested(kept.blend).map(card)}
      </div>
      <Text style={{ color: c.quiet, fontSize: 13, minHeight: 18 }}>{(tried ?? modeById(kept.blend)).help}</Text>
      <Act icon="view-grid-outline" onPress={() => openFacet('contact')}>
        Compare all modes
      </Act>
      <Fold title="Tonal range" changed={kept.limits.some((v, i) => v !== [0, 0, 1, 1][i])}>
        <ToneLimits coat={coat} />
      </Fold>
      <Fold title={`All ${modes.length} modes`}>
        {modeGroups.map((group) => (
          <View key={group.id}>
            <Text style={{ color: c.quiet, fontSize: 13, paddingBottom: 4 }}>{group.label}</Text>
            <div style={rowStyle} role="group" aria-label={group.label}>
              {modes.filter((m: Mode) => m.group === group.id).map(card)}
            </div>
          </View>
        ))}
      </Fold>
    </View>
  );
}

/** Those that textures are laid with first, and the one in use. */
const suggested = (current: string): Mode[] => {
  const first = ['multiply', 'screen', 'overlay', 'soft-light'];
  return modes.filter((m) => first.includes(m.id) || m.id === current);
};

/** Held back in the darks or the lights of what lies below. */
function ToneLimits({ coat }: { coat: Coat }) {
  const counts = useLumaBelow(coat.id);
  const { change, preview } = useBench.getState();
  const limits = (value: LimitValues) => changeCoat(coat.id, () => ({ limits: value }));
  return (
    <View>
      <Limits
        value={coat.limits}
        counts={counts}
        onPreview={(v) => preview(limits(v))}
        onCommit={(v, name) => change(stepOf('Tones')(name), limits(v), `${coat.id}.limits.${name}`)}
      />
      <Act plain onPress={() => change('Reset tonal range', limits([0, 0, 1, 1]))}>
        Reset tonal range
      </Act>
    </View>
  );
}

const rowStyle: CSSProperties = { display: 'flex', flexWrap: 'wrap', gap: 6 };
const button: CSSProperties = { minHeight: 44, padding: '0 12px', borderRadius: 2, fontSize: 15, cursor: 'pointer' };

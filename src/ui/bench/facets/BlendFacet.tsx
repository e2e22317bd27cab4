import { useEffect, useId, useState, type CSSProperties } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import * as z from 'zod';
import { modeGroups, modes, type Mode } from '@/core/blend';
import { changeCoat } from '@/core/piece/edits';
import { strengthField, type Coat } from '@/core/piece/schema';
import { applySettings, materialOf, settingsOf } from '@/core/piece/lastSettings';
import { findCoat } from '@/core/piece/groups';
import { useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { useLastSettings } from '@/store/lastSettings';
import { useLumaBelow } from '@/store/lumaBelow';
import { Act } from '../../kit/Act';
import { Fold } from '../../kit/Fold';
import { dropHelp, showHelp } from '../../kit/help';
import { Limits, type LimitValues } from '../../kit/Limits';
import { Panel } from '../../kit/Panel';
import { SANS, SANS_MEDIUM, useColours } from '../../theme';
import { FirstControls } from './FirstControls';
import { words } from '../../words';

const strengthSchema = z.object({ strength: strengthField });

/** A coat's first page: its strength, the modes tried first, and the few controls that its material leads with. */
export function BlendFacet({ coat }: { coat: Coat }) {
  const c = useColours();
  const [all, setAll] = useState(false);
  const { openFacet } = useBench.getState();
  const kept = useBench((s) => s.piece && findCoat(s.piece, coat.id)) ?? coat;
  const strength = (_key: string, v: unknown) => changeCoat(coat.id, () => ({ strength: v as number }));
  return (
    <View>
      <Panel schema={strengthSchema} values={{ strength: coat.strength }} {...panelEdit(strength, () => words.common.strength, coat.id)} />
      <div style={{ display: 'flex', gap: 4 }}>
        <div style={lineStyle} role="group" aria-label={words.blend.suggested}>
          {suggested(kept.blend).map((mode) => (
            <ModeCard key={mode.id} coat={kept} mode={mode} />
          ))}
        </div>
        <button
          type="button"
          aria-expanded={all}
          onClick={() => setAll(!all)}
          style={{ ...button, padding: '0 4px', border: 'none', background: 'none', color: c.ink, fontFamily: SANS_MEDIUM }}
        >
          {all ? words.blend.fewer : words.blend.allModes}
        </button>
      </div>
      {all
        ? modeGroups.map((group) => (
            <View key={group.id}>
              <Text style={{ color: c.quiet, fontSize: 13, paddingVertical: 4 }}>{group.label}</Text>
              <div style={rowStyle} role="group" aria-label={group.label}>
                {modes
                  .filter((m: Mode) => m.group === group.id)
                  .map((mode) => (
                    <ModeCard key={mode.id} coat={kept} mode={mode} />
                  ))}
              </div>
            </View>
          ))
        : null}
      <AsLastTime coat={kept} />
      <FirstControls coat={coat} />
      <Fold title={words.blend.tonalRange} changed={kept.limits.some((v, i) => v !== [0, 0, 1, 1][i])}>
        <ToneLimits coat={coat} />
      </Fold>
      <View style={{ alignItems: 'flex-start', paddingTop: 8 }}>
        <Act icon="view-grid-outline" onPress={() => openFacet('contact')}>
          {words.common.compareAllModes}
        </Act>
      </View>
    </View>
  );
}

/** The settings with which a new coat's material was used last. */
function AsLastTime({ coat }: { coat: Coat }) {
  const last = useLastSettings((s) => s.settings[materialOf(coat) ?? '']);
  if (!last || settingsOf(coat)) return null;
  return (
    <View style={{ alignItems: 'flex-start', paddingVertical: 4 }}>
      <Act icon="history" onPress={() => useBench.getState().change(words.blend.lastSettings, applySettings(coat.id, last))}>
        {words.blend.lastSettings}
      </Act>
    </View>
  );
}

/** A mode: it shows while it is pointed at, and stays when it is pressed. */
function ModeCard({ coat, mode }: { coat: Coat; mode: Mode }) {
  const c = useColours();
  const id = useId();
  const { change, preview } = useBench.getState();
  const on = coat.blend === mode.id;
  const edit = changeCoat(coat.id, () => ({ blend: mode.id as Coat['blend'] }));
  const attempt = () => {
    showHelp(id, mode.help);
    preview(edit);
  };
  const leave = () => {
    dropHelp(id);
    preview(null);
  };
  useEffect(() => () => dropHelp(id), [id]);
  return (
    <button
      type="button"
      aria-pressed={on}
      onPointerMove={(e) => {
        // A button that merely appears under a resting pointer is not pointed at.
        const moved = e.movementX !== 0 || e.movementY !== 0;
        if (e.pointerType === 'mouse' && moved) attempt();
      }}
      onPointerLeave={(e) => e.pointerType === 'mouse' && leave()}
      onFocus={(e) => e.currentTarget.matches(':focus-visible') && attempt()}
      onBlur={leave}
      onClick={() => {
        change(words.blend.blend(mode.label.toLowerCase()), edit);
        showHelp(id, mode.help);
      }}
      style={{
        ...button,
        background: on ? c.raised : 'transparent',
        border: `1px solid ${on ? c.accent : c.quiet}`,
        color: c.ink,
        fontFamily: on ? SANS_MEDIUM : SANS,
      }}
    >
      {mode.label}
    </button>
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
        onCommit={(v, name) => change(stepOf(words.blend.tones)(name), limits(v), `${coat.id}.limits.${name}`)}
      />
      <Act plain onPress={() => change(words.blend.resetTonalRange, limits([0, 0, 1, 1]))}>
        {words.blend.resetTonalRange}
      </Act>
    </View>
  );
}

const rowStyle: CSSProperties = { display: 'flex', flexWrap: 'wrap', gap: 6 };
/** One line, pushed sideways where it is longer than the panel. */
const lineStyle: CSSProperties = { display: 'flex', flex: 1, gap: 4, overflowX: 'auto', scrollbarWidth: 'none', touchAction: 'pan-x pan-y' };
const button: CSSProperties = {
  minHeight: 40,
  padding: '0 7px',
  borderRadius: 2,
  fontSize: 14,
  whiteSpace: 'nowrap',
  flexShrink: 0,
  cursor: 'pointer',
};

import { View } from 'react-native';
import { Text } from 'react-native-paper';
import * as z from 'zod';
import { hueFields, type HueRange } from '@/core/treatments/hues';
import { shownPiece, useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { complain } from '@/store/notices';
import { changeReady, readyOf, useReady } from '@/store/ready';
import { stretched } from '@/store/scopes';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { useColours } from '../../theme';
import { Scope } from '../Scope';
import { BalancePanel } from './BalancePanel';
import { ReadyStep } from './ReadyStep';
import { words } from '../../words';

const hueSchema = z.object(hueFields);

/** Colours of the photo, under every coat. */
export function ColourFacet() {
  const piece = useBench(shownPiece);
  if (!piece) return null;
  const ready = readyOf(piece);
  const stretch = async () => {
    const { piece: now, change } = useBench.getState();
    if (!now) return;
    const curves = await stretched(now);
    change(
      words.colour.autoColour,
      changeReady((r) => ({ ...r, curves })),
    );
  };
  return (
    <View>
      <BalancePanel />
      <Scope />
      <ReadyStep field="colour" />
      <Acts>
        <Act onPress={() => void stretch().catch(complain)}>{words.colour.autoColour}</Act>
      </Acts>
      <Hues ranges={ready.hues ?? []} />
      <ReadyStep field="ranges" fold />
      <ReadyStep field="monochrome" only={ready.monochrome?.on ? undefined : ['on']} fold />
    </View>
  );
}

/** Ranges of hue that were picked on the photo, each with its own sliders. */
function Hues({ ranges }: { ranges: HueRange[] }) {
  const c = useColours();
  const { tool, set } = useReady();
  const { change } = useBench.getState();
  const picking = tool === 'hue';
  const put = (next: HueRange[]) => changeReady((r) => ({ ...r, hues: next.length > 0 ? next : undefined }));
  return (
    <Fold title={words.colour.singleColours} begin changed={ranges.length > 0}>
      <Text style={{ color: c.quiet, paddingBottom: 6 }}>{picking ? words.colour.tapAColourOnThe : words.colour.pickAColourHelp}</Text>
      <Acts>
        <Act main={picking} onPress={() => set({ tool: picking ? 'frame' : 'hue' })}>
          {picking ? words.common.stopPicking : words.common.pickAColour}
        </Act>
      </Acts>
      {ranges.map((range, i) => {
        const edit = (key: string, v: unknown) => put(ranges.map((r, k) => (k === i ? { ...r, [key]: v } : r)));
        return (
          <View key={i} style={{ paddingTop: 12 }} testID={`hue-${i}`}>
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
              <Swatch from={range.hue} to={range.hue + range.turn} />
              <Text style={{ color: c.ink, fontSize: 15, flex: 1 }}>{words.colour.colour(i + 1)}</Text>
              <Act
                plain
                accessibilityLabel={words.colour.removeColour(i + 1)}
                onPress={() => change(words.colour.removeAColour, put(ranges.filter((_, k) => k !== i)))}
              >
                {words.common.remove}
              </Act>
            </View>
            <Panel schema={hueSchema} values={range} {...panelEdit(edit, stepOf(words.colour.colour(i + 1)), `ready.hues.${i}`)} />
          </View>
        );
      })}
    </Fold>
  );
}

/** The hue that is worked on, and what it becomes. */
function Swatch({ from, to }: { from: number; to: number }) {
  return (
    <span aria-hidden style={{ display: 'inline-flex', width: 44, height: 24, borderRadius: 2, overflow: 'hidden' }}>
      <span style={{ flex: 1, background: `hsl(${from} 60% 55%)` }} />
      <span style={{ flex: 1, background: `hsl(${to} 60% 55%)` }} />
    </span>
  );
}

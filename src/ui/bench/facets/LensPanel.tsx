import { useState } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { lensSchema } from '@/core/ready/lens';
import { useBench } from '@/store/bench';
import { complain, say } from '@/store/notices';
import { changeReady, fringesOf, useReady } from '@/store/ready';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { useColours } from '../../theme';
import { ReadyStep } from './ReadyStep';
import { words } from '../../words';

/** What the lens did: bent lines, coloured edges, dark corners. */
export function LensPanel() {
  const c = useColours();
  const { tool, set } = useReady();
  const [looking, setLooking] = useState(false);
  const fringes = async () => {
    const { piece } = useBench.getState();
    if (!piece) return;
    setLooking(true);
    try {
      const found = await fringesOf(piece);
      if (!found) return say(words.lens.tooFewEdges);
      const { red, blue } = found;
      useBench.getState().change(
        words.lens.autoFringes,
        changeReady((r) => ({ ...r, lens: { ...lensSchema.parse(r.lens ?? {}), red, blue } })),
      );
      say(words.lens.redByAndBlueBy(red.toFixed(2), blue.toFixed(2), found.edges));
    } catch (error) {
      complain(error);
    } finally {
      setLooking(false);
    }
  };
  return (
    <View>
      <View style={{ gap: 8, paddingBottom: 4 }}>
        <Text style={{ color: c.quiet }}>{tool === 'bend' ? words.lens.drawAlongSomethingStraightThat : words.lens.bentHelp}</Text>
        <Acts>
          <Act main={tool === 'bend'} onPress={() => set({ tool: tool === 'bend' ? 'frame' : 'bend' })}>
            {tool === 'bend' ? words.lens.stopDrawing : words.lens.drawAlongABentLine}
          </Act>
          <Act loading={looking} disabled={looking} onPress={() => void fringes()}>
            {words.lens.autoFringes}
          </Act>
        </Acts>
      </View>
      <ReadyStep field="lens" />
      <ReadyStep field="fringe" fold />
    </View>
  );
}

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
      if (!found) return say('Too few hard edges were found to tell, so nothing was changed; use the two sliders.');
      const { red, blue } = found;
      useBench.getState().change(
        'Auto fringes',
        changeReady((r) => ({ ...r, lens: { ...lensSchema.parse(r.lens ?? {}), red, blue } })),
      );
      say(`Red by ${red.toFixed(2)} ‰ and blue by ${blue.toFixed(2)} ‰, from ${found.edges} edges.`);
    } catch (error) {
      complain(error);
    } finally {
      setLooking(false);
    }
  };
  return (
    <View>
      <View style={{ gap: 8, paddingBottom: 4 }}>
        <Text style={{ color: c.quiet }}>
          {tool === 'bend'
            ? 'Draw along something straight that looks bent.'
            : 'Straighten what the lens has bent by drawing along it, or by the slider.'}
        </Text>
        <Acts>
          <Act main={tool === 'bend'} onPress={() => set({ tool: tool === 'bend' ? 'frame' : 'bend' })}>
            {tool === 'bend' ? 'Stop drawing' : 'Draw along a bent line'}
          </Act>
          <Act loading={looking} disabled={looking} onPress={() => void fringes()}>
            Auto fringes
          </Act>
        </Acts>
      </View>
      <ReadyStep field="lens" />
      <ReadyStep field="fringe" fold />
    </View>
  );
}

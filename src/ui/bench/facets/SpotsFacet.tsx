import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { shownPiece, useBench } from '@/store/bench';
import { complain } from '@/store/notices';
import { addSpot, changeReady, readyOf, useReady } from '@/store/ready';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { useColours } from '../../theme';
import { PaintSwitch } from './PaintSwitch';
import { TipSize } from './TipSize';
import { unitOf } from '@/core/image/unit';

/** Litter, wires and blemishes taken out of the photo. */
export function SpotsFacet() {
  const c = useColours();
  const piece = useBench(shownPiece);
  const { spotSize, spot, set } = useReady();
  if (!piece) return null;
  const { change } = useBench.getState();
  const { spots } = readyOf(piece);
  const chosen = spot === null ? undefined : spots[spot];
  const pixels = unitOf(piece.photo);
  const without = (index: number) => changeReady((r) => ({ ...r, spots: r.spots.filter((_, i) => i !== index) }));
  const again = async () => {
    if (!chosen || spot === null) return;
    change('Try another source', without(spot));
    const { from, ...rest } = chosen;
    // A little larger, so that another source may turn out better.
    await addSpot({ ...rest, size: Math.min(1000, rest.size * 1.15) });
  };
  return (
    <View style={{ gap: 4 }}>
      <Text style={{ color: c.quiet }}>
        Tap what is to go, or stroke over it. What replaces it is found by itself; drag the dashed ring to take it from elsewhere.
      </Text>
      <PaintSwitch label="Remove spots" />
      <TipSize
        label="Size"
        size={spotSize}
        neutral={30}
        max={400}
        step={1}
        pixels={pixels}
        help="Of the tip, in pixels of the photo."
        onSize={(v) => set({ spotSize: v })}
      />
      <Text testID="spot-count" style={{ color: c.ink, paddingVertical: 4 }}>
        {spots.length === 0 ? 'No spots removed yet.' : spots.length === 1 ? '1 spot removed.' : `${spots.length} spots removed.`}
        {chosen && spot !== null ? ` Number ${spot + 1} is chosen.` : ''}
      </Text>
      {chosen && spot !== null ? (
        <Acts>
          <Act onPress={() => void again().catch(complain)}>Try another source</Act>
          <Act
            onPress={() => {
              change('Restore a spot', without(spot));
              set({ spot: null });
            }}
          >
            Restore
          </Act>
        </Acts>
      ) : null}
      {spots.length > 0 ? (
        <Act
          plain
          onPress={() => {
            change(
              'Restore all spots',
              changeReady((r) => ({ ...r, spots: [] })),
            );
            set({ spot: null });
          }}
        >
          Restore all
        </Act>
      ) : null}
    </View>
  );
}

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
import { words } from '../../words';

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
    change(words.spots.tryAnotherSource, without(spot));
    const { from, ...rest } = chosen;
    // A little larger, so that another source may turn out better.
    await addSpot({ ...rest, size: Math.min(1000, rest.size * 1.15) });
  };
  return (
    <View style={{ gap: 4 }}>
      <Text style={{ color: c.quiet }}>{words.spots.howTo}</Text>
      <PaintSwitch label={words.spots.removeSpots} />
      <TipSize
        label={words.common.size}
        size={spotSize}
        neutral={30}
        max={400}
        step={1}
        pixels={pixels}
        help={words.spots.sizeHelp}
        onSize={(v) => set({ spotSize: v })}
      />
      <Text testID="spot-count" style={{ color: c.ink, paddingVertical: 4 }}>
        {spots.length === 0 ? words.spots.noSpotsRemovedYet : spots.length === 1 ? words.spots.spotRemoved : words.spots.spotsRemoved(spots.length)}
        {chosen && spot !== null ? words.spots.numberIsChosen(spot + 1) : ''}
      </Text>
      {chosen && spot !== null ? (
        <Acts>
          <Act onPress={() => void again().catch(complain)}>{words.spots.tryAnotherSource}</Act>
          <Act
            onPress={() => {
              change(words.spots.restoreASpot, without(spot));
              set({ spot: null });
            }}
          >
            {words.common.restore}
          </Act>
        </Acts>
      ) : null}
      {spots.length > 0 ? (
        <Act
          plain
          onPress={() => {
            change(
              words.spots.restoreAllSpots,
              changeReady((r) => ({ ...r, spots: [] })),
            );
            set({ spot: null });
          }}
        >
          {words.spots.restoreAll}
        </Act>
      ) : null}
    </View>
  );
}

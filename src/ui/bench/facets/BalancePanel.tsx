import { View } from 'react-native';
import { Text } from 'react-native-paper';
import * as z from 'zod';
import type { Point } from '@/core/image/projection';
import { balanceFields } from '@/core/treatments/balance';
import { shownPiece, useBench } from '@/store/bench';
import { complain } from '@/store/notices';
import { changeReady, readyOf, useReady } from '@/store/ready';
import { automaticGains } from '@/store/scopes';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { useColours } from '../../theme';
import { ReadyStep } from './ReadyStep';
import { words } from '../../words';

const balanceSchema = z.object(balanceFields);

/** White balance: from a spot that should be grey, from the whole picture, or by sliders. */
export function BalancePanel() {
  const c = useColours();
  const piece = useBench(shownPiece);
  const { tool, set } = useReady();
  if (!piece) return null;
  const own = readyOf(piece).whiteBalance;
  const [spot, automatic] = [(own?.neutral as Point | undefined) ?? null, own?.gains !== undefined];
  const picking = tool === 'neutral';
  const keep = (name: string, values: object) =>
    useBench.getState().change(
      name,
      changeReady((r) => ({ ...r, whiteBalance: { ...balanceSchema.parse({ ...r.whiteBalance }), ...values } })),
    );
  const balance = async () => {
    const now = useBench.getState().piece;
    if (now) keep(words.balance.autoWhiteBalance, { gains: await automaticGains(now) });
  };
  const says = picking
    ? words.balance.tapSomethingOnThePhoto
    : spot
      ? words.balance.heldGrey
      : automatic
        ? words.balance.greyOverall
        : words.balance.asTaken;
  return (
    <View>
      <View style={{ gap: 8, paddingBottom: 8 }}>
        <Text style={{ color: c.quiet }}>{says}</Text>
        <Acts>
          <Act main={picking} onPress={() => set({ tool: picking ? 'frame' : 'neutral' })}>
            {picking ? words.common.stopPicking : words.common.pickNeutral}
          </Act>
          <Act onPress={() => void balance().catch(complain)}>{words.balance.autoWhiteBalance}</Act>
          {spot || automatic ? (
            <Act plain onPress={() => keep(words.balance.resetWhiteBalance, {})}>
              {words.balance.reset}
            </Act>
          ) : null}
        </Acts>
      </View>
      <ReadyStep field="whiteBalance" />
    </View>
  );
}

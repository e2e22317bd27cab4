import { View } from 'react-native';
import { matchLight, stopMatching, useMatching } from '@/store/light';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Progress } from '../../kit/Progress';
import { words } from '../../words';

/** Lights a step as the photo is lit; how far that is while a face is looked for. */
export function MatchLight({ coat, index, label }: { coat: string; index: number; label: string }) {
  const { step, share } = useMatching();
  if (step === `${coat}.${index}`)
    return (
      <View style={{ gap: 8, paddingVertical: 8 }}>
        <Progress share={share} label={words.tone.lookingForTheLight} />
        <Act onPress={stopMatching}>{words.common.stop}</Act>
      </View>
    );
  return (
    <Acts>
      <Act icon="white-balance-sunny" onPress={() => void matchLight(coat, index, words.tone.matchLightOf(label))}>
        {words.tone.matchTheLight}
      </Act>
    </Acts>
  );
}

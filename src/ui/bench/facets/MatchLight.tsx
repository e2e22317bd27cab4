import { View } from 'react-native';
import type { Lamp } from '@/core/form/lamp';
import type { Edit } from '@/core/piece/edits';
import { matchLight, stopMatching, useMatching } from '@/store/light';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Progress } from '../../kit/Progress';
import { words } from '../../words';

interface MatchLightProps {
  /** Names what is lit among all that can be. */
  of: string;
  label: string;
  lightBy(lamp: Lamp): Edit;
}

/** Lights something as the photo is lit; how far that is while a face is looked for. */
export function MatchLight({ of, label, lightBy }: MatchLightProps) {
  const { of: now, share } = useMatching();
  if (now === of)
    return (
      <View style={{ gap: 8, paddingVertical: 8 }}>
        <Progress share={share} label={words.tone.lookingForTheLight} />
        <Act onPress={stopMatching}>{words.common.stop}</Act>
      </View>
    );
  return (
    <Acts>
      <Act icon="white-balance-sunny" onPress={() => void matchLight(of, words.tone.matchLightOf(label), lightBy)}>
        {words.tone.matchTheLight}
      </Act>
    </Acts>
  );
}

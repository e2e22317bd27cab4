import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { TextInput } from 'react-native-paper';
import { changeCoat, indexOf } from '@/core/piece/edits';
import { coatName } from '@/core/piece/naming';
import type { Coat } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { setVisible } from '@/store/editing';
import { useLookPlace } from '@/store/looks';
import { useOwn } from '@/store/own';
import { Act } from '../../kit/Act';
import { Toggle } from '../../kit/Toggle';
import { words } from '../../words';

/** What is done to a coat as a whole, in words. */
export function MoreFacet({ coat }: { coat: Coat }) {
  const names = useOwn((s) => s.names);
  const { change, duplicate, remove, move } = useBench.getState();
  const piece = useBench((s) => s.piece);
  const at = piece ? indexOf(piece, coat.id) : 0;
  const top = (piece?.coats.length ?? 1) - 1;
  const [name, setName] = useState<string | null>(null);
  const lookAbove = () => {
    useLookPlace.setState({ place: 'above', above: coat.id });
    useBench.getState().choose(null);
    useBench.getState().openFacet('starts');
  };
  const rename = () => {
    if (name === null) return;
    const text = name.trim();
    change(
      words.common.rename,
      changeCoat(coat.id, () => ({ name: text === '' ? undefined : text })),
    );
    setName(null);
  };
  return (
    <View style={{ gap: 12 }}>
      <TextInput
        label={words.common.name}
        aria-label={words.common.name}
        mode="outlined"
        dense
        value={name ?? coatName(coat, names)}
        onChangeText={setName}
        onBlur={rename}
        onSubmitEditing={rename}
        maxLength={200}
      />
      <Toggle label={words.common.shown} value={coat.visible} onChange={(visible) => setVisible(coat.id, visible)} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act onPress={() => duplicate(coat.id)}>{words.common.duplicate}</Act>
        <Act onPress={() => remove(coat.id)}>{words.common.remove}</Act>
        <Act disabled={at === top} onPress={() => move(coat.id, at + 1)}>
          {words.common.forward}
        </Act>
        <Act disabled={at === 0} onPress={() => move(coat.id, at - 1)}>
          {words.common.backward}
        </Act>
        <Act disabled={at === top} onPress={() => move(coat.id, top)}>
          {words.more.toFront}
        </Act>
        <Act disabled={at === 0} onPress={() => move(coat.id, 0)}>
          {words.more.toBack}
        </Act>
      </View>
      <Act onPress={lookAbove}>{words.more.lookAbove}</Act>
      <Act plain onPress={() => router.navigate('/help')}>
        {words.common.help}
      </Act>
    </View>
  );
}

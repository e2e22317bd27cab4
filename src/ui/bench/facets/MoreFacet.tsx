import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { TextInput } from 'react-native-paper';
import { changeCoat } from '@/core/piece/edits';
import { everyCoat, groupOf, levelOf } from '@/core/piece/groups';
import { moveIntoGroup, moveOutOfGroup, ungroup } from '@/core/piece/stacking';
import { coatName } from '@/core/piece/naming';
import type { Coat } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { setVisible } from '@/store/editing';
import { useLookPlace } from '@/store/looks';
import { useOwn } from '@/store/own';
import { setLocked, useRail } from '@/store/several';
import { Act } from '../../kit/Act';
import { Toggle } from '../../kit/Toggle';
import { words } from '../../words';

/** What is done to a coat as a whole, in words. */
export function MoreFacet({ coat }: { coat: Coat }) {
  const names = useOwn((s) => s.names);
  const { change, duplicate, remove, move } = useBench.getState();
  const piece = useBench((s) => s.piece);
  const level = piece ? levelOf(piece.coats, coat.id) : null;
  const { at = 0, groups = [] } = level ?? {};
  const top = (level?.coats.length ?? 1) - 1;
  const inside = everyCoat([coat]).map(({ id }) => id);
  const around = groups.at(-1);
  const into = everyCoat(piece?.coats ?? []).filter((one) => groupOf(one) && !inside.includes(one.id) && one.id !== around?.id);
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
      <Toggle
        label={words.groups.locked}
        help={words.groups.lockedHelp}
        value={coat.locked === true}
        onChange={(locked) => setLocked(coat.id, locked)}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act icon="checkbox-multiple-marked-outline" onPress={() => useRail.getState().begin()}>
          {words.groups.chooseSeveral}
        </Act>
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
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {groupOf(coat) ? <Act onPress={() => change(words.groups.ungroup, ungroup(coat.id))}>{words.groups.ungroup}</Act> : null}
        {around ? <Act onPress={() => change(words.groups.out, moveOutOfGroup(coat.id))}>{words.groups.out}</Act> : null}
        {into.map((group) => (
          <Act key={group.id} onPress={() => change(words.groups.into(coatName(group, names)), moveIntoGroup(coat.id, group.id))}>
            {words.groups.into(coatName(group, names))}
          </Act>
        ))}
      </View>
      <Act onPress={lookAbove}>{words.more.lookAbove}</Act>
      <Act plain onPress={() => router.navigate('/help')}>
        {words.common.help}
      </Act>
    </View>
  );
}

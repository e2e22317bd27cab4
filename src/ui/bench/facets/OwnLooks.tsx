import { useState } from 'react';
import { View } from 'react-native';
import { Text, TextInput } from 'react-native-paper';
import { useBench } from '@/store/bench';
import { pickFiles } from '@/store/files';
import { hasPainting, useLooks, type Look } from '@/store/looks';
import { complain, say } from '@/store/notices';
import { openRecipe, saveRecipe } from '@/store/recipes';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Fold } from '../../kit/Fold';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';
import { words } from '../../words';

/** Saving the piece's look under a name or to a file, applying one from a file, and deleting one's own. */
export function OwnLooks() {
  const c = useColours();
  const piece = useBench((s) => s.piece);
  const { own, keep, remove, bringBack } = useLooks();
  const [name, setName] = useState('');
  const [withPainting, setWithPainting] = useState(false);
  if (!piece) return null;
  const save = () =>
    void keep(piece, name, withPainting).then(() => {
      say(words.ownLooks.savedAsALook(name.trim() || piece.name));
      setName('');
    }, complain);
  const apply = async () => {
    const [file] = await pickFiles('.json,application/json');
    if (!file) return;
    const count = await openRecipe(await file.text());
    say(words.ownLooks.coatsAdded(count));
  };
  const discard = async (look: Look) => {
    await remove(look.id);
    say(words.common.hasBeenDeleted(look.recipe.name), { action: { label: words.common.undo, run: () => void bringBack(look).catch(complain) } });
  };
  return (
    <Fold title={words.ownLooks.yourLooks}>
      <View style={{ gap: 8 }}>
        <Text style={{ color: c.quiet }}>{words.ownLooks.aLookHoldsTheCoats}</Text>
        {piece.coats.length > 0 ? (
          <>
            <TextInput
              mode="outlined"
              dense
              label={words.ownLooks.nameOfTheLook}
              aria-label={words.ownLooks.nameOfTheLook}
              value={name}
              placeholder={piece.name}
              onChangeText={setName}
              onSubmitEditing={save}
              maxLength={200}
            />
            {hasPainting(piece) ? (
              <Toggle
                label={words.ownLooks.withPaintedMasks}
                value={withPainting}
                onChange={setWithPainting}
                help={words.ownLooks.paintedForThisPhotoThey}
              />
            ) : null}
          </>
        ) : null}
        <Acts>
          {piece.coats.length > 0 ? (
            <>
              <Act main onPress={save}>
                {words.ownLooks.saveAsLook}
              </Act>
              <Act onPress={() => saveRecipe(piece, withPainting)}>{words.ownLooks.saveLookToFile}</Act>
            </>
          ) : null}
          <Act onPress={() => void apply().catch(complain)}>{words.ownLooks.applyALook}</Act>
        </Acts>
        {own.map((look) => (
          <View key={look.id} style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
            <Text style={{ color: c.ink, flexShrink: 1 }} numberOfLines={1}>
              {look.recipe.name}
            </Text>
            <Act plain accessibilityLabel={words.ownLooks.deleteTheLook(look.recipe.name)} onPress={() => void discard(look).catch(complain)}>
              {words.common.deleteIt}
            </Act>
          </View>
        ))}
      </View>
    </Fold>
  );
}

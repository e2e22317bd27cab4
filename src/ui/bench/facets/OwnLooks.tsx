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
      say(`“${name.trim() || piece.name}” saved as a look.`);
      setName('');
    }, complain);
  const apply = async () => {
    const [file] = await pickFiles('.json,application/json');
    if (!file) return;
    const count = await openRecipe(await file.text());
    say(`${count} ${count === 1 ? 'coat' : 'coats'} added by the look.`);
  };
  const discard = async (look: Look) => {
    await remove(look.id);
    say(`“${look.recipe.name}” deleted`, { action: { label: 'Undo', run: () => void bringBack(look).catch(complain) } });
  };
  return (
    <Fold title="Your looks">
      <View style={{ gap: 8 }}>
        <Text style={{ color: c.quiet }}>A look holds the coats, the guards and what was done to the photo, for use on other photos.</Text>
        {piece.coats.length > 0 ? (
          <>
            <TextInput
              mode="outlined"
              dense
              label="Name of the look"
              aria-label="Name of the look"
              value={name}
              placeholder={piece.name}
              onChangeText={setName}
              onSubmitEditing={save}
              maxLength={200}
            />
            {hasPainting(piece) ? (
              <Toggle
                label="With painted masks"
                value={withPainting}
                onChange={setWithPainting}
                help="Painted for this photo: they rarely suit another."
              />
            ) : null}
          </>
        ) : null}
        <Acts>
          {piece.coats.length > 0 ? (
            <>
              <Act main onPress={save}>
                Save as look
              </Act>
              <Act onPress={() => saveRecipe(piece, withPainting)}>Save look to file</Act>
            </>
          ) : null}
          <Act onPress={() => void apply().catch(complain)}>Apply a look</Act>
        </Acts>
        {own.map((look) => (
          <View key={look.id} style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
            <Text style={{ color: c.ink, flexShrink: 1 }} numberOfLines={1}>
              {look.recipe.name}
            </Text>
            <Act plain accessibilityLabel={`Delete the look ${look.recipe.name}`} onPress={() => void discard(look).catch(complain)}>
              Delete
            </Act>
          </View>
        ))}
      </View>
    </Fold>
  );
}

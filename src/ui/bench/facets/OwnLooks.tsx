import { useState } from 'react';
import { View } from 'react-native';
import { Text, TextInput } from 'react-native-paper';
import { partsOfLook } from '@/core/looks/needs';
import { coatName } from '@/core/piece/naming';
import type { Recipe } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { pickFiles } from '@/store/files';
import { hasPainting, useLooks } from '@/store/looks';
import { complain, say } from '@/store/notices';
import { layingOf, openRecipe, saveRecipe } from '@/store/recipes';
import { useOwn } from '@/store/own';
import { drawWhole } from '../useThumb';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Fold } from '../../kit/Fold';
import { Toggle } from '../../kit/Toggle';
import { importLook, LOOK_FILES } from '../../looks/importLook';
import { OwnLookList } from '../../looks/OwnLookList';
import { useColours } from '../../theme';
import { words } from '../../words';

/** Long side of the picture of a look that is saved, in pixels. */
const PICTURE = 200;

/** Saving the piece's look under a name or to a file, applying one from a file, and deleting one's own. */
export function OwnLooks() {
  const c = useColours();
  const piece = useBench((s) => s.piece);
  const { keep } = useLooks();
  const [name, setName] = useState('');
  const [withPainting, setWithPainting] = useState(false);
  /** What stays out of the look: ids of coats, and the readying or the guards by their names. */
  const [out, setOut] = useState<readonly string[]>([]);
  const names = useOwn((s) => s.names);
  if (!piece) return null;
  const parts = [
    ...(piece.ready ? [{ id: 'ready', label: words.ownLooks.readying }] : []),
    ...(piece.guards ? [{ id: 'guards', label: words.ownLooks.guards }] : []),
    ...piece.coats.map((coat) => ({ id: coat.id, label: coatName(coat, names) })),
  ];
  const flip = (id: string) => setOut((now) => (now.includes(id) ? now.filter((one) => one !== id) : [...now, id]));
  const chosen = partsOfLook(piece, {
    coats: piece.coats.map(({ id }) => id).filter((id) => !out.includes(id)),
    ready: !out.includes('ready'),
    guards: !out.includes('guards'),
  });
  const isEmpty = chosen.coats.length === 0 && !chosen.ready;
  const save = async () => {
    const picture = await drawWhole(chosen, { kind: 'piece' }, PICTURE);
    await keep(chosen, name, withPainting, picture);
    say(words.ownLooks.savedAsALook(name.trim() || piece.name));
    setName('');
  };
  const apply = async () => {
    const [file] = await pickFiles(LOOK_FILES);
    if (!file) return;
    const count = await openRecipe(file);
    say(words.ownLooks.coatsAdded(count));
  };
  /** A look on the photo of this piece, for its picture. */
  const drawOn = async (recipe: Recipe) => {
    const { edit } = await layingOf(recipe, piece, 'instead');
    return drawWhole(edit(piece), { kind: 'piece' }, PICTURE);
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
              onSubmitEditing={() => void save().catch(complain)}
              maxLength={200}
            />
            <Fold title={words.ownLooks.whatItHolds(parts.length - out.filter((id) => parts.some((part) => part.id === id)).length, parts.length)}>
              {parts.map(({ id, label }) => (
                <Toggle key={id} label={label} value={!out.includes(id)} onChange={() => flip(id)} />
              ))}
            </Fold>
            {hasPainting(chosen) ? (
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
              <Act main disabled={isEmpty} onPress={() => void save().catch(complain)}>
                {words.ownLooks.saveAsLook}
              </Act>
              <Act disabled={isEmpty} onPress={() => void saveRecipe(chosen, withPainting).catch(complain)}>
                {words.ownLooks.saveLookToFile}
              </Act>
            </>
          ) : null}
          <Act onPress={() => void apply().catch(complain)}>{words.ownLooks.applyALook}</Act>
          <Act onPress={() => void importLook(drawOn).catch(complain)}>{words.ownLooks.importALook}</Act>
        </Acts>
        <OwnLookList />
      </View>
    </Fold>
  );
}

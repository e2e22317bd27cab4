import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { Text, TextInput } from 'react-native-paper';
import { useLooks, type Look } from '@/store/looks';
import { complain, say } from '@/store/notices';
import { saveLook } from '@/store/recipes';
import { Act } from '../kit/Act';
import { useColours } from '../theme';
import { words } from '../words';

/** The person's own looks: each is renamed, saved to a file, laid on many photos, or deleted. `large` where they are all that the page shows. */
export function OwnLookList({ large }: { large?: boolean }) {
  const own = useLooks((s) => s.own);
  return (
    <View style={{ gap: large ? 16 : 8 }}>
      {own.map((look) => (
        <OwnLook key={look.id} look={look} side={large ? 96 : 44} />
      ))}
    </View>
  );
}

function OwnLook({ look, side }: { look: Look; side: number }) {
  const c = useColours();
  const { remove, bringBack, rename } = useLooks();
  /** The name while it is typed. */
  const [typed, setTyped] = useState<string | null>(null);
  const { name } = look.recipe;
  const keepName = () => {
    const next = (typed ?? '').trim();
    setTyped(null);
    if (next !== '' && next !== name) void rename(look.id, next).catch(complain);
  };
  const discard = async () => {
    await remove(look.id);
    say(words.common.hasBeenDeleted(name), { action: { label: words.common.undo, run: () => void bringBack(look).catch(complain) } });
  };
  const label = { labelStyle: { marginHorizontal: 8 }, style: { minWidth: 0 } };
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }} testID="own-look">
      <div style={{ width: side, height: side, flexShrink: 0, borderRadius: 2, overflow: 'hidden', background: c.card }}>
        {look.picture ? <img src={look.picture} alt="" style={{ width: '100%', height: '100%', objectFit: 'cover', display: 'block' }} /> : null}
      </div>
      <View style={{ flex: 1, minWidth: 0 }}>
        {typed === null ? (
          <Text style={{ color: c.ink, fontSize: 16, lineHeight: 22 }} numberOfLines={1}>
            {name}
          </Text>
        ) : (
          <TextInput
            mode="outlined"
            dense
            autoFocus
            aria-label={words.ownLooks.nameOf(name)}
            value={typed}
            maxLength={200}
            onChangeText={setTyped}
            onBlur={keepName}
            onSubmitEditing={keepName}
          />
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', marginLeft: -8 }}>
          <Act plain {...label} accessibilityLabel={words.ownLooks.renameNamed(name)} onPress={() => setTyped(name)}>
            {words.common.rename}
          </Act>
          <Act plain {...label} accessibilityLabel={words.ownLooks.saveToFileNamed(name)} onPress={() => void saveLook(look.recipe).catch(complain)}>
            {words.ownLooks.toFile}
          </Act>
          <Act plain {...label} accessibilityLabel={words.ownLooks.onManyNamed(name)} onPress={() => router.navigate(`/batch?look=${look.id}`)}>
            {words.ownLooks.onMany}
          </Act>
          <Act plain {...label} accessibilityLabel={words.ownLooks.deleteTheLook(name)} onPress={() => void discard().catch(complain)}>
            {words.common.deleteIt}
          </Act>
        </View>
      </View>
    </View>
  );
}

import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { Dialog, Text, TextInput } from 'react-native-paper';
import { complain, say } from '@/store/notices';
import { labelOf, useOwn } from '@/store/own';
import { giveOut } from '@/store/packs';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { Toggle } from '../kit/Toggle';
import { SERIF, useColours } from '../theme';
import { words } from '../words';

/** Own materials given out as a pack: which, under what name, by whom, on what terms. */
export function PackDialog({ onClose }: { onClose(): void }) {
  const c = useColours();
  const own = useOwn((s) => s.list);
  const [out, setOut] = useState<Set<string>>(new Set());
  const [about, setAbout] = useState({ name: words.pack.myMaterials, maker: '', licence: '' });
  const list = own.filter((o) => !out.has(o.key));
  const put = (key: string, on: boolean) => {
    const next = new Set(out);
    if (on) next.delete(key);
    else next.add(key);
    setOut(next);
  };
  const field = (key: keyof typeof about, label: string) => (
    <TextInput
      mode="outlined"
      dense
      label={label}
      aria-label={label}
      value={about[key]}
      maxLength={200}
      onChangeText={(text) => setAbout({ ...about, [key]: text })}
    />
  );
  const give = () =>
    giveOut(list, { ...about, name: about.name.trim() }).then(() => {
      say(words.pack.exported(about.name.trim(), list.length));
      onClose();
    }, complain);
  return (
    <PopUp label={words.common.exportPack} onClose={onClose}>
      <Dialog.ScrollArea style={{ paddingHorizontal: 0, borderColor: c.line }}>
        <ScrollView contentContainerStyle={{ gap: 10, padding: 20 }}>
          <Text style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink }}>{words.common.exportPack}</Text>
          <Text style={{ color: c.ink }}>{words.pack.aZipOfYourPictures}</Text>
          {field('name', words.pack.nameOfThePack)}
          {field('maker', words.pack.maker)}
          {field('licence', words.pack.termsOfUse)}
          <View>
            {own.map((o) => (
              <Toggle key={o.key} label={labelOf(o)} value={!out.has(o.key)} onChange={(on) => put(o.key, on)} />
            ))}
          </View>
        </ScrollView>
      </Dialog.ScrollArea>
      <Dialog.Actions style={{ flexWrap: 'wrap', gap: 8 }}>
        <Act plain onPress={onClose}>
          {words.common.close}
        </Act>
        <Act main disabled={list.length === 0 || about.name.trim() === ''} onPress={() => void give()}>
          {words.pack.savePack}
        </Act>
      </Dialog.Actions>
    </PopUp>
  );
}

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

/** Own materials given out as a pack: which, under what name, by whom, on what terms. */
export function PackDialog({ onClose }: { onClose(): void }) {
  const c = useColours();
  const own = useOwn((s) => s.list);
  const [out, setOut] = useState<Set<string>>(new Set());
  const [words, setWords] = useState({ name: 'My materials', maker: '', licence: '' });
  const list = own.filter((o) => !out.has(o.key));
  const put = (key: string, on: boolean) => {
    const next = new Set(out);
    if (on) next.delete(key);
    else next.add(key);
    setOut(next);
  };
  const field = (key: keyof typeof words, label: string) => (
    <TextInput
      mode="outlined"
      dense
      label={label}
      aria-label={label}
      value={words[key]}
      maxLength={200}
      onChangeText={(text) => setWords({ ...words, [key]: text })}
    />
  );
  const give = () =>
    giveOut(list, { ...words, name: words.name.trim() }).then(() => {
      say(`“${words.name.trim()}” is given out with ${list.length} ${list.length === 1 ? 'picture' : 'pictures'}.`);
      onClose();
    }, complain);
  return (
    <PopUp label="Export pack" onClose={onClose}>
      <Dialog.ScrollArea style={{ paddingHorizontal: 0, borderColor: c.line }}>
        <ScrollView contentContainerStyle={{ gap: 10, padding: 20 }}>
          <Text style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink }}>Export pack</Text>
          <Text style={{ color: c.ink }}>A zip with your pictures as they came, and how each is made to fit.</Text>
          {field('name', 'Name of the pack')}
          {field('maker', 'Maker')}
          {field('licence', 'Terms of use')}
          <View>
            {own.map((o) => (
              <Toggle key={o.key} label={labelOf(o)} value={!out.has(o.key)} onChange={(on) => put(o.key, on)} />
            ))}
          </View>
        </ScrollView>
      </Dialog.ScrollArea>
      <Dialog.Actions style={{ flexWrap: 'wrap', gap: 8 }}>
        <Act plain onPress={onClose}>
          Close
        </Act>
        <Act main disabled={list.length === 0 || words.name.trim() === ''} onPress={() => void give()}>
          Give it out
        </Act>
      </Dialog.Actions>
    </PopUp>
  );
}

import { ScrollView, View } from 'react-native';
import { Dialog, Text } from 'react-native-paper';
import { useKeysList } from '@/store/keysList';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { SANS_MEDIUM, useColours } from '../theme';
import { benchKeys } from './useBenchKeys';

/** The list of keys; also opened by ?. */
export function KeysDialog() {
  const c = useColours();
  const open = useKeysList((s) => s.open);
  const close = () => useKeysList.setState({ open: false });
  return (
    <PopUp label="Keys" visible={open} onClose={close}>
      <Dialog.Title>Keys</Dialog.Title>
      <Dialog.ScrollArea style={{ maxHeight: 420 }}>
        <ScrollView>
          {benchKeys.map(([key, says]) => (
            <View key={key} style={{ flexDirection: 'row', paddingVertical: 5, gap: 16 }}>
              <Text style={{ width: 130, fontFamily: SANS_MEDIUM, color: c.ink }}>{key}</Text>
              <Text style={{ flex: 1, color: c.ink }}>{says}</Text>
            </View>
          ))}
        </ScrollView>
      </Dialog.ScrollArea>
      <Dialog.Actions>
        <Act onPress={close}>Close</Act>
      </Dialog.Actions>
    </PopUp>
  );
}

import { ScrollView } from 'react-native';
import { Dialog } from 'react-native-paper';
import { useKeysList } from '@/store/keysList';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { KeysList } from './KeysList';
import { words } from '../words';

/** The list of keys; also opened by ?. */
export function KeysDialog() {
  const open = useKeysList((s) => s.open);
  const close = () => useKeysList.setState({ open: false });
  return (
    <PopUp label={words.common.keys} visible={open} onClose={close}>
      <Dialog.Title>{words.common.keys}</Dialog.Title>
      <Dialog.ScrollArea style={{ maxHeight: 420 }}>
        <ScrollView>
          <KeysList />
        </ScrollView>
      </Dialog.ScrollArea>
      <Dialog.Actions>
        <Act onPress={close}>{words.common.close}</Act>
      </Dialog.Actions>
    </PopUp>
  );
}

import { useEffect, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { Dialog, Text } from 'react-native-paper';
import { useBench } from '@/store/bench';
import { bytesText } from '@/store/bytes';
import { complain } from '@/store/notices';
import { usePieces } from '@/store/pieces';
import { sizesOf } from '@/store/records';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { useColours } from '../theme';
import { words } from '../words';

/** Pieces with the room that they take, deleted ones too, to be removed for good when the browser's store is full. The open piece is not among them. */
export function RoomDialog({ open, onClose }: { open: boolean; onClose(): void }) {
  const c = useColours();
  const cards = usePieces((s) => s.cards);
  const deleted = usePieces((s) => s.deleted);
  const current = useBench((s) => s.piece?.id);
  const [sizes, setSizes] = useState<Record<string, number>>({});
  useEffect(() => {
    if (open) void usePieces.getState().refresh().catch(complain);
  }, [open]);
  const others = [...deleted, ...(cards ?? [])].filter((card) => card.id !== current);
  const ids = others.map((card) => card.id).join();
  useEffect(() => {
    if (open && ids) void sizesOf(ids.split(',')).then(setSizes, complain);
  }, [open, ids]);
  const sorted = [...others].sort((a, b) => (sizes[b.id] ?? 0) - (sizes[a.id] ?? 0));
  return (
    <PopUp label={words.common.makeRoom} visible={open} onClose={onClose}>
      <Dialog.Title>{words.common.makeRoom}</Dialog.Title>
      <Dialog.Content>
        <Text style={{ color: c.quiet }}>{words.room.whatIsDeletedHereIs}</Text>
      </Dialog.Content>
      <Dialog.ScrollArea style={{ maxHeight: 380 }}>
        <ScrollView>
          {sorted.length === 0 ? <Text style={{ color: c.ink, paddingVertical: 8 }}>{words.room.thereAreNoOtherPieces}</Text> : null}
          {sorted.map((card) => (
            <View key={card.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 12, paddingVertical: 4 }}>
              <Text style={{ flex: 1, color: c.ink }}>{card.deleted === undefined ? card.name : `${card.name} (deleted)`}</Text>
              <Text style={{ color: c.quiet, fontVariant: ['tabular-nums'] }}>{sizes[card.id] === undefined ? '…' : bytesText(sizes[card.id])}</Text>
              <Act
                accessibilityLabel={words.common.deleteNamed(card.name)}
                onPress={() => void usePieces.getState().removeForGood(card.id).catch(complain)}
              >
                {words.common.deleteIt}
              </Act>
            </View>
          ))}
        </ScrollView>
      </Dialog.ScrollArea>
      <Dialog.Actions>
        <Act onPress={onClose}>{words.common.done}</Act>
      </Dialog.Actions>
    </PopUp>
  );
}

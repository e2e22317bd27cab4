import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { restoreBackup, saveBackup } from '@/store/backup';
import { bytesText } from '@/store/bytes';
import { isKeptForGood } from '@/store/database';
import { pickFiles } from '@/store/files';
import { complain, say } from '@/store/notices';
import { labelOf, useOwn } from '@/store/own';
import { usePieces } from '@/store/pieces';
import { sizesOf, sizesOfPictures } from '@/store/records';
import { Act } from '../kit/Act';
import { Acts } from '../kit/Acts';
import { Fold } from '../kit/Fold';
import { useColours } from '../theme';
import { words } from '../words';

/** What the pieces and pictures take, whether the browser keeps them, and a backup of everything. */
export function Storage() {
  const [busy, setBusy] = useState<string | null>(null);
  const c = useColours();
  const during = async (what: string, work: () => Promise<void>) => {
    setBusy(what);
    await work().catch(complain);
    setBusy(null);
  };
  const restore = async () => {
    const [file] = await pickFiles('.zip,application/zip');
    if (!file) return;
    await during(words.storage.restoring, async () => {
      const { pieces, copies, there } = await restoreBackup(file);
      await Promise.all([usePieces.getState().refresh(), useOwn.getState().refresh()]);
      say(words.storage.restored(pieces, copies, there));
    });
  };
  return (
    <Fold title={words.storage.title}>
      <View style={{ gap: 8 }}>
        <Sizes />
        <Acts>
          <Act disabled={busy !== null} onPress={() => void during(words.storage.backingUp, saveBackup)}>
            {words.storage.backUp}
          </Act>
          <Act disabled={busy !== null} onPress={() => void restore()}>
            {words.storage.restore}
          </Act>
        </Acts>
        {busy ? <Text style={{ color: c.quiet }}>{busy}</Text> : null}
      </View>
    </Fold>
  );
}

interface Taken {
  name: string;
  bytes: number;
}

/** Pieces and pictures of the shelf by what they take, the largest first. */
function Sizes() {
  const c = useColours();
  const { cards, deleted } = usePieces();
  const own = useOwn((s) => s.list);
  const [list, setList] = useState<Taken[] | null>(null);
  const [kept, setKept] = useState<boolean | null>(null);
  useEffect(() => void useOwn.getState().refresh().catch(complain), []);
  useEffect(() => {
    let live = true;
    const pieces = [...(cards ?? []), ...deleted];
    void Promise.all([sizesOf(pieces.map(({ id }) => id)), sizesOfPictures(own.map(({ key }) => key)), isKeptForGood()]).then(
      ([ofPieces, ofPictures, isKept]) => {
        if (!live) return;
        const all = [
          ...pieces.map((card) => ({
            name: card.deleted === undefined ? card.name : words.storage.deleted(card.name),
            bytes: ofPieces[card.id] ?? 0,
          })),
          ...own.map((one) => ({ name: words.storage.picture(labelOf(one)), bytes: ofPictures[one.key] ?? 0 })),
        ];
        setList(all.sort((a, b) => b.bytes - a.bytes));
        setKept(isKept);
      },
      complain,
    );
    return () => void (live = false);
  }, [cards, deleted, own]);
  return (
    <View style={{ gap: 2, maxWidth: 560 }}>
      {kept === null ? null : <Text style={{ color: c.quiet }}>{kept ? words.storage.isKept : words.storage.mayGo}</Text>}
      {list?.map(({ name, bytes }, i) => (
        <View key={i} style={{ flexDirection: 'row', gap: 12, paddingVertical: 3 }}>
          <Text style={{ flex: 1, color: c.ink }} numberOfLines={1}>
            {name}
          </Text>
          <Text style={{ color: c.quiet, fontVariant: ['tabular-nums'] }}>{bytesText(bytes)}</Text>
        </View>
      ))}
    </View>
  );
}

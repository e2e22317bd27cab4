import { useEffect, useState } from 'react';
import { Text, TextInput } from 'react-native-paper';
import { partsOf, readyParts, withParts, type ReadyPart } from '@/core/ready/parts';
import type { Ready } from '@/core/ready/schema';
import { shownPiece, useBench } from '@/store/bench';
import { complain, say } from '@/store/notices';
import { changeReady, readyOf } from '@/store/ready';
import { useStarts } from '@/store/starts';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Fold } from '../../kit/Fold';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';
import { words } from '../../words';

/** Readyings to begin from: kept under a name, or copied from another piece; whole or in parts. */
export function StartsFacet() {
  const c = useColours();
  const piece = useBench(shownPiece);
  const { kept, copied, refresh, keep, remove, copy } = useStarts();
  const [name, setName] = useState('');
  useEffect(() => void refresh().catch(complain), [refresh]);
  if (!piece) return null;
  const ready = readyOf(piece);
  const nothing = partsOf(ready).length === 0;
  const any = kept.length > 0 || copied !== null;
  const save = () =>
    void keep(name || piece.name, ready).then(() => {
      say(words.starts.savedAsAPreset(name || piece.name));
      setName('');
    }, complain);
  return (
    <Fold key={String(any)} title={words.starts.photoPresets} begin={any}>
      <Text style={{ color: c.quiet }}>{nothing ? words.starts.cropLightColourAndDetail : words.starts.saveWhatWasDoneTo}</Text>
      {nothing ? null : (
        <>
          <TextInput
            mode="outlined"
            dense
            label={words.common.name}
            accessibilityLabel={words.common.name}
            value={name}
            placeholder={piece.name}
            onChangeText={setName}
            onSubmitEditing={save}
            maxLength={80}
          />
          <Acts>
            <Act main onPress={save}>
              {words.starts.save}
            </Act>
            <Act
              onPress={() => {
                copy(piece.name, ready);
                say(words.starts.copiedOpenAnotherPieceTo);
              }}
            >
              {words.starts.copyForAnotherPiece}
            </Act>
          </Acts>
        </>
      )}
      {copied ? <StartCard name={words.starts.copiedFrom(copied.from)} from={copied.ready} begin /> : null}
      {kept.map((s) => (
        <StartCard key={s.id} name={s.name} from={s.ready} onRemove={() => void remove(s.id).catch(complain)} />
      ))}
    </Fold>
  );
}

/** One start: which of its parts are to be put on this photo. */
function StartCard({ name, from, onRemove, begin }: { name: string; from: Ready; onRemove?: () => void; begin?: boolean }) {
  const has = partsOf(from);
  const [parts, setParts] = useState<ReadyPart[]>(has);
  const { change } = useBench.getState();
  return (
    <Fold title={name} begin={begin}>
      {readyParts
        .filter(({ id }) => has.includes(id))
        .map(({ id, label }) => (
          <Toggle
            key={id}
            label={label}
            value={parts.includes(id)}
            onChange={(on) => setParts(on ? [...parts, id] : parts.filter((p) => p !== id))}
          />
        ))}
      <Acts>
        <Act
          main
          disabled={parts.length === 0}
          accessibilityLabel={words.starts.applyNamedToThisPhoto(name)}
          onPress={() =>
            change(
              words.starts.preset(name),
              changeReady((r) => withParts(r, from, parts)),
            )
          }
        >
          {words.starts.applyToThisPhoto}
        </Act>
        {onRemove ? (
          <Act plain accessibilityLabel={words.common.deleteNamed(name)} onPress={onRemove}>
            {words.common.deleteIt}
          </Act>
        ) : null}
      </Acts>
    </Fold>
  );
}

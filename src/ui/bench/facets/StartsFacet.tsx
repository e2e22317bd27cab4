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
      say(`“${name || piece.name}” saved as a preset.`);
      setName('');
    }, complain);
  return (
    <Fold key={String(any)} title="Photo presets" begin={any}>
      <Text style={{ color: c.quiet }}>
        {nothing
          ? 'Crop, light, colour and detail of this photo can be saved here, for other photos.'
          : 'Save what was done to this photo, or copy it for another piece. Spots stay with their own photo.'}
      </Text>
      {nothing ? null : (
        <>
          <TextInput
            mode="outlined"
            dense
            label="Name"
            accessibilityLabel="Name"
            value={name}
            placeholder={piece.name}
            onChangeText={setName}
            onSubmitEditing={save}
            maxLength={80}
          />
          <Acts>
            <Act main onPress={save}>
              Save
            </Act>
            <Act
              onPress={() => {
                copy(piece.name, ready);
                say('Copied. Open another piece to apply it.');
              }}
            >
              Copy for another piece
            </Act>
          </Acts>
        </>
      )}
      {copied ? <StartCard name={`Copied from ${copied.from}`} from={copied.ready} begin /> : null}
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
          accessibilityLabel={`Apply ${name} to this photo`}
          onPress={() =>
            change(
              `Preset ${name}`,
              changeReady((r) => withParts(r, from, parts)),
            )
          }
        >
          Apply to this photo
        </Act>
        {onRemove ? (
          <Act plain accessibilityLabel={`Delete ${name}`} onPress={onRemove}>
            Delete
          </Act>
        ) : null}
      </Acts>
    </Fold>
  );
}

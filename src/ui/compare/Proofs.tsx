import { useState, type CSSProperties } from 'react';
import { View } from 'react-native';
import { Dialog, Text, TextInput } from 'react-native-paper';
import { useBench } from '@/store/bench';
import { complain, say } from '@/store/notices';
import { goBackTo, nextName, useProofs, type Proof } from '@/store/proofs';
import { drawWhole } from '../bench/useThumb';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { SANS, SANS_MEDIUM, useColours } from '../theme';
import { words } from '../words';
import { shownOf, useCompare } from './compareStore';

/** Long side of a proof's picture, in pixels. */
const PICTURE = 240;

/** States of the piece that were kept: tapping one opens it beside the present. */
export function Proofs() {
  const c = useColours();
  const piece = useBench((s) => s.piece);
  const list = useProofs((s) => s.list);
  const [naming, setNaming] = useState<string | null>(null);
  const { shown, set } = useCompare();
  if (!piece) return null;
  const keep = async () => {
    const picture = await drawWhole(piece, { kind: 'piece' }, PICTURE);
    await useProofs.getState().keep(piece, naming ?? '', picture);
    setNaming(null);
  };
  const remove = async (proof: Proof) => {
    await useProofs.getState().remove(proof);
    const run = () => void useProofs.getState().bringBack(proof).catch(complain);
    say(words.compare.proofHasBeenDeleted(proof.name), { action: { label: words.common.undo, run } });
  };
  const open = list.find((proof) => shown.includes(`proof:${proof.id}`));
  return (
    <View style={{ gap: 6 }}>
      <div role="group" aria-label={words.compare.proofs} style={row}>
        <Act onPress={() => setNaming(nextName())}>{words.compare.keepProof}</Act>
        {list.length === 0 ? <Text style={{ color: c.quiet, flexShrink: 1 }}>{words.compare.whatAProofIs}</Text> : null}
        {list.map((proof) => {
          const on = open?.id === proof.id;
          return (
            <button
              key={proof.id}
              type="button"
              aria-pressed={on}
              onClick={() => set({ shown: shownOf([`proof:${proof.id}`, 'now'], [`proof:${proof.id}`, 'now'], 'side') })}
              style={{ ...card, background: c.card, outline: on ? `2px solid ${c.accent}` : `1px solid ${c.line}`, color: c.ink }}
            >
              {proof.picture ? <img src={proof.picture} alt="" style={{ width: 40, height: 40, objectFit: 'cover' }} /> : null}
              <span style={{ ...caption, fontFamily: on ? SANS_MEDIUM : SANS }}>{proof.name}</span>
            </button>
          );
        })}
      </div>
      {open ? (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <Act
            accessibilityLabel={words.compare.goBack(open.name)}
            onPress={() => {
              goBackTo(open);
              say(words.compare.backAt(open.name));
            }}
          >
            {words.compare.goBackShort}
          </Act>
          <Act plain accessibilityLabel={words.compare.deleteProof(open.name)} onPress={() => void remove(open).catch(complain)}>
            {words.common.deleteIt}
          </Act>
        </View>
      ) : null}
      <PopUp label={words.compare.nameOfTheProof} visible={naming !== null} onClose={() => setNaming(null)}>
        <Dialog.Content>
          <TextInput
            label={words.compare.nameOfTheProof}
            aria-label={words.compare.nameOfTheProof}
            mode="outlined"
            value={naming ?? ''}
            onChangeText={setNaming}
            onSubmitEditing={() => void keep().catch(complain)}
            autoFocus
            selectTextOnFocus
            maxLength={200}
          />
        </Dialog.Content>
        <Dialog.Actions>
          <Act plain onPress={() => setNaming(null)}>
            {words.common.cancel}
          </Act>
          <Act main onPress={() => void keep().catch(complain)}>
            {words.compare.keep}
          </Act>
        </Dialog.Actions>
      </PopUp>
    </View>
  );
}

const row: CSSProperties = { display: 'flex', alignItems: 'center', gap: 8, overflowX: 'auto', padding: '3px 2px' };
const card: CSSProperties = {
  display: 'flex',
  alignItems: 'center',
  gap: 8,
  minHeight: 44,
  padding: '2px 10px 2px 2px',
  border: 'none',
  borderRadius: 2,
  cursor: 'pointer',
  flexShrink: 0,
};
const caption: CSSProperties = { fontSize: 14, maxWidth: 140, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' };

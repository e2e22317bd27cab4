import { useEffect } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { SURE } from '@/core/guards/finding';
import { choiceOf, guardChoices, guardSentence } from '@/core/guards/choices';
import { guardsSchema, regions } from '@/core/guards/schema';
import { changeCoat } from '@/core/piece/edits';
import { coatSchema, type Coat, type Piece } from '@/core/piece/schema';
import { shownPiece, useBench } from '@/store/bench';
import { controlEdit } from '@/store/editing';
import { findGuards, keepChoice, measureExactly, measureUnchanged, recallFinding, stopFinding, takeFace, useGuards } from '@/store/guards';
import { complain } from '@/store/notices';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Choice } from '../../kit/Choice';
import { Progress } from '../../kit/Progress';
import { percent, Slider } from '../../kit/Slider';
import { RegionRow } from './RegionRow';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';

/** Milliseconds that the piece must have rested before it is measured. */
const REST = 150;

/** What every coat leaves alone: faces and people found, how far each region is kept, and how much of it is left. */
export function GuardsFacet({ coat }: { coat: Coat | null }) {
  const c = useColours();
  const piece = useBench(shownPiece);
  const kept = useBench((s) => s.piece);
  const { progress, finding, show, exact, report, painting, set } = useGuards();
  const guarded = piece?.guards !== undefined;
  useEffect(() => {
    if (kept) void recallFinding(kept).catch(complain);
  }, [kept]);
  const coats = kept?.coats.length ?? 0;
  useEffect(() => {
    if (!piece?.guards || coats === 0 || painting) return;
    const timer = setTimeout(() => void measureUnchanged(piece).catch(complain), REST);
    return () => clearTimeout(timer);
  }, [piece, coats, painting]);
  if (!piece || !kept) return null;
  return (
    <View style={{ gap: 4 }}>
      {guarded ? (
        <Text testID="found" style={{ color: c.quiet }}>
          {finding ? guardSentence(finding, piece.guards ?? neutral) : 'Faces are found on this device.'}
        </Text>
      ) : (
        <Text style={{ color: c.quiet }}>
          Eyes, lips, hair and the whole subject can be kept from every coat. They are found on this device; nothing leaves it.
        </Text>
      )}
      {progress !== null ? (
        <View style={{ gap: 8, paddingVertical: 8 }}>
          <Progress share={progress} label="Looking for faces and people" />
          <Act onPress={stopFinding}>Stop</Act>
        </View>
      ) : !guarded ? (
        <Acts>
          <Act main icon="account-search-outline" onPress={() => void findGuards()}>
            Find faces and people
          </Act>
        </Acts>
      ) : null}
      {guarded ? (
        <>
          <Faces piece={piece} />
          <WhatIsKept piece={piece} />
          <Choice
            label="See"
            value={show}
            options={
              [
                { value: 'none', label: 'The picture' },
                { value: 'colour', label: 'Show guards' },
                { value: 'heat', label: 'Show changes' },
              ] as const
            }
            onChange={(v) => set({ show: v })}
          />
          {coat ? <Respect coat={coat} /> : null}
          <div role="list" aria-label="Regions" style={{ borderTop: `1px solid ${c.line}`, marginTop: 8 }}>
            {regions.map(({ id, label }) => (
              <RegionRow key={id} id={id} label={label} piece={piece} coat={coat} />
            ))}
          </div>
          {coats > 0 ? (
            <View style={{ gap: 4, paddingTop: 8 }}>
              <Text style={{ color: c.quiet, fontSize: 13 }}>
                {report ? (exact ? 'Measured at the photo’s own pixels.' : 'Measured on a small drawing as you work.') : ''}
              </Text>
              <Acts>
                <Act onPress={() => void measureExactly(kept).catch(complain)}>Measure exactly</Act>
                <Act
                  plain
                  onPress={() => {
                    useBench.getState().change('Remove guards', (p) => ({ ...p, guards: undefined }));
                    set({ region: null, show: 'none' });
                  }}
                >
                  Remove guards
                </Act>
              </Acts>
            </View>
          ) : null}
        </>
      ) : null}
    </View>
  );
}

const neutral = guardsSchema.parse({});

/** What of a person is kept, in one choice with one amount; the regions below follow. */
function WhatIsKept({ piece }: { piece: Piece }) {
  const { choice, amount } = choiceOf(piece.guards ?? neutral);
  return (
    <View>
      <Choice
        bare
        scrolls
        label="What is kept"
        options={guardChoices.map(({ id, label }) => ({ value: id, label }))}
        value={choice}
        onChange={(v) => useBench.getState().change(`Guard: ${v}`, keepChoice(v, Math.max(amount, 0.05)))}
      />
      <Slider
        label="Amount"
        value={amount}
        neutral={1}
        {...percent}
        help="How clean they stay under the coats."
        {...controlEdit((v: number) => keepChoice(choice, v), 'Guard: amount', 'guards.choice')}
      />
    </View>
  );
}

function Faces({ piece }: { piece: Piece }) {
  const { finding } = useGuards();
  const { change } = useBench.getState();
  if (!finding || (finding.faces.length < 2 && finding.faces.every((f) => f.score >= SURE))) return null;
  return finding.faces.map((face, i) => {
    const taken = piece.guards?.faces[String(i)] ?? face.score >= SURE;
    return (
      <Toggle
        key={i}
        label={`Face ${i + 1}`}
        help={face.score >= SURE ? undefined : 'It may be a face.'}
        value={taken}
        onChange={(v) => change(v ? 'Guard a face' : 'Leave a face out', takeFace(i, v))}
      />
    );
  });
}

const respectField = coatSchema.shape.guards;

function Respect({ coat }: { coat: Coat }) {
  const { change } = useBench.getState();
  const set = (v: number) => changeCoat(coat.id, () => ({ guards: respectField.parse(v) }));
  const own = coat.guardAmounts !== undefined;
  return (
    <View>
      <Slider
        label="Guard strength"
        value={coat.guards}
        neutral={1}
        {...percent}
        help="How far the guards hold this coat back."
        {...controlEdit(set, 'Guard strength', `${coat.id}.guards`)}
      />
      <Toggle
        label="Own amounts for this coat"
        help={own ? 'The amounts below are this coat’s alone.' : 'The amounts below hold for every coat.'}
        value={own}
        onChange={(v) =>
          change(
            v ? 'Own amounts' : 'Amounts of all coats',
            changeCoat(coat.id, () => ({ guardAmounts: v ? {} : undefined })),
          )
        }
      />
    </View>
  );
}

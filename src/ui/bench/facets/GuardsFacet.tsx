import { useEffect } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { faceTaken, mapShare, personTaken, SURE } from '@/core/guards/finding';
import { choiceOf, guardChoices, guardSentence, LITTLE } from '@/core/guards/choices';
import { guardsSchema, regions } from '@/core/guards/schema';
import { changeCoat } from '@/core/piece/edits';
import { coatSchema, type Coat, type Piece } from '@/core/piece/schema';
import { shownPiece, useBench } from '@/store/bench';
import { controlEdit } from '@/store/editing';
import {
  findGuards,
  keepChoice,
  keepSeen,
  keepsSeen,
  keptOfSeen,
  measureExactly,
  measureUnchanged,
  recallFinding,
  stopFinding,
  takeFace,
  takePerson,
  useGuards,
} from '@/store/guards';
import { useArming } from '@/store/arming';
import { complain } from '@/store/notices';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Choice } from '../../kit/Choice';
import { Progress } from '../../kit/Progress';
import { percent, Slider } from '../../kit/Slider';
import { useGradually } from '../../kit/useGradually';
import { RegionRow } from './RegionRow';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';
import { words } from '../../words';

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
          {finding ? guardSentence(finding, piece.guards ?? neutral) : words.guards.facesAreFoundOnThis}
        </Text>
      ) : (
        <Text style={{ color: c.quiet }}>{words.guards.about}</Text>
      )}
      {progress !== null ? (
        <View style={{ gap: 8, paddingVertical: 8 }}>
          <Progress share={progress} label={words.guards.lookingForFacesAndPeople} />
          <Act onPress={stopFinding}>{words.common.stop}</Act>
        </View>
      ) : !guarded ? (
        <Acts>
          <Act main icon="account-search-outline" onPress={() => void findGuards()}>
            {words.guards.findFacesAndPeople}
          </Act>
          <Act icon="gesture-tap" onPress={keepThis}>
            {words.guards.keepThis}
          </Act>
        </Acts>
      ) : null}
      {guarded ? (
        <>
          <Found piece={piece} />
          <WhatIsKept piece={piece} />
          <Acts>
            <Act icon="gesture-tap" onPress={keepThis}>
              {words.guards.keepThis}
            </Act>
          </Acts>
          <Choice
            label={words.common.see}
            value={show}
            options={
              [
                { value: 'none', label: words.common.thePicture },
                { value: 'colour', label: words.guards.showGuards },
                { value: 'heat', label: words.guards.showChanges },
              ] as const
            }
            onChange={(v) => set({ show: v })}
          />
          {coat ? <Respect coat={coat} /> : null}
          <Regions piece={piece} coat={coat} />
          {coats > 0 ? (
            <View style={{ gap: 4, paddingTop: 8 }}>
              <Text style={{ color: c.quiet, fontSize: 13 }}>
                {report ? (exact ? words.guards.measuredAtThePhotosOwn : words.guards.measuredOnASmallDrawing) : ''}
              </Text>
              <Acts>
                <Act onPress={() => void measureExactly(kept).catch(complain)}>{words.guards.measureExactly}</Act>
                <Act
                  plain
                  onPress={() => {
                    useBench.getState().change(words.guards.removeGuards, (p) => ({ ...p, guards: undefined }));
                    set({ region: null, show: 'none' });
                  }}
                >
                  {words.guards.removeGuards}
                </Act>
              </Acts>
            </View>
          ) : null}
        </>
      ) : null}
    </View>
  );
}

function Regions({ piece, coat }: { piece: Piece; coat: Coat | null }) {
  const c = useColours();
  const shown = useGradually(regions.length, 4);
  return (
    <div role="list" aria-label={words.guards.regions} style={{ borderTop: `1px solid ${c.line}`, marginTop: 8 }}>
      {regions.slice(0, shown).map(({ id, label }) => (
        <RegionRow key={id} id={id} label={label} piece={piece} coat={coat} />
      ))}
    </div>
  );
}

/** The next taps on the picture keep what they touch. */
function keepThis() {
  useGuards.getState().set({ region: 'kept', does: 'grow', show: 'colour' });
  useArming.getState().arm(true);
}

const neutral = guardsSchema.parse({});

/** What of a person is kept, in one choice with one amount; the regions below follow. */
function WhatIsKept({ piece }: { piece: Piece }) {
  const { choice, amount, follow } = choiceOf(piece.guards ?? neutral);
  const { change } = useBench.getState();
  return (
    <View>
      <Choice
        bare
        scrolls
        label={words.guards.whatIsKept}
        options={guardChoices.map(({ id, label }) => ({ value: id, label }))}
        value={choice}
        onChange={(v) => change(words.guards.guard(v), keepChoice(v, Math.max(amount, 0.05)))}
      />
      <Slider
        label={words.guards.amount}
        value={amount}
        neutral={1}
        {...percent}
        help={words.guards.howCleanTheyStayUnder}
        {...controlEdit((v: number) => keepChoice(choice, v, follow), words.guards.guardAmount, 'guards.choice')}
      />
      <Toggle
        label={words.guards.followTheTone}
        help={words.guards.whatIsKeptTakesOn}
        value={follow > 0}
        onChange={(v) => change(words.guards.followTheTone, keepChoice(choice, amount, +v))}
      />
    </View>
  );
}

/** Faces, one by one where there are several or one is not sure; and the person, where no sure face says that there is one. */
function Found({ piece }: { piece: Piece }) {
  const { finding } = useGuards();
  const { change } = useBench.getState();
  if (!finding) return null;
  const { faces, seen, person } = finding;
  const sure = faces.filter((f) => f.score >= SURE).length;
  return (
    <>
      {faces.length >= 2 || sure < faces.length || (seen ?? []).length > 0
        ? faces.map((face, i) => (
            <Toggle
              key={i}
              label={words.guards.face(i + 1)}
              help={face.score >= SURE ? undefined : words.guards.itMayBeAFace}
              value={faceTaken(piece.guards, finding, i)}
              onChange={(v) => change(v ? words.guards.guardAFace : words.guards.skipAFace, takeFace(i, v))}
            />
          ))
        : null}
      {(seen ?? []).map((face, i) => {
        const kept = keptOfSeen(face, piece.photo);
        return (
          <Toggle
            key={`seen${i}`}
            label={words.guards.face(faces.length + i + 1)}
            help={words.guards.seenWithoutFeatures}
            value={keepsSeen(piece.guards, kept)}
            onChange={(v) => change(v ? words.guards.guardAFace : words.guards.skipAFace, keepSeen(kept, v))}
          />
        );
      })}
      {sure === 0 && person && mapShare(person) > LITTLE ? (
        <Toggle
          label={words.guards.person}
          help={words.guards.itMayBeAPerson}
          value={personTaken(piece.guards, finding)}
          onChange={(v) => change(v ? words.guards.guardThePerson : words.guards.skipThePerson, takePerson(v))}
        />
      ) : null}
    </>
  );
}

const respectField = coatSchema.shape.guards;

function Respect({ coat }: { coat: Coat }) {
  const { change } = useBench.getState();
  const set = (v: number) => changeCoat(coat.id, () => ({ guards: respectField.parse(v) }));
  const own = coat.guardAmounts !== undefined;
  return (
    <View>
      <Slider
        label={words.guards.guardStrength}
        value={coat.guards}
        neutral={1}
        {...percent}
        help={words.guards.howFarTheGuardsHold}
        {...controlEdit(set, words.guards.guardStrength, `${coat.id}.guards`)}
      />
      <Toggle
        label={words.guards.ownAmountsForThisCoat}
        help={own ? words.guards.theAmountsBelowAreThis : words.guards.theAmountsBelowHoldFor}
        value={own}
        onChange={(v) =>
          change(
            v ? words.guards.ownAmounts : words.guards.amountsOfAllCoats,
            changeCoat(coat.id, () => ({ guardAmounts: v ? {} : undefined })),
          )
        }
      />
    </View>
  );
}

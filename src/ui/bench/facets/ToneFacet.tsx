import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { Text, TextInput } from 'react-native-paper';
import * as z from 'zod';
import { create } from 'zustand';
import { modeById, modes } from '@/core/blend';
import { addStep, changeStep, moveStep, removeStep, setTreatment, treatmentOf } from '@/core/piece/edits';
import { coatTitle } from '@/core/piece/naming';
import { treatmentFields, type Coat } from '@/core/piece/schema';
import { controlsOf } from '@/core/schema';
import { isFoundBy } from '@/core/search';
import { sourceByKind } from '@/core/sources';
import { treatmentByKind, treatments } from '@/core/treatments';
import { swappedEnds } from '@/core/treatments/remap';
import { everyCoat } from '@/core/piece/groups';
import { useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { compareStep } from '@/store/contact';
import { useCoatMeasure } from '@/store/coatMeasure';
import { knownLamp, lampOf, useLightAhead } from '@/store/light';
import { say } from '@/store/notices';
import { useOwn } from '@/store/own';
import { usePalette } from '@/store/palette';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { Pick } from '../../kit/Pick';
import { Toggle } from '../../kit/Toggle';
import { SERIF, useColours } from '../../theme';
import { MatchLight } from './MatchLight';
import { NudgePanel } from './NudgePanel';
import { StepMap } from './StepMap';
import { words } from '../../words';

/** Tones the material, never the photo: its own tone first, then the effects it carries in their order, and those that can be added. */
export function ToneFacet({ coat }: { coat: Coat }) {
  const { change, hold } = useBench.getState();
  const held = useBench((s) => s.held);
  const toned = coat.treatments.findIndex((t) => t.kind === 'tone');
  const alone = held?.kind === 'alone';
  const { schema } = treatmentByKind('tone');
  const neutral = schema.parse({ kind: 'tone' });
  const look = useCoatMeasure(coat, Math.max(0, toned));
  const tone = { ...neutral, ...treatmentOf(coat, 'tone') };
  const set = (key: string, v: unknown) => setTreatment(coat.id, 'tone', { ...tone, [key]: v });
  const ownTone = (
    <View>
      <Panel schema={schema} values={{ ...tone, materialIsGrey: look?.grey }} {...panelEdit(set, stepOf(words.common.tone), `${coat.id}.tone`)} />
      <Toggle label={words.tone.materialOnly} value={alone} onChange={(on) => hold(on ? { kind: 'alone', coat: coat.id } : null)} />
      <Act plain onPress={() => change(words.tone.resetTone, setTreatment(coat.id, 'tone', neutral))}>
        {words.tone.resetTone}
      </Act>
    </View>
  );
  // A coat that treats the picture itself is its effects: they come first.
  const isTreatment = sourceByKind(coat.source.kind as string).is !== undefined && coat.treatments.some((t) => t.kind !== 'tone');
  return (
    <View>
      {isTreatment ? null : ownTone}
      <Steps coat={coat} ofSurface={false} />
      {isTreatment ? ownTone : null}
      <AddEffect coat={coat} ofSurface={false} />
    </View>
  );
}

/** The coat's surface: raised or pressed in, and following the form below it. */
export const SurfaceFacet = ({ coat }: { coat: Coat }) => (
  <View>
    <Steps coat={coat} ofSurface />
    <AddEffect coat={coat} ofSurface />
  </View>
);

/** The effects of a coat that stand on this tab. */
function Steps({ coat, ofSurface }: { coat: Coat; ofSurface: boolean }) {
  const colours = usePalette();
  const belongs = (kind: string) => kind !== 'tone' && (treatmentByKind(kind).ofSurface === true) === ofSurface;
  return (
    <View>
      {coat.treatments.map((step, i) =>
        belongs(step.kind as string) ? <StepPanel key={`${i}-${step.kind}`} coat={coat} index={i} colours={colours} /> : null,
      )}
    </View>
  );
}

/** A search over all effects, to add one. */
function AddEffect({ coat, ofSurface }: { coat: Coat; ofSurface: boolean }) {
  const c = useColours();
  return (
    <View>
      <Text role="heading" aria-level={3} style={{ fontFamily: SERIF, fontSize: 17, color: c.ink, paddingTop: 16, paddingBottom: 6 }}>
        {words.tone.addEffect}
      </Text>
      <AddStep coat={coat} ofSurface={ofSurface} />
    </View>
  );
}

const stepSchema = z.object({ strength: treatmentFields.strength });

const modeOptions = modes.map((m) => ({ value: m.id, label: m.label }));

/** The effect that was added last, until its panel has come into view. */
const useJustAdded = create<{ step: string | null }>(() => ({ step: null }));

/** One step: its own controls, a switch, its strength and mode, and where it stands among the others. */
function StepPanel({ coat, index, colours }: { coat: Coat; index: number; colours: readonly string[] }) {
  const { change } = useBench.getState();
  const c = useColours();
  const names = useOwn((s) => s.names);
  const coats = useBench((s) => s.piece?.coats);
  const others = everyCoat(coats ?? []).filter((k) => k.id !== coat.id);
  const values = coat.treatments[index] as Record<string, unknown> & { kind: string; active: boolean; strength: number; mode: string };
  const { label, schema, neutral, added = {} } = treatmentByKind(values.kind);
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (useJustAdded.getState().step !== `${coat.id}.${index}`) return;
    useJustAdded.setState({ step: null });
    place.current?.scrollIntoView({ block: 'start' });
  }, [coat.id, index]);
  const set = (key: string, v: unknown) => changeStep(coat.id, index, { [key]: v });
  const say1 = label.toLowerCase();
  const look = useCoatMeasure(coat, index);
  const idle = controlsOf(schema).length > 0 && values.active && values.kind !== 'nudge' && neutral(values as never);
  return (
    <div ref={place}>
      <Fold title={label} changed={values.active} begin>
        <Toggle
          label={words.common.on}
          value={values.active}
          onChange={(on) => change(on ? words.common.isOn(label) : words.common.isOff(label), set('active', on))}
        />
        {idle ? <Text style={{ color: c.quiet, fontSize: 13 }}>{words.tone.noEffectYetMoveA}</Text> : null}
        <Panel
          schema={schema}
          // A value that was set when it was added is changed by the switch above.
          only={controlsOf(schema).flatMap(({ key, meta }) => (key in added && meta.control === 'toggle' ? [] : [key]))}
          values={{ ...values, materialIsGrey: look?.grey }}
          colours={colours}
          counts={look ? { all: look.histogram.luma, red: look.histogram.red, green: look.histogram.green, blue: look.histogram.blue } : undefined}
          {...panelEdit(set, stepOf(label), `${coat.id}.${index}`)}
        />
        {values.kind === 'nudge' ? (
          <NudgePanel coat={coat.id} index={index} strokes={(values.strokes as unknown[] | undefined)?.length ?? 0} />
        ) : null}
        {values.kind === 'corners' ? <Text style={{ color: c.quiet, fontSize: 13 }}>{words.corner.dragThem}</Text> : null}
        <StepMap coat={coat} index={index} />
        {treatmentByKind(values.kind).isLit ? (
          <MatchLight of={`${coat.id}.${index}`} label={label} lightBy={(lamp) => changeStep(coat.id, index, lampOf(values.kind, lamp))} />
        ) : null}
        <Panel schema={stepSchema} values={{ strength: values.strength }} {...panelEdit(set, stepOf(label), `${coat.id}.${index}`)} />
        <Pick
          label={words.tone.mode}
          says={words.tone.modeOf(say1)}
          value={values.mode}
          options={modeOptions}
          onPick={(mode) => change(`${label}: mode`, set('mode', mode))}
        />
        <Acts>
          <Act plain accessibilityLabel={words.contact.compareNamed(say1)} onPress={() => compareStep(String(index))}>
            {words.contact.compareVariations}
          </Act>
          {values.kind === 'remap' ? (
            <Act plain onPress={() => change(words.tone.swapEnds(label), changeStep(coat.id, index, swappedEnds(values)))}>
              {words.common.swapEnds}
            </Act>
          ) : null}
          <Act
            plain
            disabled={index === 0}
            accessibilityLabel={words.tone.moveUp(label)}
            onPress={() => change(words.tone.moveUp(label), moveStep(coat.id, index, -1))}
          >
            {words.common.moveUp}
          </Act>
          <Act
            plain
            disabled={index === coat.treatments.length - 1}
            accessibilityLabel={words.tone.moveDown(label)}
            onPress={() => change(words.tone.moveDown(label), moveStep(coat.id, index, 1))}
          >
            {words.common.moveDown}
          </Act>
          <Act plain onPress={() => change(words.tone.remove(say1), removeStep(coat.id, index))}>
            {words.tone.remove(say1)}
          </Act>
        </Acts>
        {others.length > 0 ? (
          <Pick
            label={words.common.copyItTo}
            says={words.tone.copyToAnotherCoat(say1)}
            value=""
            none={words.common.anotherCoat}
            options={others.map((k) => ({ value: k.id, label: coatTitle(k, names) }))}
            onPick={(id) => {
              const to = others.find((k) => k.id === id);
              if (!to) return;
              change(words.tone.copy(say1), addStep(to.id, values));
              say(words.tone.isOnToo(label, coatTitle(to, names)));
            }}
          />
        ) : null}
      </Fold>
    </div>
  );
}

/** Steps by name, narrowed by a word of their own or of what their controls say. */
function AddStep({ coat, ofSurface }: { coat: Coat; ofSurface: boolean }) {
  const { change } = useBench.getState();
  const c = useColours();
  const [word, setWord] = useState('');
  useLightAhead();
  const found = treatments.filter((t) => {
    // Those of the other tab are found by a word.
    if (t.kind === 'tone' || (word.trim() === '' && (t.ofSurface === true) !== ofSurface)) return false;
    return isFoundBy([t.label, t.words, ...controlsOf(t.schema).flatMap(({ meta }) => [meta.label, meta.help])], word);
  });
  const add = (kind: string, label: string) => {
    const schema = z.object(treatmentByKind(kind).schema.shape).extend(treatmentFields);
    // A relief is grey: where the coat's own mode does not turn mid grey into nothing it is laid on the material's colour.
    const mode = kind === 'relief' && modeById(coat.blend).group !== 'contrast' ? 'hard-light' : 'normal';
    change(
      words.common.addNamed(label.toLowerCase()),
      addStep(coat.id, schema.parse({ kind, mode, ...treatmentByKind(kind).added, ...knownLamp(kind) })),
    );
    setWord('');
    useBench.getState().openFacet(treatmentByKind(kind).ofSurface ? 'surface' : 'tone');
    useJustAdded.setState({ step: `${coat.id}.${coat.treatments.length}` });
  };
  return (
    <View style={{ gap: 8 }}>
      <TextInput label={words.tone.searchEffects} aria-label={words.tone.searchEffects} mode="outlined" dense value={word} onChangeText={setWord} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {found.map((t) => (
          <Act key={t.kind} onPress={() => add(t.kind, t.label)}>
            {t.label}
          </Act>
        ))}
      </View>
      {found.length === 0 ? <Text style={{ color: c.quiet }}>{words.tone.nothingFound(word.trim())}</Text> : null}
    </View>
  );
}

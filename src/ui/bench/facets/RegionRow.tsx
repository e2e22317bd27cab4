import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { regions, regionSchema, settingsOf, type RegionId } from '@/core/guards/schema';
import { amountToKeep, verdictOf } from '@/core/measure/unchanged';
import { maskPartByKind } from '@/core/mask';
import { addPart } from '@/core/piece/edits';
import type { Coat, Piece } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { controlEdit, panelEdit, stepOf } from '@/store/editing';
import { clearHints, clearKept, setOwnAmount, setRegion, takeWhatStandsOut, useGuards, type GuardDoes } from '@/store/guards';
import { recolourIrises } from '@/store/marks';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Choice } from '../../kit/Choice';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { percent, Slider } from '../../kit/Slider';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';
import { PaintSwitch } from './PaintSwitch';
import { BrushSize } from './BrushSize';
import { unitOf } from '@/core/image/unit';
import { words } from '../../words';

/** One region: how much it is kept and what came of it; its controls when it is open. */
export function RegionRow({ id, label, piece, coat }: { id: RegionId; label: string; piece: Piece; coat: Coat | null }) {
  const c = useColours();
  const { region, report, set } = useGuards();
  const open = region === id;
  const settings = settingsOf(piece.guards ?? { regions: {} }, id);
  const own = coat?.guardAmounts !== undefined ? coat : null;
  const amount = own?.guardAmounts?.[id] ?? settings.amount;
  const kept = id === 'painted' || id === 'kept' ? undefined : report?.[id];
  const setAmount = (v: number) => (own ? setOwnAmount(own.id, id, v) : setRegion(id, { amount: v }));
  return (
    <div role="listitem" style={{ borderBottom: `1px solid ${c.line}` }}>
      <Slider
        label={label}
        value={amount}
        neutral={regions.find((r) => r.id === id)?.amount ?? 0}
        {...percent}
        help={own ? words.region.howFarThisCoatIs : words.region.howFarCoatsAreHeld}
        opens={{
          open,
          note: kept ? verdictOf(kept) : undefined,
          testID: `region-${id}`,
          flip: () => set({ region: open ? null : id, does: id === 'kept' ? 'grow' : 'put' }),
        }}
        {...controlEdit(setAmount, `${label}: amount`, `guard.${own?.id ?? ''}.${id}`)}
      />
      {open ? <RegionControls id={id} label={label} piece={piece} coat={coat} own={own} amount={amount} /> : null}
    </div>
  );
}

interface ControlsProps {
  id: RegionId;
  label: string;
  piece: Piece;
  coat: Coat | null;
  own: Coat | null;
  amount: number;
}

function RegionControls({ id, label, piece, coat, own, amount }: ControlsProps) {
  const c = useColours();
  const { does, snap, report, set } = useGuards();
  const { change } = useBench.getState();
  const settings = settingsOf(piece.guards ?? { regions: {} }, id);
  const kept = id === 'painted' || id === 'kept' ? undefined : report?.[id];
  // What the subject's guard keeps is kept here too.
  const whole = own?.guardAmounts?.subject ?? settingsOf(piece.guards ?? { regions: {} }, 'subject').amount;
  const more = kept ? amountToKeep(kept, Math.max(amount, whole)) : amount;
  const setAmount = (v: number) => (own ? setOwnAmount(own.id, id, v) : setRegion(id, { amount: v }));
  const file = unitOf(piece.photo);
  const drawn =
    settings.strokes.length > 0 ||
    (id === 'kept' && (piece.guards?.kept.length ?? 0) > 0) ||
    (id === 'subject' && (piece.guards?.hints.length ?? 0) + (piece.guards?.hairs.length ?? 0) > 0);
  const strokes: { value: GuardDoes; label: string }[] = [
    ...(id === 'kept'
      ? ([
          { value: 'grow', label: words.region.keepThis },
          { value: 'spare', label: words.region.leaveThis },
        ] as const)
      : []),
    { value: 'put', label: words.region.add },
    { value: 'take', label: words.common.erase },
    ...(id === 'subject'
      ? ([
          { value: 'keep', label: words.region.markSubject },
          { value: 'leave', label: words.region.markBackground },
          { value: 'hair', label: words.region.refineHair },
        ] as const)
      : []),
  ];
  return (
    <View style={{ paddingBottom: 12 }}>
      {more > amount + 0.001 ? (
        <Acts>
          <Act onPress={() => change(words.region.guardMore(label.toLowerCase()), setAmount(more))}>
            {words.region.guardPercent(Math.round(more * 100))}
          </Act>
        </Acts>
      ) : null}
      <Panel
        schema={regionSchema}
        only={['follow', 'expand', 'feather']}
        values={{ ...settings }}
        lengths={file}
        {...panelEdit((key, v) => setRegion(id, { [key]: v }), stepOf(label), `guard.${id}`)}
      />
      {id === 'subject' ? (
        <Toggle
          label={words.region.selectMainSubject}
          help={words.region.aGuessForPicturesWithout}
          value={piece.guards?.standsOut ?? false}
          onChange={(v) => change(v ? words.region.selectMainSubject : words.region.peopleFound, takeWhatStandsOut(v))}
        />
      ) : null}
      {kept ? (
        <Fold title={words.region.details}>
          <Text testID={`kept-${id}`} style={{ color: c.quiet, fontSize: 14 }}>
            {words.region.measured(kept.mean.toFixed(1), kept.p95.toFixed(1), kept.ssim.toFixed(2))}
          </Text>
        </Fold>
      ) : null}
      <PaintSwitch />
      <Choice label={words.region.aStrokeOnThePicture} value={does} options={strokes} onChange={(v) => set({ does: v })} />
      {does !== 'keep' && does !== 'leave' ? <BrushSize /> : <Text style={{ color: c.quiet, fontSize: 13 }}>{words.region.strokesHelp}</Text>}
      {does === 'put' || does === 'take' ? (
        <Toggle label={words.region.snapToEdges} help={words.region.snapToEdgesHelp} value={snap} onChange={(v) => set({ snap: v })} />
      ) : null}
      <Acts>
        {id === 'eyes' ? <Act onPress={recolourIrises}>{words.marks.irises}</Act> : null}
        {coat ? (
          <Act
            onPress={() =>
              change(
                words.region.useNamedAsAMask(label.toLowerCase()),
                addPart(coat.id, maskPartByKind('guard').schema.parse({ kind: 'guard', region: id, op: 'subtract' })),
              )
            }
          >
            {words.region.useAsAMask}
          </Act>
        ) : null}
        {drawn ? (
          <Act
            plain
            onPress={() => {
              change(words.region.clearStrokesOn(label.toLowerCase()), (p) => {
                const next = setRegion(id, { strokes: [] })(p);
                return id === 'subject' ? clearHints(next) : id === 'kept' ? clearKept(next) : next;
              });
            }}
          >
            {words.region.clearTheStrokes}
          </Act>
        ) : null}
      </Acts>
    </View>
  );
}

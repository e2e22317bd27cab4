import { useEffect, type CSSProperties } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { SURE } from '@/core/guards/finding';
import { regions, regionSchema, settingsOf, type RegionId } from '@/core/guards/schema';
import { amountToKeep, verdictOf } from '@/core/measure/kept';
import { addPart, changeCoat } from '@/core/piece/edits';
import { coatSchema, type Coat, type Piece } from '@/core/piece/schema';
import { maskPartByKind } from '@/core/mask';
import { shownPiece, useBench } from '@/store/bench';
import { useBrush } from '@/store/brush';
import {
  clearHints,
  findGuards,
  foundSentence,
  measureExactly,
  measureKept,
  recallFinding,
  setOwnAmount,
  setRegion,
  stopFinding,
  takeFace,
  useGuards,
  type GuardDoes,
} from '@/store/guards';
import { complain } from '@/store/notices';
import { pieceSize } from '@/core/ready/geometry';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Choice } from '../../kit/Choice';
import { Panel } from '../../kit/Panel';
import { Progress } from '../../kit/Progress';
import { Slider } from '../../kit/Slider';
import { Toggle } from '../../kit/Toggle';
import { SANS, SANS_MEDIUM, useColours } from '../../theme';

const percent = { min: 0, max: 1, step: 0.01, unit: '%', factor: 100 };

/** What every coat leaves alone: faces and people found, how far each region is kept, and how much of it is left. */
export function GuardsFacet({ coat }: { coat: Coat | null }) {
  const c = useColours();
  const piece = useBench(shownPiece);
  const kept = useBench((s) => s.piece);
  const { progress, finding, show, exact, report, set } = useGuards();
  const guarded = piece?.guards !== undefined;
  useEffect(() => {
    if (kept) void recallFinding(kept).catch(() => undefined);
  }, [kept]);
  const coats = kept?.coats.length ?? 0;
  useEffect(() => {
    if (!piece?.guards || coats === 0) return;
    const timer = setTimeout(() => void measureKept(piece).catch(complain), 150);
    return () => clearTimeout(timer);
  }, [piece, coats]);
  if (!piece || !kept) return null;
  return (
    <View style={{ gap: 4 }}>
      {guarded ? (
        <Text testID="found" style={{ color: c.quiet }}>
          {finding ? foundSentence(finding) : 'Regions are measured on this device.'}
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
          <Choice
            label="See"
            value={show}
            options={
              [
                { value: 'none', label: 'The piece' },
                { value: 'colour', label: 'Guards in colour' },
                { value: 'heat', label: 'What has changed' },
              ] as const
            }
            onChange={(v) => set({ show: v })}
          />
          {coat ? <Respect coat={coat} /> : null}
          <div role="list" aria-label="Regions" style={{ borderTop: `1px solid ${c.line}`, marginTop: 8 }}>
            {regions.map(({ id, label }) => (
              <Region key={id} id={id} label={label} piece={piece} coat={coat} />
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
                    useBench.getState().change('Take the guards away', (p) => ({ ...p, guards: undefined }));
                    set({ region: null, show: 'none' });
                  }}
                >
                  Take the guards away
                </Act>
              </Acts>
            </View>
          ) : null}
        </>
      ) : null}
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
  const { change, preview } = useBench.getState();
  const set = (v: number) => changeCoat(coat.id, () => ({ guards: respectField.parse(v) }));
  const own = coat.guardAmounts !== undefined;
  return (
    <View>
      <Slider
        label="Respect guards"
        value={coat.guards}
        neutral={1}
        {...percent}
        help="How far the guards hold this coat back."
        onPreview={(v) => preview(set(v))}
        onCommit={(v) => change('Respect guards', set(v), `${coat.id}.guards`)}
      />
      <Toggle
        label="Amounts of its own"
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

function Region({ id, label, piece, coat }: { id: RegionId; label: string; piece: Piece; coat: Coat | null }) {
  const c = useColours();
  const { region, report, set } = useGuards();
  const open = region === id;
  const settings = settingsOf(piece.guards ?? { regions: {} }, id);
  const own = coat?.guardAmounts !== undefined ? coat : null;
  const amount = own?.guardAmounts?.[id] ?? settings.amount;
  const kept = id === 'painted' ? undefined : report?.[id];
  const verdict = kept ? `${verdictOf(kept)}, ${kept.mean.toFixed(1)}` : '';
  return (
    <div role="listitem" style={{ borderBottom: `1px solid ${c.line}` }}>
      <button
        type="button"
        aria-expanded={open}
        data-testid={`region-${id}`}
        onClick={() => set({ region: open ? null : id, does: 'put' })}
        style={{ ...row, color: c.ink, fontFamily: open ? SANS_MEDIUM : SANS }}
      >
        <span style={{ flex: 1 }}>{label}</span>
        <span style={{ color: c.quiet }}>{verdict}</span>
        <span style={{ minWidth: 48, textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>{Math.round(amount * 100)} %</span>
      </button>
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
  const { does, report, set } = useGuards();
  const { change, preview } = useBench.getState();
  const brush = useBrush();
  const settings = settingsOf(piece.guards ?? { regions: {} }, id);
  const kept = id === 'painted' ? undefined : report?.[id];
  const more = kept ? amountToKeep(kept, amount) : amount;
  const setAmount = (v: number) => (own ? setOwnAmount(own.id, id, v) : setRegion(id, { amount: v }));
  const run = `guard.${own?.id ?? ''}.${id}`;
  const file = Math.max(piece.photo.width, piece.photo.height) / 2000;
  const { width, height } = pieceSize(piece);
  const pixels = Math.max(width, height) / 2000;
  const drawn = settings.strokes.length > 0 || (id === 'subject' && (piece.guards?.hints.length ?? 0) > 0);
  const strokes: { value: GuardDoes; label: string }[] = [
    { value: 'put', label: 'Add' },
    { value: 'take', label: 'Take away' },
    ...(id === 'subject'
      ? ([
          { value: 'keep', label: 'Find: subject' },
          { value: 'leave', label: 'Find: not it' },
        ] as const)
      : []),
  ];
  return (
    <View style={{ paddingBottom: 12 }}>
      {kept ? (
        <Text testID={`kept-${id}`} style={{ color: c.quiet, fontSize: 14 }}>
          {`${label}: ${verdictOf(kept)}. CIEDE2000 mean ${kept.mean.toFixed(1)}, 95 % under ${kept.p95.toFixed(1)}; structure ${kept.ssim.toFixed(2)}.`}
        </Text>
      ) : null}
      <Slider
        label="Amount"
        value={amount}
        neutral={regions.find((r) => r.id === id)?.amount ?? 0}
        {...percent}
        help={own ? 'For this coat alone.' : 'How far coats are held back here.'}
        onPreview={(v) => preview(setAmount(v))}
        onCommit={(v) => change(`${label}: amount`, setAmount(v), run)}
      />
      {more > amount + 0.001 ? (
        <Acts>
          <Act onPress={() => change(`Keep ${label.toLowerCase()} more`, setAmount(more))}>{`Keep it more: ${Math.round(more * 100)} %`}</Act>
        </Acts>
      ) : null}
      <Panel
        schema={regionSchema}
        only={['expand', 'feather']}
        values={{ ...settings, expand: settings.expand, feather: settings.feather }}
        lengths={file}
        onPreview={(key, v) => preview(setRegion(id, { [key]: v }))}
        onCommit={(key, v, words) => change(`${label}: ${words.toLowerCase()}`, setRegion(id, { [key]: v }), `guard.${id}.${key}`)}
      />
      <Choice label="A stroke on the picture will" value={does} options={strokes} onChange={(v) => set({ does: v })} />
      {does === 'put' || does === 'take' ? (
        <Slider
          label="Brush size"
          value={brush.size}
          neutral={180}
          min={4}
          max={1000}
          step={2}
          unit="px"
          factor={pixels}
          onPreview={(size) => brush.set({ size })}
          onCommit={(size) => brush.set({ size })}
        />
      ) : (
        <Text style={{ color: c.quiet, fontSize: 13 }}>A few strokes on the subject and a few beside it are enough.</Text>
      )}
      <Acts>
        {coat ? (
          <Act
            onPress={() =>
              change(
                `Use ${label.toLowerCase()} as a mask`,
                addPart(coat.id, maskPartByKind('guard').schema.parse({ kind: 'guard', region: id, op: 'subtract' })),
              )
            }
          >
            Use as a mask
          </Act>
        ) : null}
        {drawn ? (
          <Act
            plain
            onPress={() => {
              change(`Clear strokes on ${label.toLowerCase()}`, (p) => {
                const next = setRegion(id, { strokes: [] })(p);
                return id === 'subject' ? clearHints(next) : next;
              });
            }}
          >
            Clear the strokes
          </Act>
        ) : null}
      </Acts>
    </View>
  );
}

const row: CSSProperties = {
  display: 'flex',
  alignItems: 'center',
  gap: 12,
  width: '100%',
  minHeight: 44,
  padding: 0,
  border: 'none',
  background: 'none',
  fontSize: 15,
  textAlign: 'left',
  cursor: 'pointer',
};

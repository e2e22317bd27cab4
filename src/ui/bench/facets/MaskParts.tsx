import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { maskPartByKind, maskParts } from '@/core/mask';
import { addPart, changePart, movePartBy } from '@/core/piece/edits';
import { marksOf } from '@/core/materials';
import { grainOf, marksOfSource, sourceOfGrain } from '@/core/piece/grain';
import { coatTitle } from '@/core/piece/naming';
import { everyCoat, findCoat } from '@/core/piece/groups';
import type { Coat } from '@/core/piece/schema';
import { pieceSize } from '@/core/ready/geometry';
import { useLumaBelow } from '@/store/lumaBelow';
import { useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { useOwn } from '@/store/own';
import { usePicking } from '@/store/picking';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Fold } from '../../kit/Fold';
import { MaterialGrid } from '../../kit/MaterialGrid';
import { Panel } from '../../kit/Panel';
import { Pick } from '../../kit/Pick';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';
import { unitOf } from '@/core/image/unit';
import { words } from '../../words';

const added = maskParts.filter((p) => p.kind !== 'strokes');

/** The way to another part of the mask. */
export function AddMaskPart({ coat }: { coat: Coat }) {
  const { change } = useBench.getState();
  const others = everyCoat(useBench((s) => s.piece?.coats) ?? []).filter((k) => k.id !== coat.id);
  const add = (kind: string, label: string) => {
    const op = coat.mask.start === 'all' && !coat.mask.invert ? 'subtract' : 'add';
    const own = kind === 'material' ? { id: 'cracks.glaze', marks: marksOf('cracks.glaze') } : kind === 'coat' ? { coat: others[0]?.id ?? '' } : {};
    change(words.common.addNamed(label.toLowerCase()), addPart(coat.id, maskPartByKind(kind).schema.parse({ kind, op, ...own })));
  };
  return (
    <View>
      <Acts>
        <Act onPress={() => add('ellipse', 'ellipse')}>{words.mask.addAnEllipse}</Act>
        <Act onPress={() => add('gradient', 'gradient')}>{words.mask.addAGradient}</Act>
      </Acts>
      <Pick
        label={words.mask.addToTheMask}
        value=""
        none={words.mask.anotherPart}
        options={added.filter((p) => p.kind !== 'coat' || others.length > 0).map((p) => ({ value: p.kind, label: p.label }))}
        onPick={(kind) => kind && add(kind, maskPartByKind(kind).label)}
      />
    </View>
  );
}

/** The parts of a mask in the order in which they work. */
export function MaskPartList({ coat }: { coat: Coat }) {
  return coat.mask.parts.map((part, i) => <PartPanel key={`${i}-${String(part.kind)}`} coat={coat} part={part} index={i} />);
}

function PartPanel({ coat, part, index }: { coat: Coat; part: Record<string, unknown>; index: number }) {
  const { change, preview } = useBench.getState();
  const pixels = useBench((s) => (s.piece ? unitOf(pieceSize(s.piece)) : 1));
  const kind = part.kind as string;
  const entry = maskPartByKind(kind);
  const strokes = kind === 'strokes' ? (part.strokes as unknown[]).length : 0;
  const title = strokes ? `${entry.label}, ${strokes}` : entry.label;
  const name = entry.label.toLowerCase();
  const on = part.active !== false;
  const set = (key: string, v: unknown) => changePart(coat.id, index, { [key]: v });
  const last = index === coat.mask.parts.length - 1;
  return (
    <Fold title={title} changed={on} begin={last}>
      <Toggle
        label={words.common.on}
        value={on}
        onChange={(v) => change(v ? words.common.isOn(entry.label) : words.common.isOff(entry.label), set('active', v))}
      />
      {kind === 'colours' ? <PickedColours coat={coat} part={part} index={index} /> : null}
      {kind === 'material' ? <PartMaterial coat={coat} part={part} index={index} /> : null}
      {kind === 'coat' ? <PartCoat coat={coat} part={part} index={index} /> : null}
      <PartControls coat={coat} part={part} index={index} pixels={pixels} />
      <Acts>
        <Act
          plain
          disabled={index === 0}
          accessibilityLabel={words.mask.moveUp(entry.label)}
          onPress={() => change(words.mask.moveUp(entry.label), movePartBy(coat.id, index, -1))}
        >
          {words.common.moveUp}
        </Act>
        <Act
          plain
          disabled={last}
          accessibilityLabel={words.mask.moveDown(entry.label)}
          onPress={() => change(words.mask.moveDown(entry.label), movePartBy(coat.id, index, 1))}
        >
          {words.common.moveDown}
        </Act>
        <Act
          plain
          accessibilityLabel={words.mask.remove(name)}
          onPress={() => (preview(null), change(words.mask.remove(name), changePart(coat.id, index, null)))}
        >
          {words.common.remove}
        </Act>
      </Acts>
    </Fold>
  );
}

interface PartProps {
  coat: Coat;
  part: Record<string, unknown>;
  index: number;
}

function PartControls({ coat, part, index, pixels }: PartProps & { pixels: number }) {
  const entry = maskPartByKind(part.kind as string);
  const set = (key: string, v: unknown) => changePart(coat.id, index, { [key]: v });
  const luma = useLumaBelow(coat.id);
  return (
    <Panel
      schema={entry.schema}
      values={part}
      lengths={pixels}
      counts={{ range: luma }}
      {...panelEdit(set, stepOf(entry.label), `${coat.id}.${index}`)}
    />
  );
}

/** Colours from one or several spots of the picture. */
function PickedColours({ coat, part, index }: PartProps) {
  const c = useColours();
  const { change } = useBench.getState();
  const picked = part.picked as string[];
  const set = (list: string[]) => changePart(coat.id, index, { picked: list });
  return (
    <View style={{ gap: 8 }}>
      <Acts>
        {picked.map((hex, i) => (
          <button
            key={`${hex}-${i}`}
            type="button"
            aria-label={words.mask.leaveOut(hex)}
            title={words.mask.leaveOut(hex)}
            onClick={() => change(words.mask.leaveOutAColour, set(picked.filter((_, k) => k !== i)))}
            style={{ width: 44, height: 44, background: hex, border: `1px solid ${c.line}`, borderRadius: 2, cursor: 'pointer' }}
          />
        ))}
        <Act
          onPress={() =>
            usePicking.getState().ask(words.mask.tapAColourOnThe, (hex) => {
              const now = findCoat(useBench.getState().piece ?? { coats: [] }, coat.id)?.mask.parts[index];
              const list = (now?.picked as string[] | undefined) ?? picked;
              change(words.common.pickAColour, set([...list, hex].slice(0, 16)));
            })
          }
        >
          {picked.length === 0 ? words.common.pickAColour : words.mask.pickAnother}
        </Act>
      </Acts>
      {picked.length === 0 ? <Text style={{ color: c.quiet, fontSize: 13 }}>{words.mask.pickFirst}</Text> : null}
    </View>
  );
}

function PartMaterial({ coat, part, index }: PartProps) {
  const { change } = useBench.getState();
  return (
    <MaterialGrid
      size={64}
      current={sourceOfGrain(part)}
      onChoose={(source) =>
        change(
          words.mask.anotherMaterialAsMask,
          changePart(coat.id, index, { ...grainOf(source), params: source.params ?? {}, marks: marksOfSource(source) }),
        )
      }
    />
  );
}

function PartCoat({ coat, part, index }: PartProps) {
  const names = useOwn((s) => s.names);
  const { change } = useBench.getState();
  const others = everyCoat(useBench((s) => s.piece?.coats) ?? []).filter((k) => k.id !== coat.id);
  return (
    <Pick
      label={words.mask.whoseMask}
      value={String(part.coat)}
      none={others.some((k) => k.id === part.coat) ? undefined : words.mask.removedCoat}
      options={others.map((k) => ({ value: k.id, label: coatTitle(k, names) }))}
      onPick={(id) => change(words.mask.maskOfAnotherCoat, changePart(coat.id, index, { coat: id }))}
    />
  );
}

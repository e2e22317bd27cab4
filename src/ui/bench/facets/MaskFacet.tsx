import { View } from 'react-native';
import * as z from 'zod';
import { anchorMask, changeCoat, copyMask, linkMask, setMask } from '@/core/piece/edits';
import { coatTitle } from '@/core/piece/naming';
import { wholeMaskFields, type Coat } from '@/core/piece/schema';
import { pieceSize } from '@/core/ready/geometry';
import { sourceByKind } from '@/core/sources';
import { everyCoat } from '@/core/piece/groups';
import { useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { say } from '@/store/notices';
import { useOwn } from '@/store/own';
import { useSettings } from '@/store/settings';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Choice } from '../../kit/Choice';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { Pick } from '../../kit/Pick';
import { Toggle } from '../../kit/Toggle';
import { maskColours } from '../../theme';
import { BrushPanel } from './BrushPanel';
import { AddMaskPart, MaskPartList } from './MaskParts';
import { unitOf } from '@/core/image/unit';
import { words } from '../../words';

/** Where the coat applies: the brush in hand, what the mask starts from, its parts, the whole of it, and how it is seen. */
export function MaskFacet({ coat }: { coat: Coat }) {
  const { change, showMask } = useBench.getState();
  const maskView = useBench((s) => s.maskView);
  const { maskColour, set } = useSettings();
  return (
    <View style={{ gap: 4 }}>
      <BrushPanel />
      <Choice
        label={words.common.see}
        value={maskView}
        options={
          [
            { value: 'none', label: words.common.thePicture },
            { value: 'over', label: words.mask.showMask },
            { value: 'alone', label: words.mask.maskAlone },
          ] as const
        }
        onChange={showMask}
      />
      {maskView === 'over' ? (
        <Choice
          label={words.mask.colourOverHidden}
          value={maskColour}
          options={maskColours.map((m) => ({ value: m.id, label: m.label }))}
          onChange={(v) => set({ maskColour: v })}
        />
      ) : null}
      <Choice
        label={words.mask.start}
        value={coat.mask.start}
        options={
          [
            { value: 'all', label: words.common.shown },
            { value: 'none', label: words.mask.hidden },
          ] as const
        }
        onChange={(start) => change(start === 'all' ? words.mask.startShown : words.mask.startHidden, setMask(coat.id, { start }))}
      />
      <AddMaskPart coat={coat} />
      <MaskPartList coat={coat} />
      <WholeMask coat={coat} />
      {coat.mask.parts.length > 0 ? (
        <Acts>
          <Act
            plain
            onPress={() =>
              change(
                words.mask.clearTheMask,
                changeCoat(coat.id, (k) => ({ mask: { ...k.mask, parts: [] } })),
              )
            }
          >
            {words.mask.clearTheMask}
          </Act>
        </Acts>
      ) : null}
    </View>
  );
}

const wholeSchema = z.object(wholeMaskFields);

/** What is done with the whole mask, where it hangs, and other coats that share it. */
function WholeMask({ coat }: { coat: Coat }) {
  const { change } = useBench.getState();
  const names = useOwn((s) => s.names);
  const coats = everyCoat(useBench((s) => s.piece?.coats) ?? []);
  const pixels = useBench((s) => (s.piece ? unitOf(pieceSize(s.piece)) : 1));
  const { mask } = coat;
  const changed =
    mask.density < 1 || mask.feather > 0 || mask.expand !== 0 || mask.line > 0 || mask.refine > 0 || mask.invert || mask.anchor === 'lay';
  const others = coats.filter((k) => k.id !== coat.id).map((k) => ({ value: k.id, label: coatTitle(k, names) }));
  const named = (id: string) => others.find((o) => o.value === id)?.label ?? '';
  return (
    <Fold title={words.mask.wholeMask} changed={changed}>
      <Panel
        schema={wholeSchema}
        values={mask}
        lengths={pixels}
        {...panelEdit((key, v) => setMask(coat.id, { [key]: v }), stepOf(words.common.mask), `${coat.id}.mask`)}
      />
      {sourceByKind(coat.source.kind as string).laid ? (
        <Toggle
          label={words.mask.movesWithTheMaterial}
          help={words.mask.movesHelp}
          value={mask.anchor === 'lay'}
          onChange={(v) => change(v ? words.mask.maskMovesWithTheMaterial : words.mask.maskStaysOnThePhoto, anchorMask(coat.id, v ? 'lay' : 'photo'))}
        />
      ) : null}
      {others.length > 0 ? (
        <>
          <Pick
            label={words.common.copyItTo}
            says={words.mask.copyTheMaskToAnother}
            value=""
            none={words.common.anotherCoat}
            options={others}
            onPick={(id) => {
              if (!id) return;
              change(words.mask.copyTheMask, copyMask(coat.id, id));
              say(words.mask.theMaskIsOnToo(named(id)));
            }}
          />
          <Pick
            label={words.mask.useTheMaskOf}
            says={words.mask.useTheMaskOfAnother}
            value=""
            none={words.common.anotherCoat}
            options={others}
            onPick={(id) => {
              if (!id) return;
              change(words.mask.linkTheMasks, linkMask(coat.id, id));
              say(words.mask.linked(named(id)));
            }}
          />
        </>
      ) : null}
    </Fold>
  );
}

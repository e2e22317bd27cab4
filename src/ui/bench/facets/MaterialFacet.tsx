import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { LACKING } from '@/core/lay/enlarged';
import { enlargement } from '@/core/lay/lay';
import { nominalOf } from '@/core/lay/nominal';
import { materialById } from '@/core/materials';
import { fittingSchema, neutralFitting, type Fitting } from '@/core/materials/fitting/schema';
import { exchangeSource, type SourceInput } from '@/core/piece/edits';
import { sourceName } from '@/core/piece/naming';
import type { Coat } from '@/core/piece/schema';
import { cutoutSchema } from '@/core/sources/cutout';
import { pictureSourceSchema } from '@/core/sources/picture';
import { useBench } from '@/store/bench';
import { panelEdit } from '@/store/editing';
import { setSubject, subjectOf, useCutting, type Cutting } from '@/store/cutting';
import { PICTURES, pickFiles } from '@/store/files';
import { bringIn, sourceOf, useOwn } from '@/store/own';
import { useShelf } from '@/store/shelf';
import { Act } from '../../kit/Act';
import { Choice } from '../../kit/Choice';
import { Fold } from '../../kit/Fold';
import { MaterialPicker } from '../../kit/MaterialPicker';
import { Panel } from '../../kit/Panel';
import { useColours } from '../../theme';
import { useViewport } from '../viewport';
import { BrushSize } from './BrushSize';
import { PaintSwitch } from './PaintSwitch';
import { GroupPanel } from './GroupPanel';
import { MarksPanel } from './MarksPanel';
import { MaterialLight } from './MaterialLight';
import { SignaturePanel } from './SignaturePanel';
import { SourcePanel } from './SourcePanel';
import { words } from '../../words';

/** Files of the person's own, each laid or exchanged once it is on the shelf. */
export const ownPictures = async (then: (source: SourceInput) => void) => {
  for (const own of await bringIn(await pickFiles(PICTURES, true))) then(sourceOf(own));
};

/** Sources whose figures are not those of their schema alone. */
const WITH_OWN_PANEL = ['material', 'picture', 'cutout'];

/** Sources that are drawn by hand, or made of coats: another material would lose what was made. */
const DRAWN: Record<string, (props: { coat: Coat }) => ReactNode> = { strokes: MarksPanel, signature: SignaturePanel, group: GroupPanel };

/** The material of the chosen coat: its own figures, another piece of it, or another material with all else kept. */
export function MaterialFacet({ coat }: { coat: Coat }) {
  const Drawn = DRAWN[(coat.source as { kind: string }).kind];
  return Drawn ? <Drawn coat={coat} /> : <MadeMaterial coat={coat} />;
}

function MadeMaterial({ coat }: { coat: Coat }) {
  const c = useColours();
  const names = useOwn((s) => s.names);
  const { change, preview } = useBench.getState();
  const source = coat.source as unknown as SourceInput & { id: string; seed: number; params: Record<string, unknown> };
  const exchange = (next: SourceInput) => {
    useShelf.getState().laid(next);
    change(words.material.replaceWith(sourceName(next, names)), exchangeSource(coat.id, next));
  };
  const set = (key: string, value: unknown): SourceInput => ({ ...source, params: { ...source.params, [key]: value } });
  const material = source.kind === 'material' ? materialById(source.id) : null;
  return (
    <View style={styles.all}>
      {material ? (
        <View>
          <Text style={{ color: c.quiet }}>{material.help}</Text>
          <View style={styles.row}>
            <Act
              icon="dice-5-outline"
              onPress={() => change(words.material.newVariation, exchangeSource(coat.id, { ...source, seed: (source.seed * 31 + 7) % 9973 }))}
            >
              {words.material.newVariation}
            </Act>
          </View>
          <Panel
            schema={material.params}
            // A generator’s own direction has no place where the light comes from elsewhere.
            values={{ ...source.params, light: source.light }}
            onPreview={() => preview(null)}
            onCommit={(key, value, label) => change(label, exchangeSource(coat.id, set(key, value)), `${coat.id}.${key}`)}
          />
        </View>
      ) : null}
      {material && !material.unlit ? <MaterialLight coat={coat} /> : null}
      {WITH_OWN_PANEL.includes(source.kind) ? null : <SourcePanel coat={coat} />}
      {source.kind === 'picture' ? <GrainPanel coat={coat} /> : null}
      {source.kind === 'picture' ? <FitPanel coat={coat} /> : null}
      {source.kind === 'cutout' || source.kind === 'picture' ? <CutPanel coat={coat} /> : null}
      <Text style={{ color: c.ink }}>{words.material.replaceTheMaterialAllSettings}</Text>
      <MaterialPicker current={source} onChoose={exchange} />
      <Act icon="image-plus" onPress={() => void ownPictures(exchange)}>
        {words.common.ownPicture}
      </Act>
    </View>
  );
}

/** The edge of a cut-out, and switching between a picture and its subject. */
function CutPanel({ coat }: { coat: Coat }) {
  const c = useColours();
  const { change, openFacet } = useBench.getState();
  const source = coat.source as unknown as SourceInput & { file?: string; width?: number; height?: number };
  const cut = source.kind === 'cutout';
  const set = (key: string, v: unknown) => exchangeSource(coat.id, { ...source, [key]: v });
  const size = { width: source.width, height: source.height };
  return (
    <View style={{ gap: 8 }}>
      {cut ? <Panel schema={cutoutSchema} values={source} {...panelEdit(set, (label) => label, `${coat.id}.cut`)} /> : null}
      {cut && !source.file ? (
        <>
          <Text style={{ color: c.quiet }}>{words.material.correctTheSubjectHelp}</Text>
          <View style={styles.row}>
            <Act onPress={() => openFacet('guards')}>{words.material.correctTheSubject}</Act>
          </View>
        </>
      ) : null}
      {cut && source.file ? <CutCorrections coat={coat} /> : null}
      {source.file ? (
        <View style={styles.row}>
          <Act
            onPress={() =>
              change(
                cut ? words.material.theWholePicture : words.material.cutOutItsSubject,
                exchangeSource(
                  coat.id,
                  (cut ? pictureSourceSchema : cutoutSchema).parse({ kind: cut ? 'picture' : 'cutout', file: source.file, ...size }),
                ),
              )
            }
          >
            {cut ? words.material.theWholePicture : words.material.cutOutItsSubject}
          </Act>
        </View>
      ) : null}
    </View>
  );
}

/** The brush that corrects the cut-out of another picture. */
function CutCorrections({ coat }: { coat: Coat }) {
  const { does, set } = useCutting();
  const { strokes, hints, hairs } = subjectOf(coat);
  const options = (Object.keys(words.cut.does) as Cutting[]).map((value) => ({ value, label: words.cut.does[value] }));
  return (
    <View>
      <PaintSwitch label={words.cut.correct} help={words.cut.help} />
      <Choice label={words.brush.aStrokeWill} bare scrolls value={does} options={options} onChange={set} />
      <BrushSize />
      {strokes.length + hints.length + hairs.length > 0 ? (
        <Act
          plain
          onPress={() =>
            useBench.getState().change(
              words.cut.reset,
              setSubject(coat.id, () => undefined),
            )
          }
        >
          {words.cut.reset}
        </Act>
      ) : null}
    </View>
  );
}

/** Fine grain, where the picture of this coat is drawn larger than its pixels. */
function GrainPanel({ coat }: { coat: Coat }) {
  const c = useColours();
  const photo = useViewport((s) => s.photo);
  const source = coat.source as unknown as SourceInput;
  const times = enlargement(coat.lay, nominalOf(source, photo), photo);
  const set = (key: string, v: unknown) => exchangeSource(coat.id, { ...source, [key]: v });
  return (
    <View>
      {times > LACKING ? <Text style={{ color: c.quiet }}>{words.material.enlarged(times.toFixed(1))}</Text> : null}
      <Panel schema={pictureSourceSchema} only={['grain']} values={{ ...source, times }} {...panelEdit(set, (label) => label, `${coat.id}.grain`)} />
    </View>
  );
}

/** How the picture of this coat is made to fit; the one on the shelf stays as it is. */
function FitPanel({ coat }: { coat: Coat }) {
  const source = coat.source as unknown as SourceInput & { file: string; fitting?: Fitting };
  const c = useColours();
  const own = useOwn((s) => s.list.find((o) => o.key === source.file));
  if (!own) return null;
  const fitting = source.fitting ?? neutralFitting;
  const set = (key: string, value: unknown) => exchangeSource(coat.id, sourceOf({ ...own, fitting: { ...fitting, [key]: value } }));
  return (
    <Fold title={words.material.cleanUpScan} changed={source.fitting !== undefined} begin={own.uneven}>
      {own.uneven && fitting.even === 0 ? <Text style={{ color: c.quiet }}>{words.material.unevenLight}</Text> : null}
      <Panel
        schema={fittingSchema}
        values={fitting}
        onCommit={(key, value, label) => useBench.getState().change(label, set(key, value), `${coat.id}.fit.${key}`)}
      />
    </Fold>
  );
}

const styles = StyleSheet.create({ all: { gap: 12 }, row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 4 } });

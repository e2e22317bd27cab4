import { router } from 'expo-router';
import { useEffect, useState, type CSSProperties } from 'react';
import { ScrollView, View } from 'react-native';
import { Dialog, Text, TextInput } from 'react-native-paper';
import { modeById } from '@/core/blend';
import { LACKING } from '@/core/lay/enlarged';
import { enlargement, laySchema } from '@/core/lay/lay';
import { families, materialById } from '@/core/materials';
import { fittedSize, fittingSchema, neutralFitting, type Fitting } from '@/core/materials/fitting/schema';
import type { SourceInput } from '@/core/piece/edits';
import { pieceSize } from '@/core/ready/geometry';
import { useBench } from '@/store/bench';
import { litAsKnown } from '@/store/light';
import { complain, say } from '@/store/notices';
import { borderOf, labelOf, sourceOf, useOwn } from '@/store/own';
import { shelfId, useShelf } from '@/store/shelf';
import { usesOf } from '@/store/records';
import type { OwnMaterial } from '@/store/storage';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { Acts } from '../kit/Acts';
import { Choice } from '../kit/Choice';
import { Fold } from '../kit/Fold';
import { MaterialThumb } from '../kit/MaterialThumb';
import { OwnThumb } from '../kit/OwnThumb';
import { Panel } from '../kit/Panel';
import { Toggle } from '../kit/Toggle';
import { SERIF, useColours } from '../theme';
import { words } from '../words';

interface Props {
  source: SourceInput | null;
  onClose(): void;
}

/** A material looked at closely: what it is, where it is used, how an own one is made to fit. */
export function MaterialDialog({ source, onClose }: Props) {
  const c = useColours();
  const piece = useBench((s) => s.piece);
  const own = useOwn((s) => s.list.find((o) => o.key === source?.file));
  const id = source ? shelfId(source) : '';
  const uses = useUses(id);
  const [four, setFour] = useState(false);
  const { favourites, favour } = useShelf();
  if (!source || (source.kind === 'picture' && !own)) return null;
  const material = source.kind === 'material' ? materialById(String(source.id)) : null;
  const title = material?.label ?? (own ? labelOf(own) : '');
  const seamless = material?.seamless ?? own?.fitting?.seamless ?? false;
  const tiled = four && seamless;
  const size = own && fittedSize(own.width, own.height, own.fitting ?? neutralFitting);
  const enlarged = size && piece ? enlargement(laySchema.parse({}), size, pieceSize(piece)) : 1;
  const shape = size ? `${size.width} / ${size.height}` : '1';
  const lay = () => {
    useBench.getState().addCoat(own ? sourceOf(own) : litAsKnown(source));
    useBench.getState().openFacet('blend');
    onClose();
    router.dismissTo(`/piece/${piece?.id}`);
  };
  return (
    <PopUp label={title} maxWidth={560} onClose={onClose}>
      <View style={{ marginTop: 0, padding: 20, paddingBottom: 10, gap: 10 }}>
        <Text style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink }}>{title}</Text>
        <div
          style={{
            ...picture,
            height: own ? 'min(30vh, 260px)' : 'min(48vh, 420px)',
            background: c.card,
            ...(tiled ? { ...tiles, aspectRatio: shape } : {}),
          }}
        >
          {Array.from({ length: tiled ? 4 : 1 }, (_, i) =>
            material ? (
              <MaterialThumb key={i} id={material.id} label={i === 0 ? title : ''} side={512} />
            ) : own ? (
              <OwnThumb key={i} own={own} label={i === 0 ? title : ''} whole={tiled} />
            ) : null,
          )}
        </div>
      </View>
      <Dialog.ScrollArea style={{ paddingHorizontal: 0, marginBottom: 0, borderColor: c.line }}>
        <ScrollView contentContainerStyle={{ gap: 10, padding: 20, paddingTop: 10 }}>
          {seamless ? <Toggle label={words.material.showFourTiles} value={tiled} onChange={setFour} /> : null}
          {material ? <Text style={{ color: c.ink }}>{material.help}</Text> : null}
          <Text style={{ color: c.quiet }}>{material ? about(material) : own ? aboutOwn(own) : ''}</Text>
          {enlarged > LACKING ? <Text style={{ color: c.quiet }}>{words.material.enlargedHere(enlarged.toFixed(1))}</Text> : null}
          <Toggle label={words.material.favourite} value={favourites.includes(id)} onChange={(on) => favour(id, on)} />
          <Text style={{ color: c.quiet }}>
            {uses === null ? '' : uses.length === 0 ? words.material.notUsedInAPiece : words.material.usedIn(uses.join(', '))}
          </Text>
          {own ? <OwnPanel own={own} /> : null}
        </ScrollView>
      </Dialog.ScrollArea>
      <Dialog.Actions style={{ flexWrap: 'wrap', gap: 8 }}>
        {own ? (
          <Act plain onPress={() => void useOwn.getState().remove(own.key).then(onClose, complain)}>
            {words.material.deleteFromShelf}
          </Act>
        ) : null}
        <Act plain onPress={onClose}>
          {words.common.close}
        </Act>
        {piece ? (
          <Act main onPress={lay}>
            {words.material.addTo(piece.name)}
          </Act>
        ) : null}
      </Dialog.Actions>
    </PopUp>
  );
}

/** Names of the pieces in which it is laid; null while they are looked for. */
function useUses(id: string): string[] | null {
  const [uses, setUses] = useState<{ id: string; names: string[] } | null>(null);
  useEffect(() => {
    if (id === '') return;
    let live = true;
    void usesOf(id).then((names) => live && setUses({ id, names }), complain);
    return () => void (live = false);
  }, [id]);
  return uses?.id === id ? uses.names : null;
}

function about({ family, suggest, seamless }: ReturnType<typeof materialById>): string {
  const { label } = families.find((f) => f.id === family) ?? { label: '' };
  const begins = words.material.startsIn(modeById(suggest.blend).label.toLowerCase(), Math.round(suggest.strength * 100));
  return `${label}. ${begins}${seamless ? words.material.tilesWithoutASeam : ''}`;
}

const aboutOwn = ({ width, height, maker, licence }: OwnMaterial) =>
  [words.common.pixels(width, height), maker && words.material.by(maker), licence].filter(Boolean).join(', ') + '.';

/** Name and family of an own material, and how it is made to fit. */
function OwnPanel({ own }: { own: OwnMaterial }) {
  const [name, setName] = useState(labelOf(own));
  const change = (to: Partial<OwnMaterial>) => void useOwn.getState().change(own.key, to).catch(complain);
  const fitting = own.fitting ?? neutralFitting;
  const fit = (to: Partial<Fitting>) => change({ fitting: { ...fitting, ...to } });
  const rename = () => {
    const text = name.trim();
    if (text === '') setName(labelOf(own));
    else if (text !== labelOf(own)) change({ label: text });
  };
  const findBorder = async () => {
    const found = await borderOf(own.key);
    if (found) fit({ left: found.left, top: found.top, right: found.right, bottom: found.bottom });
    else say(words.material.noBorderFound);
  };
  const trims = ['left', 'top', 'right', 'bottom'];
  return (
    <>
      <TextInput
        label={words.common.name}
        aria-label={words.common.name}
        mode="outlined"
        dense
        value={name}
        onChangeText={setName}
        onBlur={rename}
        onSubmitEditing={rename}
        maxLength={200}
      />
      <Fold title={words.material.cleanUpScan} changed={own.fitting !== undefined} begin>
        <Panel schema={fittingSchema} values={fitting} only={['even', 'seamless', 'grey']} onCommit={(key, value) => fit({ [key]: value })} />
        <Panel schema={fittingSchema} values={fitting} only={trims} onCommit={(key, value) => fit({ [key]: value })} />
        <Acts>
          <Act onPress={() => void findBorder().catch(complain)}>{words.material.findTheBorder}</Act>
          <Act plain onPress={() => fit(neutralFitting)}>
            {words.material.reset}
          </Act>
        </Acts>
      </Fold>
      <Fold title={words.common.family}>
        <Choice
          label={words.material.shownUnder}
          options={[{ value: 'own', label: words.common.yourOwn }, ...families.map((f) => ({ value: f.id as string, label: f.label as string }))]}
          value={own.family ?? 'own'}
          onChange={(value) => change({ family: value === 'own' ? undefined : (value as OwnMaterial['family']) })}
        />
      </Fold>
    </>
  );
}

const picture: CSSProperties = { width: '100%', overflow: 'hidden', borderRadius: 2 };
const tiles: CSSProperties = {
  display: 'grid',
  gridTemplate: 'repeat(2, minmax(0, 1fr)) / repeat(2, minmax(0, 1fr))',
  width: 'auto',
  margin: '0 auto',
};

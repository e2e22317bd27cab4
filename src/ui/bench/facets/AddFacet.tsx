import { router } from 'expo-router';
import { useEffect, useRef, useState, type CSSProperties } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { newCoat, type SourceInput } from '@/core/piece/edits';
import { isFoundBy } from '@/core/search';
import { sources, type Source } from '@/core/sources';
import type { Offer } from '@/core/sources/source';
import { addCoat } from '@/core/piece/stacking';
import { useBench } from '@/store/bench';
import { knownLight, litAsKnown, useLightAhead } from '@/store/light';
import { complain } from '@/store/notices';
import { shelfId } from '@/store/shelf';
import { useSignatures } from '@/store/signatures';
import { useTrying } from '@/store/trying';
import { onSkin, type OnSkin } from '@/core/piece/onSkin';
import { setUpOnSkin, stopSettingUp, useSettingUp } from '@/store/onSkin';
import { Act } from '../../kit/Act';
import { MaterialPicker } from '../../kit/MaterialPicker';
import { Progress } from '../../kit/Progress';
import { SANS, SANS_MEDIUM, useColours } from '../../theme';
import { ownPictures } from './MaterialFacet';
import { words } from '../../words';

const offered = sources.flatMap((source) => (source.offers ?? []).map((offer) => ({ source, offer })));

/** Adds an offered coat; one that is another picture treated is treated next. */
function make({ schema, kind, is }: Source, offer: Offer): void {
  const { addCoat: add, openFacet } = useBench.getState();
  // A signature begins as the one that was used last.
  const [lines] = kind === 'signature' ? useSignatures.getState().list : [];
  // What is raised later is then lit as the photo's face is.
  const light = 'lightFrom' in schema.shape ? knownLight() : null;
  const lit = light ? { lightFrom: Math.round(light.direction) } : {};
  add(
    schema.parse({ kind, ...lit, ...offer.params, ...(lines ? { lines } : {}) }) as SourceInput,
    offer.look && { ...offer.look, name: offer.label },
  );
  // After what is good as it comes, the rail stays in view.
  openFacet(offer.isComplete ? null : is ? 'tone' : 'material');
}

/** What a new coat is made of: a tap tries a material on the photo, each in place of the last; “Use it” keeps it. */
export function AddFacet() {
  const { preview, openFacet } = useBench.getState();
  const tried = useTrying((s) => s.tried);
  const [others, setOthers] = useState(false);
  const top = useRef<View>(null);
  useEffect(() => {
    if (others) (top.current as unknown as HTMLElement | null)?.scrollIntoView({ block: 'start' });
  }, [others]);
  useLightAhead();
  useEffect(() => void useSignatures.getState().refresh().catch(complain), []);
  // What was only tried goes with the page.
  useEffect(
    () => () => {
      if (useTrying.getState().tried) useBench.getState().preview(null);
      useTrying.setState({ tried: null });
    },
    [],
  );
  const attempt = (source: SourceInput) => {
    // Chosen once more, it is kept.
    if (tried && shelfId(tried) === shelfId(source)) return keepTried();
    const { chosen } = useBench.getState();
    useTrying.setState({ tried: source });
    preview(addCoat(newCoat('tried', litAsKnown(source)), chosen));
  };
  const lay = (source: SourceInput) => {
    useBench.getState().addCoat(source);
    openFacet('blend');
  };
  if (others)
    return (
      <View ref={top} style={{ gap: 4 }}>
        {onSkin.map((one) => (
          <OnSkinRow key={one.id} one={one} />
        ))}
        {offered.map(({ source, offer }) => (
          <OfferRow key={offer.label} offer={offer} onPress={() => make(source, offer)} />
        ))}
        <Act plain onPress={() => setOthers(false)}>
          {words.add.backToMaterials}
        </Act>
      </View>
    );
  const matching = (word: string) => offered.filter(({ offer }) => isFoundBy([offer.label, offer.says, offer.words], word));
  return (
    <View style={{ gap: 8 }}>
      <MaterialPicker
        current={tried ?? undefined}
        onChoose={attempt}
        found={(word) => [
          ...onSkin.filter((one) => isFoundBy([one.label, one.says, one.words], word)).map((one) => <OnSkinRow key={one.id} one={one} />),
          ...matching(word).map(({ source, offer }) => <OfferRow key={offer.label} offer={offer} onPress={() => make(source, offer)} />),
        ]}
        above={(family) => (family === 'skin' ? onSkin.map((one) => <OnSkinRow key={one.id} one={one} />) : null)}
      />
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', flexWrap: 'wrap' }}>
        <Act plain icon="image-plus" onPress={() => void ownPictures(lay)}>
          {words.common.ownPicture}
        </Act>
        <Act plain onPress={() => router.push('/materials')}>
          {words.add.openTheShelf}
        </Act>
        <Act plain onPress={() => setOthers(true)}>
          {words.add.otherCoats}
        </Act>
      </View>
    </View>
  );
}

function keepTried(): void {
  const { tried } = useTrying.getState();
  const { addCoat: add, openFacet } = useBench.getState();
  if (!tried) return;
  useTrying.setState({ tried: null });
  add(litAsKnown(tried));
  openFacet('blend');
}

/** Keeps what is tried. It stands beside the title, where it is seen however far the shelf is pushed. */
export function UseTried() {
  const c = useColours();
  const tried = useTrying((s) => s.tried);
  return (
    <Act plain disabled={!tried} textColor={c.accent} onPress={keepTried}>
      {words.common.useIt}
    </Act>
  );
}

/** Sets something up on the skin; how far that is while faces are looked for. */
function OnSkinRow({ one }: { one: OnSkin }) {
  const { id, share } = useSettingUp();
  if (id !== one.id) return <OfferRow offer={one} onPress={() => void setUpOnSkin(one)} />;
  return (
    <View style={{ gap: 8, paddingVertical: 8 }}>
      <Progress share={share} label={words.add.lookingForFaces} />
      <Act onPress={stopSettingUp}>{words.common.stop}</Act>
    </View>
  );
}

function OfferRow({ offer, onPress }: { offer: Pick<Offer, 'label' | 'says'>; onPress(): void }) {
  const c = useColours();
  return (
    <button type="button" aria-label={offer.label} onClick={onPress} style={{ ...row, borderColor: c.line, background: c.raised, color: c.ink }}>
      <span style={{ fontFamily: SANS_MEDIUM, fontSize: 15 }}>{offer.label}</span>
      <Text style={{ color: c.quiet, fontSize: 13 }}>{offer.says}</Text>
    </button>
  );
}

const row: CSSProperties = {
  display: 'flex',
  flexDirection: 'column',
  gap: 1,
  width: '100%',
  minHeight: 44,
  padding: '6px 10px',
  border: '1px solid',
  borderRadius: 2,
  textAlign: 'left',
  fontFamily: SANS,
  cursor: 'pointer',
};

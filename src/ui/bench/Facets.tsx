import type { ComponentType, CSSProperties } from 'react';
import { ScrollView, View } from 'react-native';
import { Text } from 'react-native-paper';
import { marksOf } from '@/core/piece/marks';
import { groupOf } from '@/core/piece/groups';
import { coatTitle } from '@/core/piece/naming';
import type { Coat } from '@/core/piece/schema';
import { chosenCoat, photoFacetIds, useBench, type FacetId, type ReadyFacetId } from '@/store/bench';
import { useOwn } from '@/store/own';
import { setLocked } from '@/store/several';
import { Act } from '../kit/Act';
import { useHelp } from '../kit/help';
import { SANS, SANS_MEDIUM, SERIF, useColours } from '../theme';
import { BlendFacet } from './facets/BlendFacet';
import { ContactFacet, UseWay } from './facets/ContactFacet';
import { FrameFacet } from './facets/FrameFacet';
import { PlaceFacet } from './facets/PlaceFacet';
import { AddFacet, UseTried } from './facets/AddFacet';
import { MaterialFacet } from './facets/MaterialFacet';
import { MoreFacet } from './facets/MoreFacet';
import { PhotoFacet } from './facets/PhotoFacet';
import { ColourFacet } from './facets/ColourFacet';
import { DetailFacet } from './facets/DetailFacet';
import { GuardsFacet } from './facets/GuardsFacet';
import { FinishFacet } from './facets/FinishFacet';
import { LightFacet } from './facets/LightFacet';
import { LooksFacet, UseLook } from './facets/LooksFacet';
import { SpotsFacet } from './facets/SpotsFacet';
import { SurfaceFacet, ToneFacet } from './facets/ToneFacet';
import { MaskFacet } from './facets/MaskFacet';
import { words } from '../words';

export const facets: { id: FacetId; label: string }[] = [
  { id: 'blend', label: words.facets.blend },
  { id: 'material', label: words.facets.material },
  { id: 'lay', label: words.common.place },
  { id: 'tone', label: words.common.tone },
  { id: 'surface', label: words.facets.surface },
  { id: 'where', label: words.common.mask },
  { id: 'guards', label: words.facets.guards },
  { id: 'more', label: words.facets.more },
];

const readying: Record<ReadyFacetId, { label: string; Body: ComponentType }> = {
  frame: { label: words.facets.crop, Body: FrameFacet },
  spots: { label: words.facets.spots, Body: SpotsFacet },
  light: { label: words.common.light, Body: LightFacet },
  colour: { label: words.facets.colour, Body: ColourFacet },
  detail: { label: words.facets.detail, Body: DetailFacet },
  starts: { label: words.facets.presets, Body: LooksFacet },
};
const photoFacets: { id: FacetId; label: string }[] = [
  ...photoFacetIds.map((id) => ({ id, label: readying[id].label })),
  { id: 'guards', label: words.facets.guards },
  { id: 'more', label: words.facets.more },
];
/** What the open tab is called. */
export const facetLabel = (facet: FacetId): string =>
  [...facets, ...photoFacets].find(({ id }) => id === facet)?.label ??
  { add: words.common.addAMaterial, finish: words.finish.title }[facet as string] ??
  words.common.compareAllModes;
const isReadying = (facet: FacetId): facet is ReadyFacetId => facet in readying;

/** Tabs of the chosen coat, or of the photo, in one row; arrows go along it. On a phone the open one closes by a second press. */
export function FacetTabs({ open, closes }: { open: FacetId | null; closes?: boolean }) {
  const c = useColours();
  const { openFacet } = useBench.getState();
  const ofCoat = useBench((s) => s.chosen !== null);
  const own = useBench((s) => {
    const coat = chosenCoat(s);
    return marksOf(coat) ? words.marks.tab : groupOf(coat) ? words.groups.group : words.facets.material;
  });
  const list = ofCoat ? facets.map((f) => (f.id === 'material' ? { ...f, label: own } : f)) : photoFacets;
  const current = open === 'contact' ? 'blend' : open;
  const reached = list.some(({ id }) => id === current) ? current : list[0].id;
  return (
    <div
      role="tablist"
      aria-label={ofCoat ? words.facets.theCoat : words.common.thePhoto}
      style={{ ...tabs, background: c.chrome, borderTop: `1px solid ${c.line}` }}
      onKeyDown={(e) => {
        const step = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
        if (!step) return;
        e.preventDefault();
        e.stopPropagation();
        const to = (list.findIndex(({ id }) => id === reached) + step + list.length) % list.length;
        openFacet(list[to].id);
        (e.currentTarget.children[to] as HTMLElement).focus();
      }}
    >
      {list.map(({ id, label }) => {
        const on = current === id;
        return (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={on}
            tabIndex={id === reached ? 0 : -1}
            onClick={() => openFacet(on && closes ? null : id)}
            style={{
              ...tab,
              color: on ? c.accent : c.ink,
              borderBottom: `3px solid ${on ? c.accent : 'transparent'}`,
              fontFamily: on ? SANS_MEDIUM : SANS,
            }}
          >
            {label}
          </button>
        );
      })}
    </div>
  );
}

/** Facets that are the same whichever card is chosen. */
const ANYWHERE: FacetId[] = ['add', 'guards', 'finish'];

/** Facets that work on a locked coat too. */
const UNLOCKED: FacetId[] = ['add', 'finish', 'more'];

/** What the open facet offers; in a sheet that `closes` the end of the title's line is left to its button. */
export function FacetBody({ facet, closes }: { facet: FacetId; closes?: boolean }) {
  const c = useColours();
  const coat = useBench(chosenCoat);
  const names = useOwn((s) => s.names);
  const Photo = isReadying(facet) ? readying[facet].Body : PhotoFacet;
  const title =
    facet === 'finish'
      ? words.finish.title
      : facet === 'add'
        ? words.common.addAMaterial
        : !coat && facet === 'starts'
          ? words.common.startFromALook
          : coat
            ? coatTitle(coat, names)
            : words.common.thePhoto;
  return (
    <>
      <ScrollView
        style={{ flex: 1 }}
        contentContainerStyle={{ paddingHorizontal: 14, paddingBottom: 12 }}
        key={`${facet}-${coat?.id}`}
        stickyHeaderIndices={[0]}
      >
        <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', backgroundColor: c.chrome }}>
          <Text
            role="heading"
            aria-level={2}
            style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink, paddingVertical: 6, flexShrink: 1 }}
            numberOfLines={1}
          >
            {title}
          </Text>
          {facet === 'add' ? <UseTried /> : null}
          {!coat && facet === 'starts' ? <UseLook /> : null}
          {coat && facet === 'contact' ? <UseWay /> : null}
          {closes ? <View style={{ width: 56 }} /> : null}
        </View>
        {coat?.locked && !UNLOCKED.includes(facet) ? <LockedNote coat={coat} /> : null}
        <div inert={coat?.locked === true && !UNLOCKED.includes(facet)} style={coat?.locked && !UNLOCKED.includes(facet) ? { opacity: 0.45 } : {}}>
          {facet === 'add' ? <AddFacet /> : null}
          {facet === 'finish' ? <FinishFacet /> : null}
          {facet === 'guards' ? <GuardsFacet coat={coat} /> : null}
          {!coat && !ANYWHERE.includes(facet) ? <Photo /> : null}
          {coat && facet === 'material' ? <MaterialFacet coat={coat} /> : null}
          {coat && facet === 'lay' ? <PlaceFacet coat={coat} /> : null}
          {coat && facet === 'tone' ? <ToneFacet coat={coat} /> : null}
          {coat && facet === 'surface' ? <SurfaceFacet coat={coat} /> : null}
          {coat && facet === 'where' ? <MaskFacet coat={coat} /> : null}
          {coat && facet === 'blend' ? <BlendFacet coat={coat} /> : null}
          {coat && facet === 'contact' ? <ContactFacet coat={coat} /> : null}
          {coat && facet === 'more' ? <MoreFacet coat={coat} /> : null}
        </div>
      </ScrollView>
      <HelpLine />
    </>
  );
}

/** Why a coat's controls do not answer. */
function LockedNote({ coat }: { coat: Coat }) {
  const c = useColours();
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 10, paddingBottom: 8 }}>
      <Text style={{ color: c.ink, flexShrink: 1 }}>{words.groups.isLocked}</Text>
      <Act icon="lock-open-variant-outline" onPress={() => setLocked(coat.id, false)}>
        {words.groups.unlock}
      </Act>
    </View>
  );
}

/** What the control in hand does, in one line that is always there. */
function HelpLine() {
  const c = useColours();
  const text = useHelp((s) => s.text);
  return (
    <div data-testid="help-line" style={{ ...helpLine, color: c.quiet, borderTop: `1px solid ${c.line}` }}>
      {text}
    </div>
  );
}

const helpLine: CSSProperties = {
  minHeight: 30,
  padding: '6px 14px',
  boxSizing: 'border-box',
  fontFamily: SANS,
  fontSize: 13,
  lineHeight: '17px',
  flexShrink: 0,
};
const tabs: CSSProperties = { display: 'flex', padding: '0 2px', flexShrink: 0 };
const tab: CSSProperties = {
  border: 'none',
  background: 'none',
  minHeight: 48,
  minWidth: 0,
  padding: '3px 1px 0',
  fontSize: 14,
  whiteSpace: 'nowrap',
  cursor: 'pointer',
  flex: '1 0 auto',
};

import type { ComponentType, CSSProperties } from 'react';
import { ScrollView, View } from 'react-native';
import { Text } from 'react-native-paper';
import { coatTitle } from '@/core/piece/naming';
import { chosenCoat, photoFacetIds, useBench, type FacetId, type ReadyFacetId } from '@/store/bench';
import { useOwn } from '@/store/own';
import { SANS, SANS_MEDIUM, SERIF, useColours } from '../theme';
import { BlendFacet } from './facets/BlendFacet';
import { ContactFacet } from './facets/ContactFacet';
import { FrameFacet } from './facets/FrameFacet';
import { LayFacet } from './facets/LayFacet';
import { AddFacet, MaterialFacet } from './facets/MaterialFacet';
import { MoreFacet } from './facets/MoreFacet';
import { PhotoFacet } from './facets/PhotoFacet';
import { BalanceFacet } from './facets/BalanceFacet';
import { ColourFacet } from './facets/ColourFacet';
import { DetailFacet } from './facets/DetailFacet';
import { GuardsFacet } from './facets/GuardsFacet';
import { LensFacet } from './facets/LensFacet';
import { LightFacet } from './facets/LightFacet';
import { SpotsFacet } from './facets/SpotsFacet';
import { StartsFacet } from './facets/StartsFacet';
import { ToneFacet } from './facets/ToneFacet';
import { WhereFacet } from './facets/WhereFacet';

export const facets: { id: FacetId; label: string }[] = [
  { id: 'material', label: 'Material' },
  { id: 'lay', label: 'Lay' },
  { id: 'tone', label: 'Tone' },
  { id: 'where', label: 'Where' },
  { id: 'guards', label: 'Guards' },
  { id: 'blend', label: 'Blend' },
  { id: 'more', label: 'More' },
];

const readying: Record<ReadyFacetId, { label: string; Body: ComponentType }> = {
  frame: { label: 'Frame', Body: FrameFacet },
  lens: { label: 'Lens', Body: LensFacet },
  spots: { label: 'Spots', Body: SpotsFacet },
  balance: { label: 'Balance', Body: BalanceFacet },
  light: { label: 'Light', Body: LightFacet },
  colour: { label: 'Colour', Body: ColourFacet },
  detail: { label: 'Detail', Body: DetailFacet },
  starts: { label: 'Starts', Body: StartsFacet },
};
const photoFacets: { id: FacetId; label: string }[] = [
  ...photoFacetIds.map((id) => ({ id, label: readying[id].label })),
  { id: 'guards', label: 'Guards' },
  { id: 'more', label: 'All coats' },
];
const isReadying = (facet: FacetId): facet is ReadyFacetId => facet in readying;

/** Names of the facets of the chosen coat, or of the photo, one open at a time. */
export function FacetTabs({ open, wrap }: { open: FacetId | null; wrap?: boolean }) {
  const c = useColours();
  const { openFacet } = useBench.getState();
  const ofCoat = useBench((s) => s.chosen !== null);
  return (
    <div
      role="tablist"
      aria-label={ofCoat ? 'Facets of the coat' : 'Readying of the photo'}
      style={{ ...tabs, ...(wrap ? wrapped : null), background: c.chrome, borderTop: `1px solid ${c.line}` }}
    >
      {(ofCoat ? facets : photoFacets).map(({ id, label }) => {
        const on = open === id || (open === 'contact' && id === 'blend');
        return (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={on}
            onClick={() => openFacet(on ? null : id)}
            style={{
              ...tab,
              flexGrow: wrap ? 0 : 1,
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

/** What the open facet offers. */
export function FacetBody({ facet }: { facet: FacetId }) {
  const c = useColours();
  const coat = useBench(chosenCoat);
  const names = useOwn((s) => s.names);
  const Photo = isReadying(facet) ? readying[facet].Body : PhotoFacet;
  const title = facet === 'add' ? 'Lay a material' : coat ? coatTitle(coat, names) : 'The photo';
  return (
    <ScrollView style={{ flex: 1 }} contentContainerStyle={{ paddingHorizontal: 16, paddingBottom: 24 }} key={`${facet}-${coat?.id}`}>
      <Text role="heading" aria-level={2} style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink, paddingVertical: 8 }}>
        {title}
      </Text>
      <View>
        {facet === 'add' ? <AddFacet /> : null}
        {facet === 'guards' ? <GuardsFacet coat={coat} /> : null}
        {!coat && facet !== 'add' && facet !== 'guards' ? <Photo /> : null}
        {coat && facet === 'material' ? <MaterialFacet coat={coat} /> : null}
        {coat && facet === 'lay' ? <LayFacet coat={coat} /> : null}
        {coat && facet === 'tone' ? <ToneFacet coat={coat} /> : null}
        {coat && facet === 'where' ? <WhereFacet coat={coat} /> : null}
        {coat && facet === 'blend' ? <BlendFacet coat={coat} /> : null}
        {coat && facet === 'contact' ? <ContactFacet coat={coat} /> : null}
        {coat && facet === 'more' ? <MoreFacet coat={coat} /> : null}
      </View>
    </ScrollView>
  );
}

const tabs: CSSProperties = { display: 'flex', justifyContent: 'space-between', padding: '0 4px', overflowX: 'auto', flexShrink: 0 };
/** Beside the picture there is room for a second row; on a phone the row is pushed along. */
const wrapped: CSSProperties = { flexWrap: 'wrap', justifyContent: 'flex-start' };
const tab: CSSProperties = {
  border: 'none',
  background: 'none',
  minHeight: 48,
  minWidth: 44,
  padding: '3px 9px 0',
  fontSize: 15,
  cursor: 'pointer',
  flex: '1 0 auto',
};

import type { CSSProperties } from 'react';
import { ScrollView, View } from 'react-native';
import { Text } from 'react-native-paper';
import { coatTitle } from '@/core/piece/naming';
import { chosenCoat, useBench, type FacetId } from '@/store/bench';
import { useOwn } from '@/store/own';
import { SANS, SANS_MEDIUM, SERIF, useColours } from '../theme';
import { BlendFacet } from './facets/BlendFacet';
import { FrameFacet } from './facets/FrameFacet';
import { LayFacet } from './facets/LayFacet';
import { AddFacet, MaterialFacet } from './facets/MaterialFacet';
import { MoreFacet } from './facets/MoreFacet';
import { PhotoFacet } from './facets/PhotoFacet';
import { ReadyFacet } from './facets/ReadyFacet';
import { ToneFacet } from './facets/ToneFacet';
import { WhereFacet } from './facets/WhereFacet';

export const facets: { id: FacetId; label: string }[] = [
  { id: 'material', label: 'Material' },
  { id: 'lay', label: 'Lay' },
  { id: 'tone', label: 'Tone' },
  { id: 'where', label: 'Where' },
  { id: 'blend', label: 'Blend' },
  { id: 'more', label: 'More' },
];

const photoFacets: { id: FacetId; label: string }[] = [
  { id: 'frame', label: 'Frame' },
  { id: 'balance', label: 'Balance' },
  { id: 'light', label: 'Light' },
  { id: 'colour', label: 'Colour' },
  { id: 'more', label: 'All coats' },
];

/** Names of the facets of the chosen coat, or of the photo, one open at a time. */
export function FacetTabs({ open }: { open: FacetId | null }) {
  const c = useColours();
  const { openFacet } = useBench.getState();
  const ofCoat = useBench((s) => s.chosen !== null);
  return (
    <div
      role="tablist"
      aria-label={ofCoat ? 'Facets of the coat' : 'Readying of the photo'}
      style={{ ...tabs, background: c.chrome, borderTop: `1px solid ${c.line}` }}
    >
      {(ofCoat ? facets : photoFacets).map(({ id, label }) => {
        const on = open === id;
        return (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={on}
            onClick={() => openFacet(on ? null : id)}
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

const readying: FacetId[] = ['add', 'frame', 'balance', 'light', 'colour'];

/** What the open facet offers. */
export function FacetBody({ facet }: { facet: FacetId }) {
  const c = useColours();
  const coat = useBench(chosenCoat);
  const names = useOwn((s) => s.names);
  const title = facet === 'add' ? 'Lay a material' : coat ? coatTitle(coat, names) : 'The photo';
  return (
    <ScrollView style={{ flex: 1 }} contentContainerStyle={{ paddingHorizontal: 16, paddingBottom: 24 }} key={`${facet}-${coat?.id}`}>
      <Text role="heading" aria-level={2} style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink, paddingVertical: 8 }}>
        {title}
      </Text>
      <View>
        {facet === 'add' ? <AddFacet /> : null}
        {!coat && facet === 'frame' ? <FrameFacet /> : null}
        {!coat && (facet === 'balance' || facet === 'light' || facet === 'colour') ? <ReadyFacet step={facet} /> : null}
        {!coat && !readying.includes(facet) ? <PhotoFacet /> : null}
        {coat && facet === 'material' ? <MaterialFacet coat={coat} /> : null}
        {coat && facet === 'lay' ? <LayFacet coat={coat} /> : null}
        {coat && facet === 'tone' ? <ToneFacet coat={coat} /> : null}
        {coat && facet === 'where' ? <WhereFacet coat={coat} /> : null}
        {coat && facet === 'blend' ? <BlendFacet coat={coat} /> : null}
        {coat && facet === 'more' ? <MoreFacet coat={coat} /> : null}
      </View>
    </ScrollView>
  );
}

const tabs: CSSProperties = { display: 'flex', justifyContent: 'space-between', padding: '0 4px', overflowX: 'auto', flexShrink: 0 };
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

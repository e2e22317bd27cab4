import type { CSSProperties } from 'react';
import { ScrollView, View } from 'react-native';
import { Text } from 'react-native-paper';
import { coatTitle } from '@/core/piece/naming';
import { chosenCoat, useBench, type FacetId } from '@/store/bench';
import { useOwn } from '@/store/own';
import { SANS, SANS_MEDIUM, SERIF, useColours } from '../theme';
import { BlendFacet } from './facets/BlendFacet';
import { LayFacet } from './facets/LayFacet';
import { AddFacet, MaterialFacet } from './facets/MaterialFacet';
import { MoreFacet } from './facets/MoreFacet';
import { PhotoFacet } from './facets/PhotoFacet';
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

/** Names of the facets of the chosen coat, one open at a time. */
export function FacetTabs({ open }: { open: FacetId | null }) {
  const c = useColours();
  const { openFacet } = useBench.getState();
  return (
    <div role="tablist" aria-label="Facets of the coat" style={{ ...tabs, background: c.chrome, borderTop: `1px solid ${c.line}` }}>
      {facets.map(({ id, label }) => {
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
        {facet !== 'add' && !coat ? <PhotoFacet /> : null}
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

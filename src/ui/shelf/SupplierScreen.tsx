import { router } from 'expo-router';
import { useEffect, type CSSProperties } from 'react';
import { View } from 'react-native';
import { ActivityIndicator, Text } from 'react-native-paper';
import { useOwn } from '@/store/own';
import { previewOf, useSupplier, type SupplierPack } from '@/store/supplier';
import { Act } from '../kit/Act';
import { Page } from '../kit/Page';
import { Progress } from '../kit/Progress';
import { SERIF, useColours } from '../theme';
import { words } from '../words';

/** Packs of the made-up supplier, to look at and to fetch onto the shelf. */
export function SupplierScreen() {
  const c = useColours();
  const { packs, wrong, asking, refresh } = useSupplier();
  useEffect(() => void refresh(), [refresh]);
  const back = () => (router.canGoBack() ? router.back() : router.replace('/materials'));
  return (
    <Page title={words.supplier.theSupplier} back={{ label: words.common.back, go: back }}>
      <Text style={{ color: c.ink }}>{words.supplier.about}</Text>
      {asking && !packs ? (
        <View role="status" style={{ flexDirection: 'row', gap: 12, alignItems: 'center' }}>
          <ActivityIndicator color={c.accent} />
          <Text style={{ color: c.ink }}>{words.supplier.loading}</Text>
        </View>
      ) : null}
      {wrong ? (
        <View role="alert" style={{ gap: 12, alignItems: 'flex-start' }}>
          <Text style={{ color: c.ink }}>{wrong}</Text>
          <Act main onPress={() => void refresh()}>
            {words.supplier.tryAgain}
          </Act>
        </View>
      ) : null}
      <div style={grid}>
        {packs?.map((pack) => (
          <PackCard key={pack.id} pack={pack} />
        ))}
      </div>
    </Page>
  );
}

function PackCard({ pack }: { pack: SupplierPack }) {
  const c = useColours();
  const { coming, fetched, fetchPack, stop } = useSupplier();
  const busy = useOwn((s) => s.busy);
  const here = coming?.id === pack.id;
  const size = words.supplier.size(pack.pictures, (pack.bytes / 1e6).toFixed(1));
  return (
    <View role="group" aria-label={pack.name} style={{ gap: 8 }}>
      <img src={previewOf(pack)} alt="" style={{ ...preview, background: c.card }} />
      <Text role="heading" aria-level={2} style={{ fontFamily: SERIF, fontSize: 18, color: c.ink }}>
        {pack.name}
      </Text>
      <Text style={{ color: c.ink }}>{pack.says}</Text>
      <Text style={{ color: c.quiet }}>{`${pack.maker}. ${pack.licence}. ${size}.`}</Text>
      {here ? (
        <View role="status" style={{ gap: 6 }}>
          <Progress share={coming.share} label={pack.name} />
          <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
            <Text style={{ color: c.ink }}>{words.supplier.downloaded(Math.round(coming.share * 100))}</Text>
            <Act plain onPress={stop}>
              {words.common.stop}
            </Act>
          </View>
        </View>
      ) : (
        <View style={{ flexDirection: 'row' }}>
          <Act disabled={coming !== null || busy !== null} onPress={() => void fetchPack(pack)}>
            {fetched.includes(pack.id) ? words.supplier.downloadAgain : words.supplier.download}
          </Act>
        </View>
      )}
    </View>
  );
}

const grid: CSSProperties = { display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(300px, 1fr))', gap: '28px 24px' };
const preview: CSSProperties = { width: '100%', aspectRatio: '3', objectFit: 'cover', borderRadius: 2, display: 'block' };

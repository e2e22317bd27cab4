import { router } from 'expo-router';
import { useCallback, useEffect, useState } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { SourceInput } from '@/core/piece/edits';
import { getEngine } from '@/store/engine';
import { PICTURES, pickFiles } from '@/store/files';
import { complain } from '@/store/notices';
import { bringIn, stopBringing, useOwn } from '@/store/own';
import { Act } from '../kit/Act';
import { Acts } from '../kit/Acts';
import { MaterialGrid } from '../kit/MaterialGrid';
import { Page } from '../kit/Page';
import { Progress } from '../kit/Progress';
import { useDrop } from '../kit/useDrop';
import { useColours } from '../theme';
import { MaterialDialog } from './MaterialDialog';
import { PackDialog } from './PackDialog';
import { words } from '../words';

export const PICTURES_AND_PACKS = `${PICTURES},application/zip,.zip`;

/** The library of materials, in families, with live pictures; a material can be looked at closely and laid on the open piece. */
export function ShelfScreen() {
  const { width } = useWindowDimensions();
  const [looking, setLooking] = useState<SourceInput | null>(null);
  const [packing, setPacking] = useState(false);
  const refresh = useOwn((s) => s.refresh);
  const some = useOwn((s) => s.list.length > 0);
  useEffect(() => void refresh().catch(complain), [refresh]);
  // Started now, so that a material that is looked at closely, or brought in, need not wait for it.
  useEffect(() => void getEngine().catch(complain), []);
  const take = useCallback((files: File[]) => void bringIn(files), []);
  useDrop(take);
  const back = () => (router.canGoBack() ? router.back() : router.replace('/'));
  return (
    <Page
      title={words.common.shelf}
      back={{ label: words.common.back, go: back }}
      aside={
        <Act icon="image-plus" onPress={() => void pickFiles(PICTURES_AND_PACKS, true).then(take)}>
          {words.shelf.importPictures}
        </Act>
      }
    >
      <Busy />
      <Acts>
        <Act onPress={() => router.push('/packs')}>{words.shelf.lookAtTheSuppliersPacks}</Act>
        {some ? <Act onPress={() => setPacking(true)}>{words.common.exportPack}</Act> : null}
      </Acts>
      <MaterialGrid size={width < 700 ? 104 : 156} onChoose={setLooking} />
      <MaterialDialog key={looking ? JSON.stringify(looking) : ''} source={looking} onClose={() => setLooking(null)} />
      {packing ? <PackDialog onClose={() => setPacking(false)} /> : null}
    </Page>
  );
}

/** What is being brought in, and a way to stop. */
function Busy() {
  const c = useColours();
  const busy = useOwn((s) => s.busy);
  if (!busy) return null;
  return (
    <View role="status" style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <Text style={{ color: c.ink, flex: 1 }}>{words.shelf.importingOf(busy.done + 1, busy.total)}</Text>
        <Act plain onPress={stopBringing}>
          {words.common.stop}
        </Act>
      </View>
      <Progress share={(busy.done + 0.5) / busy.total} label={words.shelf.importing} />
    </View>
  );
}

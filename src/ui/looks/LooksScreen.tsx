import { router } from 'expo-router';
import { useEffect } from 'react';
import { Text } from 'react-native-paper';
import { useLooks } from '@/store/looks';
import { complain } from '@/store/notices';
import { useOwn } from '@/store/own';
import { Act } from '../kit/Act';
import { Acts } from '../kit/Acts';
import { Page } from '../kit/Page';
import { useColours } from '../theme';
import { words } from '../words';
import { importLook } from './importLook';
import { OwnLookList } from './OwnLookList';

/** The looks that the person has kept or brought in. */
export function LooksScreen() {
  const c = useColours();
  const { own, shipped, refresh } = useLooks();
  useEffect(() => {
    void refresh().catch(complain);
    void useOwn.getState().refresh().catch(complain);
  }, [refresh]);
  const back = () => (router.canGoBack() ? router.back() : router.replace('/'));
  return (
    <Page title={words.ownLooks.yourLooks} back={{ label: words.common.back, go: back }}>
      <Text style={{ color: c.quiet }}>{own.length === 0 ? words.ownLooks.none : words.ownLooks.aLookHoldsTheCoats}</Text>
      <Acts>
        <Act main={own.length === 0} onPress={() => void importLook().catch(complain)}>
          {words.ownLooks.importALook}
        </Act>
      </Acts>
      <OwnLookList large />
      {shipped ? <Text style={{ color: c.quiet }}>{words.ownLooks.othersShip(shipped.length)}</Text> : null}
    </Page>
  );
}

import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { complain } from '@/store/notices';
import { usePieces } from '@/store/pieces';
import { samples } from '@/store/samples';
import { KeysList } from '../bench/KeysList';
import { Act } from '../kit/Act';
import { Fold } from '../kit/Fold';
import { Page } from '../kit/Page';
import { SANS, SERIF, useColours } from '../theme';
import { guide } from './guide';
import { words } from '../words';
import { works, type Work } from './works';

/** How a work was made, and its sample to take apart. */
function WorkedExample({ work: { title, steps, sample } }: { work: Work }) {
  const c = useColours();
  const [busy, setBusy] = useState(false);
  const found = samples.find(({ id }) => id === sample);
  const open = async () => {
    if (!found) return;
    setBusy(true);
    try {
      router.navigate(`/piece/${await usePieces.getState().createSample(found)}`);
    } catch (error) {
      complain(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Fold title={title}>
      <View style={{ gap: 8 }}>
        <ol style={{ margin: 0, paddingLeft: 22, color: c.ink, fontFamily: SANS, fontSize: 16, lineHeight: '23px' }}>
          {steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
        <View style={{ flexDirection: 'row' }}>
          <Act disabled={busy} accessibilityLabel={words.help.openSampleNamed(found?.name ?? '')} onPress={() => void open()}>
            {words.help.openSample}
          </Act>
        </View>
      </View>
    </Fold>
  );
}

/** The guide with its pictures, worked examples, and the keys. */
export function HelpScreen() {
  const c = useColours();
  const back = () => (router.canGoBack() ? router.back() : router.replace('/'));
  const heading = (text: string) => (
    <Text role="heading" aria-level={2} style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink }}>
      {text}
    </Text>
  );
  return (
    <Page title={words.common.help} isText back={{ label: words.common.back, go: back }}>
      <View style={{ maxWidth: 680, gap: 20 }}>
        {guide.map(({ title, text, picture }, i) => (
          <View key={title} style={{ gap: 6 }}>
            {heading(`${i + 1}. ${title}`)}
            <Text style={{ color: c.ink, fontSize: 16, lineHeight: 23 }}>{text}</Text>
            {picture ? (
              <img
                src={`/guide/${picture.file}`}
                alt={picture.alt}
                loading="lazy"
                style={{ maxWidth: '100%', maxHeight: 420, objectFit: 'contain', objectPosition: 'left', border: `1px solid ${c.line}` }}
              />
            ) : null}
          </View>
        ))}
        {heading(words.help.works)}
        <View>
          {works.map((work) => (
            <WorkedExample key={work.sample} work={work} />
          ))}
        </View>
        {heading(words.common.keys)}
        <View>
          <KeysList />
        </View>
      </View>
    </Page>
  );
}

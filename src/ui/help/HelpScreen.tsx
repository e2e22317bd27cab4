import { router } from 'expo-router';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { KeysList } from '../bench/KeysList';
import { Page } from '../kit/Page';
import { SERIF, useColours } from '../theme';
import { guide } from './guide';
import { words } from '../words';

/** The guide with its pictures, and the keys. */
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
        {heading(words.common.keys)}
        <View>
          <KeysList />
        </View>
      </View>
    </Page>
  );
}

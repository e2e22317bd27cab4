import { Stack } from 'expo-router';
import { Suspense, useEffect } from 'react';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { whenTemporary } from '@/store/database';
import { say } from '@/store/notices';
import { keepForOffline } from '@/store/offline';
import { useSettings } from '@/store/settings';
import { Icon, type IconProps } from './kit/Icon';
import { useLanding } from './kit/landing';
import { darkTheme, lightTheme } from './theme';
import { words } from './words';

keepForOffline();
whenTemporary(() => say(words.shell.thisBrowserKeepsNothingFor, { lasting: true }));

const settings = { icon: (props: IconProps) => <Icon {...props} /> };

/** What lies round every screen: theme, icons, and where a screen's code is fetched. */
export default function Shell() {
  const system = useColorScheme();
  const wanted = useSettings((s) => s.theme);
  const isDark = wanted === 'system' ? system === 'dark' : wanted === 'dark';
  const theme = isDark ? darkTheme : lightTheme;
  useLanding();
  useEffect(() => {
    document.documentElement.dataset.theme = isDark ? 'dark' : 'light';
    document.body.style.background = theme.dx.chrome;
  }, [isDark, theme]);
  return (
    <PaperProvider theme={theme} settings={settings}>
      <Suspense fallback={null}>
        <Stack screenOptions={{ headerShown: false, animation: 'none', contentStyle: { backgroundColor: theme.dx.chrome } }} />
      </Suspense>
    </PaperProvider>
  );
}

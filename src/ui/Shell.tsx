import { Alegreya_500Medium } from '@expo-google-fonts/alegreya/500Medium';
import { Mukta_400Regular } from '@expo-google-fonts/mukta/400Regular';
import { Mukta_500Medium } from '@expo-google-fonts/mukta/500Medium';
import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import { useFonts } from 'expo-font';
import { Stack } from 'expo-router';
import { useEffect } from 'react';
import { useColorScheme, View } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { whenTemporary } from '@/store/database';
import { say } from '@/store/notices';
import { useSettings } from '@/store/settings';
import { darkTheme, lightTheme } from './theme';

whenTemporary(() =>
  say('This browser keeps nothing for this page: your work lives in this tab only. Export it before you close the tab.', { lasting: true }),
);

const settings = { icon: (props: { name: string; color?: string; size: number }) => <Icon {...props} /> };

/** What lies round every screen: fonts and theme. */
export default function Shell() {
  const [loaded] = useFonts({ Alegreya_500Medium, Mukta_400Regular, Mukta_500Medium });
  const system = useColorScheme();
  const wanted = useSettings((s) => s.theme);
  const isDark = wanted === 'system' ? system === 'dark' : wanted === 'dark';
  const theme = isDark ? darkTheme : lightTheme;
  useEffect(() => {
    document.documentElement.dataset.theme = isDark ? 'dark' : 'light';
    document.body.style.background = theme.dx.chrome;
  }, [isDark, theme]);
  if (!loaded) return null;
  return (
    <PaperProvider theme={theme} settings={settings}>
      <Stack screenOptions={{ headerShown: false, animation: 'none', contentStyle: { backgroundColor: theme.dx.chrome } }} />
    </PaperProvider>
  );
}

/** Icons say nothing that the words beside them do not. */
function Icon({ name, color, size }: { name: string; color?: string; size: number }) {
  return (
    <View aria-hidden style={{ width: size, height: size }}>
      <MaterialCommunityIcons name={name as keyof typeof MaterialCommunityIcons.glyphMap} color={color} size={size} role="none" />
    </View>
  );
}

import type { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { IconButton, Text } from 'react-native-paper';
import { SERIF, useColours } from '../theme';
import { Notices } from './Notices';

interface PageProps {
  title: string;
  back?: { label: string; go(): void };
  aside?: ReactNode;
  /** A page to read, without controls: it takes the keyboard itself, so that arrows scroll it. */
  isText?: boolean;
  /** What it shows fills the screen instead of being scrolled. */
  fills?: boolean;
  children: ReactNode;
}

/** A screen that scrolls under its title. */
export function Page({ title, back, aside, isText, fills, children }: PageProps) {
  const c = useColours();
  return (
    <View style={{ flex: 1, backgroundColor: c.chrome }}>
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          minHeight: 56,
          paddingHorizontal: back ? 4 : 16,
          borderBottomWidth: 1,
          borderBottomColor: c.line,
        }}
      >
        {back ? (
          <IconButton
            icon="arrow-left"
            size={22}
            iconColor={c.ink}
            aria-label={back.label}
            onPress={back.go}
            style={{ margin: 0, width: 44, height: 44 }}
          />
        ) : null}
        <Text role="heading" aria-level={1} style={{ fontFamily: SERIF, fontSize: 24, lineHeight: 30, color: c.ink, flexShrink: 1 }}>
          {title}
        </Text>
        <View style={{ flex: 1 }} />
        {aside}
      </View>
      {fills ? (
        <View style={{ flex: 1, minHeight: 0 }}>{children}</View>
      ) : (
        <ScrollView
          {...(isText ? { tabIndex: 0 } : {})}
          contentContainerStyle={{ padding: 16, paddingBottom: 48, width: '100%', maxWidth: 1240, alignSelf: 'center', gap: 16 }}
        >
          {children}
        </ScrollView>
      )}
      <Notices />
    </View>
  );
}

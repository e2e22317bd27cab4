import type { ComponentProps } from 'react';
import { Button } from 'react-native-paper';
import { useColours } from '../theme';

type Props = Omit<ComponentProps<typeof Button>, 'mode' | 'children'> & { children: string; main?: boolean; plain?: boolean };

/** A button that says in words what happens. `main` is the one thing to do first on a screen. */
export function Act({ main, plain, style, contentStyle, labelStyle, ...rest }: Props) {
  const c = useColours();
  return (
    <Button
      mode={main ? 'contained' : plain ? 'text' : 'outlined'}
      textColor={main ? c.onAccent : c.ink}
      style={[{ borderRadius: 2, borderColor: c.quiet }, style]}
      contentStyle={[{ minHeight: 44 }, contentStyle]}
      labelStyle={[{ marginHorizontal: 14, marginVertical: 6, letterSpacing: 0 }, rest.icon ? { marginLeft: 22 } : null, labelStyle]}
      {...rest}
    />
  );
}

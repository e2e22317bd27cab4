import { Text } from 'react-native-paper';
import { useColours } from '../../theme';

/** Says why a facet has nothing to offer here. */
export function Idle({ children }: { children: string }) {
  const c = useColours();
  return <Text style={{ color: c.quiet, paddingVertical: 12 }}>{children}</Text>;
}

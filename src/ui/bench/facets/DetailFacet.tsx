import { View } from 'react-native';
import { ReadyStep } from './ReadyStep';

/** Detail that is to stand up to a texture, and noise that is not. */
export function DetailFacet() {
  return (
    <View>
      <ReadyStep field="localContrast" />
      <ReadyStep field="noise" fold begin />
    </View>
  );
}

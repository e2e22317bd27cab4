import { View } from 'react-native';
export default function Screen() {
  return <View />;
}

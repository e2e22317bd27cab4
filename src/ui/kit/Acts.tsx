import type { ReactNode } from 'react';
import { View } from 'react-native';

/** Buttons side by side, in as many rows as they need. */
export const Acts = ({ children }: { children: ReactNode }) => <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>{children}</View>;

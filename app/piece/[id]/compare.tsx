import { useLocalSearchParams } from 'expo-router';
import { lazy } from 'react';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

const CompareScreen = lazy(() => import('@/ui/compare/CompareScreen').then((m) => ({ default: m.CompareScreen })));

export default function Compare() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <CompareScreen id={id} />;
}

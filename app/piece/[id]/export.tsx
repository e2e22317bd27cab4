import { useLocalSearchParams } from 'expo-router';
import { lazy } from 'react';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

const ExportScreen = lazy(() => import('@/ui/export/ExportScreen').then((m) => ({ default: m.ExportScreen })));

export default function Export() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ExportScreen id={id} />;
}

import { useLocalSearchParams } from 'expo-router';
import { ExportScreen } from '@/ui/export/ExportScreen';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

export default function Export() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ExportScreen id={id} />;
}

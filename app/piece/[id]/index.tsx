import { useLocalSearchParams } from 'expo-router';
import { BenchScreen } from '@/ui/bench/BenchScreen';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

export default function Bench() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <BenchScreen id={id} />;
}

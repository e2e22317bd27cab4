import { lazy } from 'react';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

export default lazy(() => import('@/ui/batch/BatchScreen').then((m) => ({ default: m.BatchScreen })));

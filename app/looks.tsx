import { lazy } from 'react';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

export default lazy(() => import('@/ui/looks/LooksScreen').then((m) => ({ default: m.LooksScreen })));

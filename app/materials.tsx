import { lazy } from 'react';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

export default lazy(() => import('@/ui/shelf/ShelfScreen').then((m) => ({ default: m.ShelfScreen })));

import { lazy } from 'react';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

export default lazy(() => import('@/ui/shelf/SupplierScreen').then((m) => ({ default: m.SupplierScreen })));

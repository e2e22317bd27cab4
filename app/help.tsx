import { lazy } from 'react';
export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';

export default lazy(() => import('@/ui/help/HelpScreen').then((m) => ({ default: m.HelpScreen })));

export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';
export { default } from '@/ui/Shell';

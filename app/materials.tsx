export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';
export { ShelfScreen as default } from '@/ui/shelf/ShelfScreen';

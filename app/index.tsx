export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';
export { PiecesScreen as default } from '@/ui/pieces/PiecesScreen';

export { FailedScreen as ErrorBoundary } from '@/ui/FailedScreen';
export { SupplierScreen as default } from '@/ui/shelf/SupplierScreen';

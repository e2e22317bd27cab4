export { SupplierScreen as default } from '@/ui/shelf/SupplierScreen';

export { ShelfScreen as default } from '@/ui/shelf/ShelfScreen';

export { PiecesScreen as default } from '@/ui/pieces/PiecesScreen';

export { default } from '@/ui/Shell';

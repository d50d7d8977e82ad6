export { StandScreen as default } from '@/features/stand';

export { ReedsScreen as default } from '@/features/bench';

export { LimitsScreen as default } from '@/features/bench';

export { SettingsScreen as default } from '@/features/bench';

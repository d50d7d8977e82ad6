export { ExerciseScreen as default } from '@/features/library';

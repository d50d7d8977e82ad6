export { COURSE_START, takeCourse, type Course, type CourseOutcome, type Teacher } from './course';
export { Learner, LEARNER_KINDS, type LearnerKind } from './learner';

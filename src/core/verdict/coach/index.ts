export { advise, nextTempo, ruleFor, SCHOOLS, type Advice, type Evidence, type Remedy } from './advise';
export { RULES, type Rule, type School } from './rules';

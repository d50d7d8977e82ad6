export { advise, nextTempo, ruleFor, type Advice, type Evidence, type Remedy } from './advise';
export { RULES, type Rule, type School } from './rules';
export { SCHOOLS } from './schools';

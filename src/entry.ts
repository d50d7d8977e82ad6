import './worker/withoutEval';
import './ui/knownRules';
import 'expo-router/entry';

import './worker/withoutEval';
import 'expo-router/entry';

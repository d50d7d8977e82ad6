import { StyleSheet, TextInput } from 'react-native';
import { fonts, usePalette } from './theme';

interface FieldProps {
  /** What it is for, read aloud. */
  readonly label: string;
  readonly placeholder: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly onBlur?: () => void;
  /** Several lines. */
  readonly long?: boolean;
  readonly most?: number;
}

/** A text that the player writes. */
export function Field({ label, placeholder, value, onChange, onBlur, long = false, most }: FieldProps) {
  const palette = usePalette();
  return (
    <TextInput
      aria-label={label}
      placeholder={placeholder}
      placeholderTextColor={palette.softInk}
      value={value}
      onChangeText={onChange}
      onBlur={onBlur}
      multiline={long}
      maxLength={most}
      style={[
        styles.field,
        long && styles.long,
        { borderColor: palette.hairline, color: palette.ink, backgroundColor: palette.leaf },
      ]}
    />
  );
}

const styles = StyleSheet.create({
  field: {
    minHeight: 48,
    borderWidth: 1,
    borderRadius: 14,
    paddingHorizontal: 14,
    fontFamily: fonts.text,
    fontSize: 17,
  },
  long: { minHeight: 76, borderRadius: 16, padding: 14 },
});

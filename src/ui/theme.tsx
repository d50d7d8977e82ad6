import { createContext, useContext, type ReactNode } from 'react';
import { useColorScheme, useWindowDimensions } from 'react-native';

/** Paper, ink and gold. `goldText` is gold dark (or light) enough to be read. */
export interface Palette {
  readonly dark: boolean;
  readonly paper: string;
  readonly leaf: string;
  readonly ink: string;
  readonly softInk: string;
  readonly hairline: string;
  readonly gold: string;
  readonly goldText: string;
  readonly onGold: string;
  readonly slate: string;
}

export const paper: Palette = {
  dark: false,
  paper: '#F4EDDF',
  leaf: '#FBF7EE',
  ink: '#241D15',
  softInk: '#6B5E4C',
  hairline: '#D9CCB4',
  gold: '#B07A14',
  goldText: '#80560A',
  onGold: '#191309',
  slate: '#2F5266',
};

export const stage: Palette = {
  dark: true,
  paper: '#15120E',
  leaf: '#1E1A15',
  ink: '#F0E6D2',
  softInk: '#B4A68E',
  hairline: '#3A332A',
  gold: '#E3B04B',
  goldText: '#E9BC62',
  onGold: '#15120E',
  slate: '#8FB8CC',
};

/** The machine's own stand in until they come: see scripts/fonts.mjs. */
export const fonts = {
  display: 'YoungSerif_400Regular, serif',
  text: 'AlegreyaSans_400Regular, sans-serif',
  medium: 'AlegreyaSans_500Medium, sans-serif',
  bold: 'AlegreyaSans_700Bold, sans-serif',
} as const;

const WIDE = 900;
/** Screens lower than this and wider than high are a phone laid on its side. */
const LOW = 520;

const PaletteContext = createContext<Palette>(paper);

export function PaletteProvider({ palette, children }: { palette: Palette; children: ReactNode }) {
  return <PaletteContext.Provider value={palette}>{children}</PaletteContext.Provider>;
}

export const usePalette = () => useContext(PaletteContext);

export function useThemePalette(theme: 'system' | 'paper' | 'stage'): Palette {
  const system = useColorScheme();
  if (theme === 'system') return system === 'dark' ? stage : paper;
  return theme === 'stage' ? stage : paper;
}

/** What the window allows: two panes when wide, everything flatter when low. */
export function useShape(): { wide: boolean; low: boolean; width: number; height: number } {
  const { width, height } = useWindowDimensions();
  return { wide: width >= WIDE && height >= LOW, low: height < LOW && width > height, width, height };
}

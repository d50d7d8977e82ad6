import type { ReactNode } from 'react';
import { PAPER_WIDTH } from './notation/paper';
import { fonts } from './theme';

/** Ink on white, and nothing but the sheet when it is printed; the app's own frame scrolls inside itself, a sheet must not. */
export const SHEET_STYLE = `
  .sheet { background: #fff; color: #000; min-height: 100vh; padding: 28px; box-sizing: border-box; font-family: ${fonts.text}, sans-serif; }
  .sheet h1 { font-family: ${fonts.display}, serif; font-weight: 400; font-size: 28px; margin: 0 0 2px; }
  .sheet h2 { font-family: ${fonts.display}, serif; font-weight: 400; font-size: 19px; margin: 18px 0 2px; }
  .sheet p, .sheet li, .sheet td { font-size: 15px; line-height: 1.4; margin: 6px 0; }
  .sheet > p { max-width: ${PAPER_WIDTH}px; }
  .sheet ul { margin: 4px 0; padding-left: 20px; }
  .sheet .keys { display: flex; flex-wrap: wrap; gap: 12px; margin-bottom: 18px; }
  .sheet button, .sheet select { font: 17px ${fonts.bold}, sans-serif; min-height: 48px; padding: 0 20px; border: 1px solid #444; border-radius: 14px; background: #fff; color: #000; }
  html, body, #root { height: auto; overflow: visible; }
  .music-on-paper svg { max-width: 100%; height: auto; }
  @media print {
    .sheet { padding: 0; } .sheet .keys, .sheet audio { display: none; }
    .sheet h1, .sheet h2, .sheet h1 + p { break-after: avoid; } .sheet p { break-inside: avoid; }
    @page { margin: 15mm; @bottom-center { content: counter(page) " / " counter(pages); font: 11px ${fonts.text}, sans-serif; } }
  }
`;

interface SheetProps {
  readonly title: string;
  readonly onBack: () => void;
  /** Keys besides Print and Back; they are not printed. */
  readonly keys?: ReactNode;
  readonly children: ReactNode;
}

/** A page to be printed. */
export function Sheet({ title, onBack, keys, children }: SheetProps) {
  return (
    <div className="sheet" role="main">
      <style>{SHEET_STYLE}</style>
      <div className="keys">
        <button onClick={() => window.print()}>Print</button>
        {keys}
        <button onClick={onBack}>Back</button>
      </div>
      <h1>{title}</h1>
      {children}
    </div>
  );
}

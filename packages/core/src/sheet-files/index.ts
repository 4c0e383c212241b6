export { writePdf, type SheetFonts } from './pdf.ts';

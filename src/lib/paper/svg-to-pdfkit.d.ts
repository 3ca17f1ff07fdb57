declare module 'svg-to-pdfkit' {
  /** Draws an SVG into the page in hand. */
  export default function SVGtoPDF(
    doc: PDFKit.PDFDocument,
    svg: string,
    x: number,
    y: number,
    options: {
      readonly assumePt?: boolean;
      readonly precision?: number;
      readonly width?: number;
      readonly height?: number;
      readonly fontCallback?: (family: string) => string;
    },
  ): void;
}

/**
 * A document of paper as a PDF: the same pictures as on the screen, drawn by pdfkit, with the letters that occur embedded, headings and
 * figures tagged, and an outline.
 */
import PDFDocument from 'pdfkit';
import { draw, type Embedded } from './drawing';
import { FRAME, type Page, type PaperDocument } from './page';
import type { Placed } from './paginate';

/** Writes the file. */
export async function writePdf({ title, author, pages }: PaperDocument): Promise<Uint8Array> {
  const doc = new PDFDocument({
    autoFirstPage: false,
    pdfVersion: '1.7',
    lang: 'en',
    tagged: true,
    displayTitle: true,
    margin: 0,
    info: { Title: title, Author: author, Creator: 'Key Path' },
  });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve);
    doc.on('error', reject);
  });
  const faces: Embedded = new Set();
  const root = doc.struct('Document');
  doc.addStructure(root);
  let sheet: { name: string; item: PDFKit.PDFOutline } | undefined;
  for (const page of pages) {
    doc.addPage({ size: [page.width, page.height], margin: 0 });
    const section = doc.struct('Sect');
    root.add(section);
    for (const at of page.placed) {
      drawBlock(doc, section, at, faces);
      const { outline, says, inOutline = says } = at.block;
      if (outline === 1)
        sheet = { name: page.sheet, item: doc.outline.addItem(`${page.sheet}: ${inOutline}`) };
      else if (outline === 2) (sheet?.item ?? doc.outline).addItem(inOutline);
    }
    section.end();
    drawFoot(doc, page, faces);
  }
  root.end();
  doc.end();
  await ended;
  return new Uint8Array(Buffer.concat(chunks));
}

function drawBlock(
  doc: PDFKit.PDFDocument,
  section: PDFKit.PDFStructureElement,
  { block, y }: Placed,
  faces: Embedded,
): void {
  const { tag, says, drawn } = block;
  if (drawn.length === 0) return;
  section.add(
    doc.struct(tag, tag === 'Figure' ? { alt: says } : {}, [
      () => draw(doc, drawn, FRAME.x, FRAME.y + y, faces),
    ]),
  );
}

/** What stands at the foot of every page is not part of what is read. */
function drawFoot(doc: PDFKit.PDFDocument, { foot }: Page, faces: Embedded): void {
  doc.markContent('Artifact', { type: 'Pagination' });
  draw(doc, foot, 0, 0, faces);
  doc.endMarkedContent();
}

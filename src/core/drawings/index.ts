/**
 * Drawings at true size, as lists of lines, areas, arcs and words in
 * millimetres: what is drawn is told once, and written as SVG (`svg.ts`) or
 * whatever else is to show it.
 */
export {
  areaMark,
  checkBar,
  CHECK_BAR_MM,
  circleMark,
  FILLS,
  LETTER_RATIO,
  LINES,
  lineMark,
  markBox,
  ofThing,
  onCircle,
  shifted,
  textMark,
  widthOf,
  type Anchor,
  type Box,
  type Drawing,
  type FillRole,
  type LineRole,
  type Mark,
  type Of,
  type Place,
  type Tone,
} from './drawing';
export { boxesMeet, crosses, discMeets, labelled, segmentsOf, type Wish } from './labels';
export { dimensionMarks } from './dimension';
export { arcPath, drawingSvg, headsOf, pathOf, turnOf } from './svg';
export { cornerLetter, TEMPLATE_MARGIN_MM, templateDrawing, templateOutline, type TemplateSheet } from './template';
export { OVERLAP_MM, tilesOf, type Tile } from './tiles';
export { stripDrawing, stripPieces, type Strip } from './strip';

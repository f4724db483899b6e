export { BeforeMeasuring } from "./BeforeMeasuring";
export { shelfOf } from "./InstrumentPicker";
export { MeasuredDrawing } from "./MeasuredDrawing";
export {
  frameQuantity,
  HEIGHT_KINDS,
  LENGTH_KINDS,
  pieceQuantities,
  type Quantity,
  SLOPE_KINDS,
  spanQuantities,
  usualTape,
} from "./quantities";
export { nextUnread, ReadingPad } from "./ReadingPad";
export { RoundTabs } from "./RoundTabs";
export { SomethingElse } from "./SomethingElse";
export { useMore } from "./useMore";
export { useRounds } from "./useRounds";

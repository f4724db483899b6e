export * from "./FitTable";
export * from "./InstrumentPicker";
export * from "./MeasuredDrawing";
export * from "./quantities";
export { nextUnread, ReadingPad, valueText } from "./ReadingPad";
export * from "./RoundTabs";
export * from "./useMore";
export * from "./useRounds";

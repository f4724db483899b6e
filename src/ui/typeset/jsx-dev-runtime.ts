/** As `jsx-runtime`, for development: without React's notes of where an element was written. */
import { jsx } from "./jsx-runtime";

export { Fragment, type JSX } from "./jsx-runtime";
export const jsxDEV = jsx;

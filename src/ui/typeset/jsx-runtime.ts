/**
 * How elements are made here: as React makes them, with every text set so that no figure is parted from its unit. Named
 * in tsconfig.json as the source of JSX, so that it holds for everything that is said on a page.
 */
import { Fragment, jsx as make, jsxs as makeMany } from "react/jsx-runtime";
import { allHeldTogether, heldTogether } from "./figures";

export type { JSX } from "react/jsx-runtime";
export { Fragment };

/** Elements whose text is no running text. */
const AS_TYPED = new Set(["option", "textarea", "title", "style", "script", "code", "pre", "text", "tspan"]);

type Make = typeof make;
type Props = { children?: unknown };

/** Properties with the texts among the children set. */
const set = (type: unknown, props: unknown): unknown => {
  if (typeof type !== "string" && type !== Fragment) return props;
  if (typeof type === "string" && AS_TYPED.has(type)) return props;
  const { children } = props as Props;
  if (typeof children === "string") {
    const text = heldTogether(children);
    return text === children ? props : { ...(props as object), children: text };
  }
  return Array.isArray(children) ? { ...(props as object), children: allHeldTogether(children) } : props;
};

export const jsx: Make = (type, props, key) => make(type, set(type, props), key);
export const jsxs: Make = (type, props, key) => makeMany(type, set(type, props), key);

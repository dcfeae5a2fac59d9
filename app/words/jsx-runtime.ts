import { type ElementType, type Key, type ReactElement } from "react";
import * as react from "react/jsx-runtime";
import { speakProps } from "./speak-props";

export { Fragment } from "react/jsx-runtime";
export type { JSX } from "react/jsx-runtime";

export const jsx = (type: ElementType, props: unknown, key?: Key): ReactElement =>
  react.jsx(type, speakProps(props), key);
export const jsxs = (type: ElementType, props: unknown, key?: Key): ReactElement =>
  react.jsxs(type, speakProps(props), key);

import { type ElementType, type Key, type ReactElement } from "react";
import * as react from "react/jsx-dev-runtime";
import { speakProps } from "./speak-props";

export { Fragment } from "react/jsx-dev-runtime";
export type { JSX } from "react/jsx-dev-runtime";

export const jsxDEV = (
  type: ElementType,
  props: unknown,
  key: Key | undefined,
  isStatic: boolean,
  source?: react.JSXSource,
  self?: unknown,
): ReactElement => react.jsxDEV(type, speakProps(props), key, isStatic, source, self);

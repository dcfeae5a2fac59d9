import { type KeyboardEvent, type MouseEvent, type PointerEvent, useRef } from "react";
import { type BuretteMarks, scaleHeight, top } from "./burette-glass";
import { useSay } from "../words/text";

/** The column as a slider: drawn with the finger or the mouse, stepped by drops from the keyboard. */
export function useSlider({ capacityMl, decimals, start, onMove }: BuretteMarks, level: number | null) {
  const moving = useRef(false);
  const say = useSay();
  if (!onMove) return undefined;
  const drawTo = (event: PointerEvent<SVGSVGElement>) => {
    const inside = event.currentTarget.getScreenCTM()?.inverse();
    if (!inside) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(inside).y;
    const ml = ((at - top) / scaleHeight) * capacityMl;
    onMove({ ml: Math.min(capacityMl, Math.max(start ?? 0, ml)) });
  };
  return {
    role: "slider",
    tabIndex: 0,
    "aria-orientation": "vertical" as const,
    "aria-valuemin": 0,
    "aria-valuemax": capacityMl,
    "aria-valuenow": level ?? 0,
    "aria-valuetext": say`${(level ?? 0).toFixed(decimals)} mL`,
    onKeyDown: (event: KeyboardEvent) => {
      const drops = { ArrowDown: 1, ArrowUp: -1, PageDown: 20, PageUp: -20 }[event.key];
      if (drops === undefined) return;
      event.preventDefault();
      onMove({ drops });
    },
    // The field that is being typed keeps the cursor: what stands in it is not done yet.
    onMouseDown: (event: MouseEvent) => event.preventDefault(),
    onPointerDown: (event: PointerEvent<SVGSVGElement>) => {
      moving.current = true;
      event.currentTarget.setPointerCapture(event.pointerId);
      drawTo(event);
    },
    onPointerMove: (event: PointerEvent<SVGSVGElement>) => moving.current && drawTo(event),
    onPointerUp: () => {
      moving.current = false;
    },
  };
}

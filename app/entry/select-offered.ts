import { type FocusEvent, type MouseEvent, useRef } from "react";

/** Selects a value that is only offered when the cursor arrives, by key or by mouse, so that typing replaces it. */
export function useSelectOffered(offered: boolean) {
  const arriving = useRef(false);
  return {
    onFocus: ({ target }: FocusEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      if (!offered) return;
      target.select();
      arriving.current = true;
    },
    // The release of the press that brought the cursor would set it down between two digits.
    onMouseUp: (event: MouseEvent) => {
      if (arriving.current) event.preventDefault();
      arriving.current = false;
    },
  };
}

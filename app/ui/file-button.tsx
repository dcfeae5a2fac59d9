import Button, { type ButtonProps } from "@mui/material/Button";
import { useRef } from "react";

interface FileButtonProps extends Pick<ButtonProps, "variant" | "size" | "disabled" | "children"> {
  /** What the file is for: the name of the field. */
  readonly label: string;
  /** Endings and types that are offered, parted by commas. */
  readonly accept: string;
  readonly onFile: (file: File) => void;
}

/** A button that lets a file be chosen; the same one can be chosen again. */
export function FileButton({ label, accept, onFile, ...button }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => input.current?.click()} />
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        style={{ position: "absolute", width: 1, height: 1, opacity: 0 }}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = "";
          if (file) onFile(file);
        }}
      />
    </>
  );
}

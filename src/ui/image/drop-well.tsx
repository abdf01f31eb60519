import { useRef, useState, type ReactNode } from "react";

/** A place to drop one file, or to choose it from the keyboard. */
export function DropWell({
  title,
  hint,
  name = "Image file",
  onFile,
}: {
  title: string;
  /** What the field of the file is called, for those who hear it. */
  name?: string;
  hint: ReactNode;
  onFile: (file: File) => void;
}) {
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  return (
    <div
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        const file = e.dataTransfer.files[0];
        if (file) onFile(file);
      }}
      className={`flex flex-wrap items-center gap-3 border border-dashed border-current p-3 ${over ? "bg-warning/18" : ""}`}
    >
      <span className="font-medium">{title}</span>
      <button type="button" className="btn" onClick={() => input.current?.click()}>
        Choose a file
      </button>
      <input
        ref={input}
        type="file"
        className="sr-only"
        aria-label={name}
        tabIndex={-1}
        onChange={(e) => {
          const file = e.target.files?.[0];
          // The same file may be chosen again after it was changed.
          e.target.value = "";
          if (file) onFile(file);
        }}
      />
      <span className="quiet text-[0.86rem]">{hint}</span>
    </div>
  );
}

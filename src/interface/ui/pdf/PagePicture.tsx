import { useEffect, useRef, useState } from "react";
import { openPdf } from "./pdf";

/** The first page of a PDF as a picture. */
export default function PagePicture({ file, label }: { file: string; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [fault, setFault] = useState(false);
  useEffect(() => {
    const task = openPdf(file);
    const run = { gone: false };
    (async () => {
      const page = await (await task.promise).getPage(1);
      const to = canvas.current;
      if (run.gone || !to) return;
      const scale = Math.min(2, (to.parentElement?.clientWidth ?? 360) / page.getViewport({ scale: 1 }).width);
      const viewport = page.getViewport({ scale: scale * window.devicePixelRatio });
      to.width = viewport.width;
      to.height = viewport.height;
      await page.render({ canvas: to, viewport }).promise;
    })().catch(() => setFault(!run.gone));
    return () => {
      run.gone = true;
      void task.destroy();
    };
  }, [file]);
  if (fault) return <p className="text-quiet">The page cannot be shown.</p>;
  return <canvas ref={canvas} role="img" aria-label={label} className="w-full border border-line bg-white" />;
}

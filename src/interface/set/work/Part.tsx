import type { ReactNode } from "react";

/** A titled part of what stands under a work. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-4 border-t border-line pt-2 text-[12.5px]">
      <h3 className="mb-1 font-semibold">{title}</h3>
      {children}
    </section>
  );
}

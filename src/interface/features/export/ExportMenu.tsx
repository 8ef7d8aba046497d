import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { CiteSheet } from "../cite/CiteSheet";
import { works } from "../../ui/numbers";
import type { Place } from "../search/useSearch";

const formats: [string, string, string][] = [
  ["ris", "RIS", "reference managers"],
  ["bibtex", "BibTeX", "LaTeX"],
  ["csl-json", "CSL-JSON", "citation processors"],
  ["csv", "CSV", "spreadsheets"],
];

/** Hands the set in view on as a file, in one act. */
export function ExportMenu({ place, total }: { place: Place; total: number }) {
  const [citing, setCiting] = useState(false);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          disabled={total === 0}
          className="h-[26px] rounded-md border border-edge/70 bg-raised px-2 text-[12.5px] whitespace-nowrap text-quiet hover:border-ink disabled:opacity-50"
        >
          Export
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={5}
            className="z-50 min-w-[230px] rounded-md border border-line bg-raised py-1 shadow-xl"
          >
            <DropdownMenu.Label className="px-3 py-1 text-[12px] text-quiet">
              {works(total)}, in the order of the list
            </DropdownMenu.Label>
            {formats.map(([format, name, use]) => (
              <DropdownMenu.Item
                key={format}
                asChild
                className="flex justify-between gap-6 px-3 py-1.5 text-[13px] outline-none data-[highlighted]:bg-mist"
              >
                <a
                  href={`/api/reviews/${place.reviewId}/export?stepId=${place.stepId}&sort=${place.sort}&format=${format}`}
                  download
                >
                  <span>{name}</span>
                  <span className="text-quiet">{use}</span>
                </a>
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item
              onSelect={() => setCiting(true)}
              className="flex justify-between gap-6 border-t border-line px-3 py-1.5 text-[13px] outline-none data-[highlighted]:bg-mist"
            >
              <span>Bibliography …</span>
              <span className="text-quiet">in any style</span>
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <CiteSheet
        reviewId={place.reviewId}
        cited={{ stepId: place.stepId }}
        open={citing}
        close={() => setCiting(false)}
      />
    </>
  );
}

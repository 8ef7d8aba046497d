/** What Zendle is built on, with the notices that licences ask for. */
export function AboutPage() {
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-raised px-[18px] py-8">
      <article className="mx-auto max-w-[680px] space-y-4 text-[14px]">
        <h1 className="font-serif text-[19px] font-semibold">About Zendle</h1>
        <p>
          Zendle searches scholarly databases, follows citation trails and gathers full texts for literature reviews. It
          runs entirely on this installation and contacts only the addresses its settings allow.
        </p>
        <section>
          <h2 className="font-serif text-[16px] font-semibold">References</h2>
          <p>
            References are formatted by citeproc-js, Copyright © 2009–2019 Frank Bennett, used under the Common Public
            Attribution License 1.0, unmodified and in a file of its own.
          </p>
          <p className="mt-2">
            The citation styles and locales are those of the Citation Style Language project, under the Creative Commons
            Attribution-ShareAlike 3.0 Unported licence, unmodified. The authors of each style are named in its file.
          </p>
        </section>
        <section>
          <h2 className="font-serif text-[16px] font-semibold">Texts</h2>
          <p>
            PDFs are shown by pdf.js (Apache 2.0) and read by PdfPig (Apache 2.0). The citation engine runs in V8 (BSD)
            through ClearScript (MIT).
          </p>
        </section>
        <section>
          <h2 className="font-serif text-[16px] font-semibold">Type</h2>
          <p>Figtree and Source Serif 4, under the SIL Open Font License 1.1.</p>
        </section>
        <p className="text-quiet">
          All other packages and their licences are listed in THIRD-PARTY-NOTICES.md, which ships with the application.
        </p>
      </article>
    </div>
  );
}

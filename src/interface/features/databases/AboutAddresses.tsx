/** What an address of a database is, where it is found, and which kinds of sources have one. */
export function AboutAddresses() {
  return (
    <div className="max-w-[640px] space-y-2.5 text-[13.5px] text-quiet">
      <p>
        A database is added by its <b className="font-semibold text-ink">OAI-PMH address</b>: a web address that
        programs ask for records, not the page that people read. It often ends in <code>/oai</code> or{" "}
        <code>/oai/request</code>.
      </p>
      <p>
        Repositories give it on a page such as “About”, “For developers”, “Interoperability” or “Harvesting”, or in
        public registries of repositories. If you do not find it, ask the library that runs the repository.
      </p>
      <p>Sources of these kinds usually have one:</p>
      <ul className="list-inside list-disc">
        <li>repositories of universities and research institutes: articles, theses, reports</li>
        <li>preprint servers of a field</li>
        <li>open-access journals and the platforms that host them</li>
        <li>data repositories</li>
        <li>national aggregators, which collect from many repositories at once</li>
      </ul>
    </div>
  );
}

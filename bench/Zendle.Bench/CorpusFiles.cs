using System.Globalization;
using System.Xml;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Bench;

/// <summary>
/// The synthetic corpus as the pages of five databases (OAI-PMH with MODS), streamed to disk once and kept: about 5 KB
/// a record with nine or ten references, most by DOI, some by title and person, some that nobody has. The same seed
/// gives the same bytes.
/// </summary>
internal sealed class CorpusFiles(string cache, int works, int seed)
{
    private const int PageSize = 1_000;
    private readonly string folder = Path.Combine(
        cache,
        string.Create(CultureInfo.InvariantCulture, $"pages-{works}-{seed}")
    );

    /// <summary>The pages of a database, in order.</summary>
    public IEnumerable<string> Pages(int database) =>
        Directory
            .EnumerateFiles(folder, string.Create(CultureInfo.InvariantCulture, $"{database}-*.xml"))
            .Order(StringComparer.Ordinal);

    /// <summary>Size on disk in megabytes.</summary>
    public double Megabytes => Measures.Megabytes(folder);

    /// <summary>Writes the files when they are not there yet. Returns how many records they hold.</summary>
    public int Write()
    {
        var done = Path.Combine(folder, "records");
        if (File.Exists(done))
            return int.Parse(File.ReadAllText(done), CultureInfo.InvariantCulture);
        Directory.CreateDirectory(folder);
        var pages = SyntheticCorpus.Databases.Keys.ToDictionary(d => d, d => new Page(folder, d));
        var (count, random) = (0, new Random(seed * 31));
        var (of, cited) = (0, new List<(int Work, int Kind)>());
        foreach (var r in new SyntheticCorpus(works, seed).Records())
        {
            if (r.Work != of)
            {
                (of, cited) = (r.Work, []);
                for (var i = random.Next(4, 16); i > 0 && of > 40; i--)
                    cited.Add((1 + (int)((of - 1) * Math.Pow(random.NextDouble(), 2)), random.Next(20)));
            }
            pages[r.Database].Add(r, cited);
            count++;
        }
        foreach (var page in pages.Values)
            page.Dispose();
        File.WriteAllText(done, count.ToString(CultureInfo.InvariantCulture));
        return count;
    }

    private sealed class Page(string folder, int database) : IDisposable
    {
        private XmlWriter? writer;
        private int held,
            number;

        public void Add(SyntheticRecord r, List<(int Work, int Kind)> cited)
        {
            if (held == PageSize)
                Close();
            if (writer is null)
                Open();
            held++;
            writer!.WriteStartElement("record");
            writer.WriteStartElement("header");
            writer.WriteElementString("identifier", r.Record.Identifier);
            writer.WriteElementString("datestamp", "2026-01-01T00:00:00Z");
            writer.WriteEndElement();
            writer.WriteStartElement("metadata");
            Mods(r, cited);
            writer.WriteEndElement();
            writer.WriteEndElement();
        }

        private void Open()
        {
            writer = XmlWriter.Create(
                Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"{database}-{number++:D6}.xml"))
            );
            writer.WriteStartElement("OAI-PMH", "http://www.openarchives.org/OAI/2.0/");
            writer.WriteElementString("responseDate", "2026-01-01T00:00:00Z");
            writer.WriteStartElement("ListRecords");
            held = 0;
        }

        private void Mods(SyntheticRecord r, List<(int Work, int Kind)> cited)
        {
            var w = writer!;
            w.WriteStartElement("mods", ModsReader.Mods.NamespaceName);
            Nested("titleInfo", "title", r.Record.Title);
            foreach (var p in r.Record.People)
            {
                w.WriteStartElement("name");
                w.WriteAttributeString("type", "personal");
                NamePart("family", p.Family);
                NamePart("given", p.Given);
                w.WriteEndElement();
            }
            w.WriteElementString("genre", DocumentTypes.Name(r.Record.Type));
            Nested("originInfo", "dateIssued", r.Record.Year!.Value.ToString(CultureInfo.InvariantCulture));
            Nested("language", "languageTerm", r.Record.Language!);
            if (r.Record.Abstract.Length > 0)
                w.WriteElementString("abstract", r.Record.Abstract);
            foreach (var keyword in r.Record.Keywords)
                Nested("subject", "topic", keyword);
            Typed("identifier", "doi", r.Record.Doi!);
            w.WriteStartElement("relatedItem");
            w.WriteAttributeString("type", "host");
            Nested("titleInfo", "title", r.Record.Venue!.Title);
            w.WriteEndElement();
            foreach (var (work, kind) in cited)
            {
                w.WriteStartElement("relatedItem");
                w.WriteAttributeString("type", "references");
                if (kind < 14)
                    Typed("identifier", "doi", string.Create(CultureInfo.InvariantCulture, $"10.5555/bench.{work}"));
                else
                    Nested(
                        "titleInfo",
                        "title",
                        string.Create(CultureInfo.InvariantCulture, $"A study number {work} that nobody describes")
                    );
                Nested("originInfo", "dateIssued", r.Record.Year.Value.ToString(CultureInfo.InvariantCulture));
                w.WriteEndElement();
            }
            w.WriteEndElement();
        }

        private void Nested(string outer, string inner, string text)
        {
            writer!.WriteStartElement(outer);
            writer.WriteElementString(inner, text);
            writer.WriteEndElement();
        }

        private void Typed(string name, string type, string text)
        {
            writer!.WriteStartElement(name);
            writer.WriteAttributeString("type", type);
            writer.WriteString(text);
            writer.WriteEndElement();
        }

        private void NamePart(string type, string text) => Typed("namePart", type, text);

        private void Close()
        {
            if (writer is null)
                return;
            writer.WriteEndElement();
            writer.WriteEndElement();
            writer.Dispose();
            writer = null;
        }

        public void Dispose() => Close();
    }
}

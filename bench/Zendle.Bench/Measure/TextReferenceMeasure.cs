using System.Globalization;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Text;
using Zendle.Documents;
using Zendle.Documents.Pdf;
using Zendle.Outside.Documents;
using Zendle.Outside.World;

namespace Zendle.Bench.Measure;

/// <summary>
/// Reference lists read out of printed papers of all looks: how many of the entries are found whole, and how often the
/// works they mean are.
/// </summary>
internal static class TextReferenceMeasure
{
    private const int PerLook = 200;

    /// <summary>Prints papers of a world that nothing was tuned on, reads their references back and counts.</summary>
    public static void Print(
        IReadOnlyList<HarvestedEntry> entries,
        IReadOnlyDictionary<RecordAt, (int Work, string Version)> truth,
        IReadOnlyList<Work> works,
        Scenario scenario,
        TextWriter to,
        bool examples
    )
    {
        var matcher = ReferenceMeasure.MatcherOf(entries);
        var means = ReferenceMeasure.TrueWorks(entries, truth);
        var known = means.Values.ToHashSet();
        Work[] pool = [.. works.Where(w => w.Cites.Length > 2)];
        to.WriteLine(
            "references out of texts       printed    found   extra   precision   recall   of lists   sentences"
        );
        foreach (var look in Enum.GetValues<Look>())
        {
            var (printed, found, extra, right, taken, there, cited, told) = (0, 0, 0, 0, 0, 0, 0, 0);
            var papers = Enumerable
                .Range(0, PerLook)
                .AsParallel()
                .AsOrdered()
                .Select(i =>
                {
                    var work = pool[(i * 61 + (int)look * 17 + 5) % pool.Length];
                    var paper = Paper.Of(work, works, scenario, look);
                    return (work, paper, Read: PdfText.Read(PaperPrinter.Print(paper), DocumentLimits.Usual));
                })
                .ToArray();
            foreach (var (work, paper, read) in papers)
            {
                var left = paper.References.Select(Folded).ToList();
                printed += left.Count;
                foreach (var entry in read.References)
                {
                    if (left.Remove(Folded(entry)))
                        found++;
                    else
                    {
                        extra++;
                        if (examples)
                            to.WriteLine($"    {look} {work.Id}: {entry}");
                    }
                    if (matcher.Match(PrintedReference.Read(entry)) is { Work: > 0 } match)
                    {
                        taken++;
                        if (work.Cites.Contains(means[match.Work]))
                            right++;
                    }
                }
                var body = string.Join(' ', paper.Sections.SelectMany(s => s.Paragraphs));
                foreach (var c in work.Cites.Distinct().Where(known.Contains))
                {
                    var name = InTextCitations.NameAndYear(works[c]);
                    if (!body.Contains(name, StringComparison.Ordinal))
                        continue;
                    cited++;
                    var isTold = read.Citations.Any(s =>
                        s.Text.Contains(name, StringComparison.Ordinal)
                        && s.Entries.Any(e =>
                            matcher.Match(PrintedReference.Read(read.References[e])).Work is > 0 and var w
                            && means[w] == c
                        )
                    );
                    if (isTold)
                        told++;
                    else if (examples)
                        to.WriteLine($"    {look} {work.Id} NOT TOLD: {name}");
                }
                there += work.Cites.Count(known.Contains);
            }
            to.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  {look, -24} {printed, 10:N0} {(double)found / printed, 8:0.0000} {extra, 7:N0} "
                        + $"{(double)right / taken, 11:0.0000} {(double)right / there, 8:0.0000} {papers.Length, 10:N0} "
                        + $"{(double)told / cited, 11:0.0000}"
                )
            );
        }
    }

    private static string Folded(string text) => string.Concat(Words.Fold(text).Where(char.IsLetterOrDigit));
}

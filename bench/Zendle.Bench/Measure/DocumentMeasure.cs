using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Documents;
using Zendle.Documents.Pdf;
using Zendle.Outside.Documents;
using Zendle.Outside.World;

namespace Zendle.Bench.Measure;

/// <summary>
/// Documents held against works: how many that only carry a work's title are taken for it, and how many of the work's
/// own are not.
/// </summary>
internal static class DocumentMeasure
{
    private const int PerKind = 43;
    private const int True = 400;

    /// <summary>Prints look-alikes and true documents of a world that nothing was tuned on, and counts.</summary>
    public static void Print(ulong seed, TextWriter to, bool examples)
    {
        var scenario = Scenario.Read(Path.Combine(AppContext.BaseDirectory, "demo"));
        var works = WorldMaker.Make(scenario, seed + 500, 1_500);
        Work[] pool = [.. works.Where(w => w.Type is not ("editorial" or "letter") && w.Title.Split(' ').Length > 3)];
        var books = Array.FindAll(pool, w => w.Type is "book" or "report" or "thesis");
        to.WriteLine("documents");
        var (taken, all) = (0, 0);
        foreach (var kind in LookAlikes.Kinds)
        {
            Work[] of = kind == "book-review" && books.Length > 0 ? books : pool;
            var judged = Enumerable
                .Range(0, PerKind)
                .AsParallel()
                .AsOrdered()
                .Select(i =>
                {
                    var work = of[(i * 37 + 11) % of.Length];
                    return (
                        Work: work,
                        Check: DocumentCheck.Of(
                            PdfText.Read(LookAlikes.Print(kind, work, works, scenario, i), DocumentLimits.Usual),
                            Expected(work)
                        )
                    );
                })
                .ToArray();
            var wrong = judged.Where(j => j.Check.Verdict == DocumentVerdict.Agrees).ToArray();
            (taken, all) = (taken + wrong.Length, all + judged.Length);
            to.WriteLine(
                string.Create(
                    System.Globalization.CultureInfo.InvariantCulture,
                    $"  {kind, -12} {judged.Length, 4}   taken for the work {wrong.Length, 3}   to be "
                        + $"looked at {judged.Count(j => j.Check.Verdict == DocumentVerdict.Doubtful), 3}   "
                        + $"refused {judged.Count(j => j.Check.Verdict == DocumentVerdict.Refused), 3}"
                )
            );
            if (examples)
                foreach (var (work, check) in wrong)
                    to.WriteLine(
                        $"      {work.Title} — {string.Join("; ", check.Lines.Select(l => $"{l.Name}: {l.Document}"))}"
                    );
        }
        var own = Enumerable
            .Range(0, True)
            .AsParallel()
            .AsOrdered()
            .Select(i =>
            {
                var work = pool[(i * 53 + 7) % pool.Length];
                var look = (Look)(i % 3);
                var paper = Paper.Of(work, works, scenario, look);
                return (
                    Work: work,
                    look,
                    Check: DocumentCheck.Of(
                        PdfText.Read(PaperPrinter.Print(paper), DocumentLimits.Usual),
                        Expected(work)
                    )
                );
            })
            .ToArray();
        var lost = own.Where(o => o.Check.Verdict != DocumentVerdict.Agrees).ToArray();
        if (examples)
            foreach (var (work, look, check) in lost)
                to.WriteLine($"      {look} {work.Type}: {work.Title} — {check.Sentence}");
        to.WriteLine(
            string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"  look-alikes taken for the work: {taken} of {all}; its own documents not taken by "
                    + $"themselves: {lost.Length} of {own.Length} ({100.0 * lost.Length / own.Length:0.0} %); "
                    + $"precision {(double)(own.Length - lost.Length) / (own.Length - lost.Length + taken):0.0000}"
            )
        );
    }

    private static ExpectedWork Expected(Work w) =>
        new(
            [w.Title],
            [.. w.People.Select(p => new PersonName(p.Family, p.Given))],
            [.. new[] { w.Doi, w.PreprintDoi }.OfType<string>()],
            w.Year,
            w.Abstract,
            DocumentTypes.Read(w.Type)
        );
}

using Zendle.Core.FullText;
using Zendle.Documents;
using Zendle.Documents.Pdf;

namespace Zendle.Bench;

/// <summary>Reading and checking documents, and whether memory stays flat over many.</summary>
internal static class DocumentBench
{
    /// <summary>Checks long documents and then five hundred usual ones.</summary>
    public static void Run(int seed)
    {
        var papers = new Papers(seed, 900);
        var study = papers.Studies[^1];
        foreach (var times in new[] { 1, 18 })
        {
            var bytes = papers.Print(study, times);
            var pages = PdfText.Read(bytes, DocumentLimits.Usual).Pages;
            var spent = Enumerable
                .Range(0, 24)
                .Select(_ =>
                    Measures
                        .Time(() =>
                            DocumentCheck.Of(PdfText.Read(bytes, DocumentLimits.Usual), Papers.Expected(study)).Verdict
                        )
                        .Milliseconds
                )
                .Skip(4)
                .ToArray();
            Console.WriteLine(
                $"a document of {pages} pages read and checked: median {Measures.Median(spent):N0} ms, "
                    + $"{Measures.Median(spent) / pages:N1} ms a page"
            );
        }
        var files = papers.Studies.TakeLast(50).Select(w => (Work: w, Bytes: papers.Print(w))).ToArray();
        for (var i = 0; i < 500; i++)
        {
            var (work, bytes) = files[i % files.Length];
            if (
                DocumentCheck.Of(PdfText.Read(bytes, DocumentLimits.Usual), Papers.Expected(work)).Verdict
                != DocumentVerdict.Agrees
            )
                throw new InvalidOperationException($"A right document was not known: {work.Title}");
            if (i is 99 or 299 or 499)
                Console.WriteLine($"after {i + 1} documents: {Measures.Memory()}");
        }
    }
}

using System.Diagnostics;
using Zendle.Core.FullText;
using Zendle.Documents;
using Zendle.Documents.Reading;

namespace Zendle.Bench;

/// <summary>
/// Reading and checking documents in a process of their own, as they are read for people, and whether memory stays flat
/// over many.
/// </summary>
internal static class DocumentBench
{
    /// <summary>Times of the running text that make a paper of twenty pages.</summary>
    private const int TwentyPages = 29;

    private const int Warm = 10,
        Measured = 40,
        Many = 500;

    /// <summary>Checks a usual document and a long one again and again, and then five hundred usual ones.</summary>
    /// <param name="seed">Of the world.</param>
    /// <param name="binaries">The folder of built projects, as people run them.</param>
    public static async Task Run(int seed, string binaries)
    {
        var program = Path.Combine(binaries, "Server", "Zendle.Reader.dll");
        var papers = new Papers(seed, 900);
        var study = papers.Studies[^1];
        foreach (var times in new[] { 1, TwentyPages })
        {
            using var reader = new DocumentReader(program, DocumentLimits.Usual, 1);
            var bytes = papers.Print(study, times);
            var (pages, words, spent) = (0, 0, new List<double>());
            for (var i = 0; i < Warm + Measured; i++)
            {
                var watch = Stopwatch.StartNew();
                var facts = await reader.Read(bytes, CancellationToken.None);
                DocumentCheck.Of(facts, Papers.Expected(study));
                spent.Add(watch.Elapsed.TotalMilliseconds);
                (pages, words) = (facts.Pages, facts.WordCount);
            }
            var median = Measures.Median([.. spent.Skip(Warm)]);
            Console.WriteLine(
                $"a document of {pages} pages and {words:N0} words read and checked: median {median:N0} ms, "
                    + $"{median / pages:N1} ms a page; the first one, with the start of the process, {spent[0]:N0} ms"
            );
        }
        using var readers = new DocumentReader(program, DocumentLimits.Usual);
        var files = papers.Studies.TakeLast(50).Select(w => (Work: w, Bytes: papers.Print(w))).ToArray();
        for (var i = 0; i < Many; i++)
        {
            var (work, bytes) = files[i % files.Length];
            var facts = await readers.Read(bytes, CancellationToken.None);
            if (DocumentCheck.Of(facts, Papers.Expected(work)).Verdict != DocumentVerdict.Agrees)
                throw new InvalidOperationException($"A right document was not known: {work.Title}");
            if (i is 99 or 299 or Many - 1)
                Console.WriteLine($"after {i + 1} documents: {Measures.Memory()} here, {Readers()} MB in readers");
        }
    }

    /// <summary>Working set of the processes that read, in MB: the children of this one.</summary>
    private static long Readers() =>
        Process
            .GetProcessesByName("dotnet")
            .Where(p => File.ReadAllText($"/proc/{p.Id}/stat").Split(' ')[3] == $"{Environment.ProcessId}")
            .Sum(p => p.WorkingSet64) / 1_000_000;
}

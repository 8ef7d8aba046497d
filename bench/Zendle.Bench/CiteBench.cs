using System.Diagnostics;
using System.Text;
using Zendle.Core.Citing;
using Zendle.Core.Formats;
using Zendle.Core.Records;
using Zendle.Documents.Citing;

namespace Zendle.Bench;

/// <summary>Five hundred references in three styles.</summary>
internal static class CiteBench
{
    /// <summary>Formats them cold and warm.</summary>
    public static async Task Run(int seed)
    {
        var watch = Stopwatch.StartNew();
        using var shelf = StyleShelf.Shipped();
        var count = shelf.Count;
        Console.WriteLine($"{count:N0} styles listed in {watch.Elapsed.TotalSeconds:N1} s");
        using var formatter = new ReferenceFormatter(shelf);
        var random = new Random(seed);
        Citation[] citations =
        [
            .. Enumerable
                .Range(1, 500)
                .Select(i => new Citation
                {
                    WorkId = i,
                    Key = $"w{i}",
                    Title =
                        $"{SyntheticCorpus.Word(random.Next(500))} of "
                        + $"{SyntheticCorpus.Word(random.Next(5_000))} in lit "
                        + $"{SyntheticCorpus.Word(random.Next(9_000))}",
                    Type = DocumentType.Article,
                    Year = random.Next(1970, 2027),
                    Authors =
                    [
                        .. Enumerable
                            .Range(0, random.Next(1, 7))
                            .Select(_ => new PersonName(SyntheticCorpus.Word(random.Next(5_000, 20_000)), "A. B.")),
                    ],
                    Venue = new("Verge", Volume: $"{random.Next(1, 90)}", FirstPage: $"{i}", LastPage: $"{i + 9}"),
                    Doi = $"10.5555/bench.{i}",
                }),
        ];
        using var json = new MemoryStream();
        CslJsonWriter.Write(json, citations);
        var items = Encoding.UTF8.GetString(json.ToArray());
        CitationStyle[] styles =
        [
            shelf.Find(StyleShelf.Own)!,
            .. shelf.Search("author date").Where(s => s.Parent is null && s.Key != StyleShelf.Own).Take(1),
            .. shelf.Search("numeric").Where(s => s.Parent is null).Take(1),
        ];
        foreach (var round in new[] { "cold", "warm", "warm again" })
        foreach (var style in styles)
        {
            watch.Restart();
            var made = await formatter.Format(style, "en-US", items, CancellationToken.None);
            Console.WriteLine(
                $"{round}: {made.References.Count} references in “{style.Title}”, as HTML and as text, "
                    + $"in {watch.Elapsed.TotalSeconds:N2} s"
            );
        }
        Console.WriteLine($"Memory: {Measures.Memory()}");
    }
}

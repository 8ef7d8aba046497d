using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Outside.Documents;
using Zendle.Outside.World;

namespace Zendle.Bench;

/// <summary>Studies of a made-up world with their PDFs.</summary>
internal sealed class Papers
{
    private readonly Scenario scenario = Scenario.Read(Path.Combine(AppContext.BaseDirectory, "demo"));
    private readonly IReadOnlyList<Work> works;

    public Papers(int seed, int size)
    {
        works = WorldMaker.Make(scenario, (ulong)seed, size);
        Studies = [.. works.Where(w => w is { Type: "article", Journal: not null, Doi: not null })];
    }

    public IReadOnlyList<Work> Studies { get; }

    /// <summary>The PDF of a study, with its running text so many times over.</summary>
    public byte[] Print(Work work, int times = 1)
    {
        var paper = Paper.Of(work, works, scenario, Look.Typeset);
        return PaperPrinter.Print(
            paper with
            {
                Sections =
                [
                    .. paper.Sections.Select(s =>
                        s with
                        {
                            Paragraphs = [.. Enumerable.Repeat(s.Paragraphs, times).SelectMany(p => p)],
                        }
                    ),
                ],
            }
        );
    }

    public static ExpectedWork Expected(Work w) =>
        new([w.Title], [.. w.People.Select(p => new PersonName(p.Family, p.Given))], [w.Doi!], w.Year, w.Abstract);
}

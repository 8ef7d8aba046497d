using System.Globalization;
using Zendle.Outside.World;
using Zendle.Outside.World.Databases;

namespace Zendle.Outside.Documents;

/// <summary>How a text looks on its pages.</summary>
public enum Look
{
    /// <summary>As the publisher sets it: two columns, running head, dates received and accepted, DOI.</summary>
    Typeset,

    /// <summary>As accepted: the repository's cover sheet, then wide lines with line numbers.</summary>
    Manuscript,

    /// <summary>As first put out: a banner, wide lines with line numbers.</summary>
    Preprint,
}

/// <summary>A heading with its paragraphs.</summary>
public sealed record Section(string Heading, IReadOnlyList<string> Paragraphs);

/// <summary>All that is printed of a work, in one of its looks.</summary>
public sealed record Paper
{
    private const int FurtherChapters = 5;

    /// <summary>The work.</summary>
    public required Work Work { get; init; }

    /// <summary>The look.</summary>
    public required Look Look { get; init; }

    /// <summary>Title as printed.</summary>
    public required string Title { get; init; }

    /// <summary>Sections of running text.</summary>
    public required IReadOnlyList<Section> Sections { get; init; }

    /// <summary>References as printed.</summary>
    public required IReadOnlyList<string> References { get; init; }

    /// <summary>How the text names the works it cites, in the order of its list.</summary>
    public required IReadOnlyList<string> CitedAs { get; init; }

    /// <summary>Counts for the table and the figure.</summary>
    public required CountTable Counts { get; init; }

    /// <summary>DOI printed; null for none.</summary>
    public string? Doi { get; init; }

    /// <summary>
    /// How the work is laid out: a thesis and a book have front pages of their own, a chapter names its book.
    /// </summary>
    public bool HasTitlePage => Work.Type is "thesis" or "book" or "report";

    /// <summary>Received and accepted, as printed.</summary>
    public required string Dates { get; init; }

    /// <summary>Writes the text of a work. The same work and look give the same text.</summary>
    /// <param name="work">The work.</param>
    /// <param name="works">All works, for the references.</param>
    /// <param name="scenario">Words and sentences.</param>
    /// <param name="look">The look.</param>
    /// <param name="otherTitle">Whether the title is an earlier one, that shares only a part of its words.</param>
    public static Paper Of(Work work, IReadOnlyList<Work> works, Scenario scenario, Look look, bool otherTitle = false)
    {
        var dice = new Dice(9).For("text", work.Id);
        var counts = CountTable.Of(work, look);
        var accepted = new DateOnly(work.Year, 1, 1).AddDays(Math.Max(0, work.Day - 40));
        return new()
        {
            Work = work,
            Look = look,
            Title = otherTitle ? Earlier(work.Title) : work.Title,
            Sections = InTextCitations.Into(work, works, SectionsOf(work, works, scenario, look, counts, dice)),
            References =
            [
                .. Enumerable
                    .Range(0, work.Cites.Length + work.Strays)
                    .Select(i => PrintedReferences.Of(work, i, i < work.Cites.Length ? works[work.Cites[i]] : null)),
            ],
            CitedAs = [.. work.Cites.Select(c => InTextCitations.NameAndYear(works[c]))],
            Counts = counts,
            Doi = look == Look.Preprint ? work.PreprintDoi ?? work.Doi : work.Doi,
            Dates = string.Create(
                CultureInfo.InvariantCulture,
                $"Received {accepted.AddDays(-120):d MMMM yyyy} · Accepted {accepted:d MMMM yyyy}"
            ),
        };
    }

    /// <summary>
    /// The running text, in sentences of the kind of study, none of which stands in an abstract. A
    /// preprint says what it lacks, the version of record ends with thanks, money and data.
    /// </summary>
    private static List<Section> SectionsOf(
        Work work,
        IReadOnlyList<Work> works,
        Scenario scenario,
        Look look,
        CountTable counts,
        Dice dice
    )
    {
        var prose = new Prose(scenario, work.Topic, work.Study, work.Year, dice);
        var frames = scenario.Sections[
            work.Type is "review" or "systematic review" ? "synthesis"
            : work.Topic is { Core: true, Kind: "field" } ? "core"
            : work.Topic.Kind
        ];
        if (work.Type is "correction" or "retraction notice")
            return [new("Notice", [NoticeOf(work)])];
        if (work.Type is "editorial" or "letter")
            return [new("Comment", prose.Paragraphs(frames.Discussion, 4))];
        var sections = new List<Section>
        {
            new("Introduction", prose.Paragraphs(frames.Introduction, 5)),
            new(
                "Methods",
                [
                    .. prose.Paragraphs(frames.Methods, 5),
                    .. look == Look.Preprint
                        ? new[]
                        {
                            "The last season had not been counted when this version was written; those counts will be added after review.",
                        }
                        : [],
                ]
            ),
            new("Results", [counts.Sentence(work.Study, look), .. prose.Paragraphs(frames.Results, 5)]),
            new("Discussion", prose.Paragraphs(frames.Discussion, 5)),
        };
        if (work.Type == "thesis")
            sections.AddRange(FurtherStudies(work, works, scenario, frames, dice));
        if (look == Look.Typeset)
            sections.Add(
                new(
                    "Acknowledgements and data",
                    [
                        "We thank those who kept the sites open and two reviewers for their doubts. "
                            + (
                                work.Funder is { } funder
                                    ? $"The work was paid for by {funder}. "
                                    : "The work had no money of its own. "
                            )
                            + $"All counts lie with {work.People[0].Institute}.",
                    ]
                )
            );
        return sections;
    }

    /// <summary>A thesis tells of several studies: behind its own stand those of others of its topic, in chapters.</summary>
    private static IEnumerable<Section> FurtherStudies(
        Work work,
        IReadOnlyList<Work> works,
        Scenario scenario,
        SectionFrames frames,
        Dice dice
    ) =>
        works
            .Where(w => w.Topic == work.Topic && w.Id != work.Id)
            .Take(FurtherChapters)
            .SelectMany(
                (w, i) =>
                {
                    var prose = new Prose(scenario, w.Topic, w.Study, work.Year, dice);
                    return new Section[]
                    {
                        new($"Chapter {i + 2}: background", prose.Paragraphs(frames.Introduction, 5)),
                        new($"Chapter {i + 2}: methods", prose.Paragraphs(frames.Methods, 5)),
                        new($"Chapter {i + 2}: results", prose.Paragraphs(frames.Results, 5)),
                        new($"Chapter {i + 2}: discussion", prose.Paragraphs(frames.Discussion, 5)),
                    };
                }
            );

    private static string NoticeOf(Work work)
    {
        var of = work.Title[(work.Title.IndexOf(": ", StringComparison.Ordinal) + 2)..];
        return work.Type == "correction"
            ? $"In “{of}” the columns of Table 1 were exchanged when the pages were set. The text was right as it stood, and "
                + "nothing in it changes. The tables in print and on line have been replaced."
            : $"The authors of “{of}” could not find the sheets on which its counts were first written, and have asked "
                + "that the article be withdrawn. The editors agree. The text stays where it was, marked as withdrawn.";
    }

    /// <summary>The title a study had before: its second half was worded anew.</summary>
    private static string Earlier(string title)
    {
        var words = title.Split(' ');
        return string.Join(' ', words.Take((words.Length * 2 + 2) / 3)).TrimEnd(',', ':', ';', '.')
            + ", a first account";
    }
}
